import type * as core from '@angular/core';
import type { Failure, InTurn, Later } from '../core/answers';
import type { Held } from '../core/hold';
import { calledFrom } from '../core/errors/called-from';
import type { AnyFunction } from '../core/spy';
import type { StandIn } from '../core/stand-in';
import { addRecorder } from '../core/recordings';
import { installOnce } from '../stage/install';
import { isolateOn, isolateOnWith } from '../stage/isolate';
import { declareStates, type AnyState, type Declared, type Isolated, type States } from '../states/declare';
import type { Swap } from '../seam/swap';
import type { Load, Loaded } from '../stage/load-subject';
import type { AllOptions, CommonOptions } from '../stage/options';
import type { Part } from '../stage/parts';
import { makeStub, type Stub } from '../stage/stubs';
import type { Subject as AnySubject } from '../stage/subject';
import { angularAdapter } from './adapter';
import { recordSignal } from './recorder';

installOnce();
addRecorder(recordSignal);

/* eslint-disable @typescript-eslint/no-explicit-any -- what a pattern leaves open must be any */

/** Any Angular component, standalone or declared in a module. */
export type Component = abstract new (...args: any[]) => object;

/** What can be stubbed: a component, a directive or a pipe. */
export type Stubbable = Component;

type Emits<V> = { subscribe(listener: (value: V) => void): unknown; emit(value?: any): void };
type IsOutput<F> =
  F extends Emits<any> ? true : F extends { subscribe(listener: any): unknown } ? true : false;
type ValueOf<F> = F extends { emit(value?: infer V): void }
  ? V
  : F extends core.OutputRef<infer V>
    ? V
    : unknown;
type IsInput<F> =
  F extends core.InputSignalWithTransform<any, any>
    ? true
    : F extends core.Signal<any>
      ? false
      : IsOutput<F> extends true
        ? false
        : F extends AnyFunction
          ? false
          : true;

/** The inputs of a component, as its parent gives them. A model takes a signal, too, and writes back to it. */
export type InputsOf<T> = {
  -readonly [K in keyof T as IsInput<T[K]> extends true ? K : never]?: T[K] extends core.ModelSignal<infer V>
    ? V | core.WritableSignal<V>
    : T[K] extends core.InputSignalWithTransform<any, infer W>
      ? W
      : T[K];
};

/** What a component was given: its inputs, by the values they were given. */
export type GivenTo<T> = {
  -readonly [
    K in keyof T as IsInput<T[K]> extends true ? K : never
  ]: T[K] extends core.InputSignalWithTransform<any, infer W> ? W : T[K];
};

/** Listeners of a component's outputs, by the names of the outputs. */
export type ListenersOf<T> = {
  -readonly [
    K in keyof T as T[K] extends core.ModelSignal<any> ? never : IsOutput<T[K]> extends true ? K : never
  ]?: (value: ValueOf<T[K]>) => void;
} & {
  -readonly [K in keyof T as T[K] extends core.ModelSignal<any> ? `${K & string}Change` : never]?: (
    value: T[K] extends core.ModelSignal<infer V> ? V : never,
  ) => void;
};

/** What a component has told its parent, by output: the value of each time. */
export type OutputsOf<T> = {
  readonly [K in keyof ListenersOf<T>]-?: NonNullable<ListenersOf<T>[K]> extends (value: infer V) => void
    ? [V][]
    : never;
};

type InstanceOf<C> = C extends abstract new (...args: any[]) => infer T ? T : Record<string, any>;

/* eslint-enable @typescript-eslint/no-explicit-any */

/** What a class lets others see of it. */
type Public<T> = T extends object ? { [K in keyof T]: T[K] } : T;

/** What is provided, each with its value; `V` are the values. */
type ProvidedBy<V> = {
  readonly [K in keyof V]: readonly [token: core.ProviderToken<V[K]>, value: NoInfer<Public<V[K]>>];
};

/** Classes and tokens with their values, each value of its token's type. */
export type Provided<V extends readonly unknown[]> = readonly [...ProvidedBy<V>];

