import type * as Vue from 'vue';
import { calledFrom } from '../core/errors/called-from';
import { addRecorder } from '../core/recordings';
import { installOnce } from '../stage/install';
import { isolateOn, isolateOnWith } from '../stage/isolate';
import type { Load, Loaded } from '../stage/load-subject';
import type { AllOptions, CommonOptions } from '../stage/options';
import type { Part } from '../stage/parts';
import type { StandIn } from '../core/stand-in';
import { makeStub, type Stub } from '../stage/stubs';
import type { Lacking, PropsOf, Subject as AnySubject } from '../stage/subject';
import { declareStates, type AnyState, type Declared, type Isolated, type States } from '../states/declare';
import type { Swap } from '../seam/swap';
import { vueAdapter } from './adapter';
import { recordRef } from './recorder';

installOnce();
addRecorder(recordRef);

/* eslint-disable @typescript-eslint/no-explicit-any -- what a pattern leaves open must be any */

/** Any Vue component: a single-file component, options, a function, or one that is loaded later. */
export type Component = Vue.Component<any, any, any, any, any, any> | (abstract new (...args: any[]) => any);

/** The slots of a component, by name: a text, a component, or a function of what the slot hands out. */
export type SlotsFor<C> = C extends new (...args: any[]) => { $slots: infer S }
  ? { readonly [K in keyof S]?: S[K] | ((scope: any) => Vue.VNodeChild) | string | Component }
  : Readonly<Record<string, ((scope: any) => Vue.VNodeChild) | string | Component>>;

type EventOf<K> = K extends `on${infer E}` ? (E extends `Vnode${string}` ? never : Uncapitalize<E>) : never;
type ArgsOf<F> = NonNullable<F> extends (...args: infer A) => unknown ? A : never;

/** What a component tells its parent, by event: the arguments of each time. */
export type OutputsOf<P> = { readonly [K in keyof P as EventOf<K>]-?: ArgsOf<P[K]>[] };

/** What a component's parent can be told, by event. */
type Heard<P> = { [K in keyof P as EventOf<K>]-?: NonNullable<P[K]> } & {
  [K in keyof P as ArgsOf<P[K]> extends never ? never : K]-?: NonNullable<P[K]>;
};

/* eslint-enable @typescript-eslint/no-explicit-any */

/** Props as a template gives them: a ref stands for its value, and a model writes back to it. */
export type Given<P> = { [K in keyof P]: P[K] | Vue.Ref<P[K]> };

/** What goes around the subject: a plugin, a component, or either with its options or props. */
export type Wrapper = Vue.Plugin | Component | readonly [what: Vue.Plugin | Component, ...options: unknown[]];

/** What is provided, each with its value; `V` are the values. */
type ProvidedBy<V> = {
  readonly [K in keyof V]: readonly [key: Vue.InjectionKey<V[K]> | string, value: NoInfer<V[K]>];
};

/** Injection keys with their values, each value of its key's type. A key that begins with `$` is a global property too. */
export type Provided<V extends readonly unknown[]> = readonly [...ProvidedBy<V>];

/** The options of {@link isolate} but for props and slots. */
export interface Surroundings<V extends readonly unknown[] = readonly unknown[]> extends CommonOptions {
  /** Children that are replaced, by reference or name, or as `stub(Child, how)` says; directives as `v-focus`. */
  readonly stub?: readonly (Component | Vue.ObjectDirective | string | Stub)[];
  /** Injection keys and their values: `[[SessionKey, session]]`. */
  readonly provide?: Provided<V>;
  /** Plugins and components around the subject, outermost first: `[router, [i18n, options], Frame]`. */
  readonly wrap?: readonly Wrapper[];
  readonly keep?: readonly (Component | string)[];
}

/** The options of {@link isolate}; `props` may be left out where the component requires none. */
export type Options<
  C,
  V extends readonly unknown[] = readonly unknown[],
  P = PropsOf<C>,