/** What goes around the subject: a component or directive, one with its inputs, a module, a provider, or what `provideRouter` and its like return. */
export type Wrapper =
  | Component
  | readonly [component: Component, inputs: object]
  | core.EnvironmentProviders
  | core.ValueProvider
  | core.FactoryProvider
  | core.ClassProvider
  | core.ExistingProvider;

/** What is put into an `<ng-content>`: a text, elements, or a component. */
export type SlotContent = string | Node | Component | readonly (string | Node | Component)[];

/** The options of {@link isolate} but for the props. */
export interface Surroundings<V extends readonly unknown[] = readonly unknown[]> extends CommonOptions {
  /** Components, directives and pipes that are replaced: by reference, by name, or as `stub(Child, how)` says. */
  readonly stub?: readonly (Stubbable | string | Stub)[];
  /** Classes and tokens with their values: `[[HiveStore, standIn(HiveStore)]]`. They beat what components and modules provide. */
  readonly provide?: Provided<V>;
  /** What goes around the subject, outermost first. */
  readonly wrap?: readonly Wrapper[];
  readonly keep?: readonly (Component | string)[];
  /** What is put into the subject: for each `<ng-content>`, by its selector, or by `default`. */
  readonly slots?: Readonly<Record<string, SlotContent>>;
  /** How the loading of `@defer` blocks goes, once something has set it off: `hold()` for `@loading`, `fail()` for `@error`. */
  readonly defer?: Held<unknown> | Failure | Later<unknown> | InTurn<unknown>;
}

/** The options of {@link isolate}. */
export interface Options<T, V extends readonly unknown[] = readonly unknown[]> extends Surroundings<V> {
  /** Inputs, and listeners of outputs by the names of the outputs. */
  readonly props?: InputsOf<T> & ListenersOf<T>;
}

/** The component being verified, alone on its stage. */
export interface Subject<T = object> extends Omit<AnySubject<InputsOf<T>, OutputsOf<T>>, 'given' | 'part'> {
  /** The children of one kind: what they were given, and a way to call back. */
  part<C>(component: C): Part<GivenTo<InstanceOf<C>>, Required<ListenersOf<InstanceOf<C>>>>;
  /** What was provided for a class or token; its methods are taken to be spies. @throws SIM-GIVEN-NONE */
  given<S>(token: core.ProviderToken<S> | Swap<S>): StandIn<NonNullable<S>>;
}

/**
 * Renders one component on its own, with its children, surroundings and requests replaced as you say. No
 * module has to be written for it.
 *
 * @param component any Angular component, or `() => import('./hive-board')`, which is loaded after what it imports
 * was swapped; or a declared state of one
 * @param options `props`, `slots`, `stub`, `provide`, `wrap`, `depth`, `keep`, `network`, `swap`
 * @returns the subject, when the page is at rest
 * @throws SIM-COMPONENT-MISSING, SIM-OPTION-UNKNOWN, SIM-PROP-UNKNOWN, SIM-PROP-MISSING, SIM-PROVIDE-MISSING,
 * SIM-IMPORT-MISSING, SIM-BINDING-UNKNOWN, SIM-RENDER-THREW, SIM-STUB-NAME; everything is cleaned up first
 * @example
 * const board = await isolate(HiveBoard, {
 *   props: { yard: 'north' },
 *   stub: [HiveCard],
 *   network: { 'GET /api/hives?yard=:yard': hives },
 * });
 * expect(board).toShow(part(HiveCard), { times: 3 });
 * await board.part(HiveCard).at(0).tell('opened', 'h1');
 * expect(board.outputs.opened).toEqual([['h1']]);
 */
export function isolate<C extends Component | Load | AnyState, V extends readonly unknown[] = []>(
  component: C,
  options: [C] extends [AnyState]
    ? MoreOptions<V>
    : Options<InstanceType<Loaded<C, Component>>, V> = {} as never,
): Promise<Isolated<C, Subject<InstanceType<Loaded<C, Component>>>>> {
  return isolateOn(angularAdapter, component, options as AllOptions, calledFrom('isolate', isolate)) as never;
}

/** Options beside those of a declared state, over them. */
export interface MoreOptions<V extends readonly unknown[] = readonly unknown[]> extends Surroundings<V> {
  readonly props?: object;
}