> = Surroundings<V> & {
  /** What is put into the subject, by slot. */
  readonly slots?: SlotsFor<C>;
} & (object extends P ? { readonly props?: Given<P> } : { readonly props: Given<P> });

/** Arguments after the component: the options, which may be missing where no prop is required. */
export type Arguments<C, V extends readonly unknown[], P = PropsOf<C>> = object extends P
  ? [options?: Options<C, V, P>]
  : [options: Options<C, V, P>];

/** The component being verified, alone on its stage. */
export interface Subject<Props = object> extends Omit<
  AnySubject<Props, OutputsOf<Props>>,
  'given' | 'part' | 'update'
> {
  /** Gives the subject other props; what is not named stays as it is. */
  update(props: Partial<Given<Props>>): Promise<void>;
  /** The children of one kind: what they were given, and a way to call back. */
  part<C>(component: C): Part<PropsOf<C>, Heard<PropsOf<C>>>;
  /** What was provided for a key, or given in place of a module's exports; its methods are taken to be spies. @throws SIM-GIVEN-NONE */
  given<T>(key: Vue.InjectionKey<T> | Swap<T> | string): StandIn<NonNullable<T>>;
}

/**
 * Renders one component on its own, with its children, surroundings and requests replaced as you say.
 *
 * @param component any Vue component, or `() => import('./HiveBoard.vue')`, which is loaded after what it imports
 * was swapped; or a declared state of one
 * @param args `props`, `slots`, `stub`, `provide`, `wrap`, `depth`, `keep`, `network`, `swap`
 * @returns the subject, when the page is at rest
 * @throws SIM-COMPONENT-MISSING, SIM-OPTION-UNKNOWN, SIM-PROP-MISSING, SIM-RENDER-THREW, SIM-PROVIDE-MISSING,
 * SIM-WRAP-MISSING, SIM-RESOLVE-NONE, SIM-STUB-NAME, SIM-VUE-PRODUCTION; everything is cleaned up first
 * @example
 * const board = await isolate(HiveBoard, {
 *   props: { yard: 'north' },
 *   stub: [HiveCard],
 *   network: { 'GET /api/hives?yard=:yard': hives },
 * });
 * expect(board).toShow(part(HiveCard), { times: 3 });
 * await board.part(HiveCard).at(0).tell('open', 'h1');
 * expect(board.outputs.open).toEqual([['h1']]);
 */
export function isolate<C extends Component | Load | AnyState, V extends readonly unknown[] = []>(
  component: C,
  ...args: [C] extends [AnyState] ? [options?: MoreOptions<V>] : Arguments<Loaded<C, Component>, V>
): Promise<Isolated<C, Subject<PropsOf<Loaded<C, Component>>>>> {
  return isolateOn(
    vueAdapter,
    component,
    (args[0] ?? {}) as AllOptions,
    calledFrom('isolate', isolate),
  ) as never;
}

/** Options beside those of a declared state, over them. */
export interface MoreOptions<V extends readonly unknown[] = readonly unknown[]> extends Surroundings<V> {
  readonly props?: object;
  readonly slots?: object;
}

/**
 * Declares the states of a component: what each begins with, what is done to get there, and what it shows. Nothing
 * is rendered. `isolate(board.failed)` begins a test with one; `testStates(board)` of `simulacra/jest` tests each,
 * and whether they can be told apart.
 *
 * @param component any Vue component, or `() => import('./HiveBoard.vue')`
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
export function states<
  C extends Component | Load,
  K extends string,
  W,
  V extends readonly unknown[] = [],
  G extends object = object,
>(
  component: C,
  common: Surroundings<V> & {
    readonly props?: G & Partial<Given<PropsOf<Loaded<C, Component>>>>;
    readonly slots?: SlotsFor<Loaded<C, Component>>;
  },
  declared: { readonly [name in K]: DeclaredState<Loaded<C, Component>, G, K> } & {
    readonly [name in keyof W]: { readonly provide?: readonly [] | ProvidedBy<W[name]> };
  },
): States<K, Subject<PropsOf<Loaded<C, Component>>>> {
  return declareStates(
    vueAdapter,
    component,
    common as AllOptions,
    declared as never,
    calledFrom('states', states),
  ) as never;
}

/** One state of a component, of which all have the props `G`. */
export type DeclaredState<C, G, K extends string, P = PropsOf<C>> = Omit<Surroundings, 'provide'> & {
  readonly slots?: SlotsFor<C>;
} & Declared<Subject<P>, K> &
  (object extends Lacking<P, G>
    ? { readonly props?: Partial<Given<P>> }
    : | { readonly props: Given<Lacking<P, G>> }
      | { readonly from: NoInfer<K>; readonly props?: Partial<Given<P>> });

/**
 * Makes an `isolate` with default options for your team. Options merge as in every framework.
 *
 * @param defaults options every call begins with
 * @example
 * const session = standIn<Session>(['signIn', 'signOut'], { keeper: ref('Imke') });
 * const isolateSignedIn = isolateWith({ provide: [[SessionKey, session]] });
 * const gate = await isolateSignedIn(YardGate, { slots: { default: 'The yard' } });
 * expect(gate).toShow(text('Imke'));
 */
export function isolateWith<D extends readonly unknown[] = [], G extends object = object>(
  defaults: Surroundings<D> & { readonly props?: G },
): TeamIsolate<G> {
  return isolateOnWith(vueAdapter, defaults as AllOptions) as unknown as TeamIsolate<G>;
}

/** A team's own `isolate`: what its defaults have of the props need not be given. */
export type TeamIsolate<G = object> = <
  C extends Component | Load | AnyState,
  V extends readonly unknown[] = [],
>(
  component: C,
  ...args: [C] extends [AnyState]
    ? [options?: MoreOptions<V>]
    : Arguments<Loaded<C, Component>, V, Lacking<PropsOf<Loaded<C, Component>>, G>>
) => Promise<Isolated<C, Subject<PropsOf<Loaded<C, Component>>>>>;

/**
 * Describes how to replace a child component. Without a second argument you get the default stub: a plain
 * element with the child's name, its props to read, and what its parent put into its slots.
 *
 * @param component the child, or its name
 * @param how a rendering of your own (a function of the props, or a component), or a `handle`: what the
 * parent reaches through a template ref
 * @example
 * const board = await isolate(HiveBoard, {
 *   props: { yard: 'north' },
 *   stub: [stub(HiveCard, ({ hive }) => h('p', { role: 'note' }, hive.name))],
 *   network: { 'GET /api/hives': hives },
 * });
 * expect(board).toShow(role('note'), { times: 3 });
 * @example
 * const Field = defineComponent({ name: 'Field', template: '<textarea />' });
 * const NotePad = defineComponent({
 *   components: { Field },
 *   setup: () => ({ field: ref<{ focus(): void }>() }),
 *   template: '<button v-on:click="field.focus()">Write</button><Field ref="field" />',
 * });
 * const pad = await isolate(NotePad, { stub: [stub(Field, { handle: ['focus'] })] });
 * await pad.click(role('button', 'Write'));
 * expect(pad.part(Field).handle['focus']?.calls).toEqual([[]]);
 */
export function stub<C extends Component>(
  component: C | string,
  how?: ((props: PropsOf<C>, context: Vue.SetupContext) => Vue.VNodeChild) | StubHow<C> | Vue.DefineComponent,
): Stub {
  return makeStub(component, isHow(how) ? how : { render: how });
}

/** How a child is replaced, in full. */
export interface StubHow<C extends Component> {
  /** What the parent reaches through a ref: method names, or methods with their answers. */
  readonly handle?: readonly string[] | Readonly<Record<string, unknown>>;
  readonly render?: (props: PropsOf<C>, context: Vue.SetupContext) => Vue.VNodeChild;
}

const isHow = (how: unknown): how is { handle: Stub['handle']; render: unknown } =>
  typeof how === 'object' && how !== null && ('handle' in how || Object.keys(how).join() === 'render');

export type { Stub };
export type { Part, PartInstance } from '../stage/parts';