/**
 * Declares the states of a component: what each begins with, what is done to get there, and what it shows. Nothing
 * is rendered. `isolate(board.failed)` begins a test with one; `testStates(board)` of `simulacra/jest` tests each,
 * and whether they can be told apart.
 *
 * @param component any Angular component, or `() => import('./hive-board')`
 * @param common options of all states; each adds its own, as calls do to a team's defaults
 * @param declared the states by name: options of `isolate`, and `shows`, `lacks`, `counts`, `from`, `after`,
 * `looksLike`, `everyArrival`
 * @throws SIM-COMPONENT-MISSING, SIM-OPTION-UNKNOWN, SIM-OPTION-VALUE, SIM-STATE-NONE, SIM-STATE-CHECK,
 * SIM-STATE-UNKNOWN, SIM-STATE-CIRCLE
 * @example
 * const board = states(HiveBoard, { props: { yard: 'north' }, stub: [HiveCard] }, {
 *   loading: { network: { 'GET /api/hives': hold() }, shows: [role('status', 'Loading hives')] },
 *   failed: { network: { 'GET /api/hives': fail(503) }, shows: [role('button', 'Try again')] },
 *   loaded: { network: { 'GET /api/hives': hives }, counts: [[part(HiveCard), 3]] },
 * });
 * expect(await isolate(board.failed)).toShow(role('alert'));
 */
export function states<C extends Component | Load, K extends string, W, V extends readonly unknown[] = []>(
  component: C,
  common: Options<InstanceType<Loaded<C, Component>>, V>,
  declared: {
    readonly [name in K]: Omit<Options<InstanceType<Loaded<C, Component>>>, 'provide'> &
      Declared<Subject<InstanceType<Loaded<C, Component>>>, K>;
  } & { readonly [name in keyof W]: { readonly provide?: readonly [] | ProvidedBy<W[name]> } },
): States<K, Subject<InstanceType<Loaded<C, Component>>>> {
  return declareStates(
    angularAdapter,
    component,
    common as AllOptions,
    declared as never,
    calledFrom('states', states),
  ) as never;
}

/**
 * Makes an `isolate` with default options for your team. Options merge as in every framework.
 *
 * @param defaults options every call begins with
 * @example
 * const session = standIn(Session, { keeper: signal<string | null>('Imke') });
 * const isolateSignedIn = isolateWith({ provide: [[Session, session]] });
 * const gate = await isolateSignedIn(YardGate, { slots: { default: 'The yard' } });
 * expect(gate).toShow(text('Imke'));
 */
export function isolateWith<D extends readonly unknown[] = []>(
  defaults: Surroundings<D> & { readonly props?: object },
): typeof isolate {
  return isolateOnWith(angularAdapter, defaults as AllOptions) as unknown as typeof isolate;
}

/**
 * Says how a child is replaced. Without a second argument a component is replaced by its empty element
 * with what its parent put inside of it, a directive by nothing, a pipe by the value it is given.
 *
 * @param child the component, directive or pipe, or its name
 * @param how for a component: another component, a template in which its inputs are there by name, or a
 * `handle` (what the parent reaches through a query); for a pipe: a function of its arguments, or a value
 * @example
 * const board = await isolate(HiveBoard, {
 *   props: { yard: 'north' },
 *   stub: [stub(HiveCard, '<p role="note">{{ hive.name }}</p>')],
 *   network: { 'GET /api/hives': hives },
 * });
 * expect(board).toShow(role('note'), { times: 3 });
 */
export function stub(child: Stubbable | string, how?: Component | string | AnyFunction | StubHow): Stub {
  return makeStub(child, isHow(how) ? how : { render: how });
}

/** How a child is replaced, in full. */
export interface StubHow {
  /** What the parent reaches through a query: method names, or methods with their answers. */
  readonly handle?: readonly string[] | Readonly<Record<string, unknown>>;
  readonly render?: Component | string;
}

const isHow = (how: unknown): how is { handle: Stub['handle']; render: unknown } =>
  typeof how === 'object' && how !== null;

export { startAt } from './injector';
export type { Stub };
export type { Part, PartInstance } from '../stage/parts';
