import './bridge';
import type * as React from 'react';
import { calledFrom } from '../core/errors/called-from';
import { installOnce } from '../stage/install';
import { isolateOn, isolateOnWith } from '../stage/isolate';
import type { AllOptions, CommonOptions } from '../stage/options';
import type { Load, Loaded } from '../stage/load-subject';
import { makeStub, type Stub } from '../stage/stubs';
import type { Lacking, Subject } from '../stage/subject';
import { declareStates, type AnyState, type Declared, type Isolated, type States } from '../states/declare';
import { reactAdapter } from './adapter';

installOnce();

/** Any React component: function, class, memo, forwardRef, lazy, or wrapped by another function. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Component = React.JSXElementConstructor<any>;

/** What goes around the subject: a component, a component with props, or an element to fill. */
export type Wrapper = Component | readonly [component: Component, props: object] | React.ReactElement;

/** What is provided, each with its value; `V` are the values. */
type ProvidedBy<V> = {
  readonly [K in keyof V]: readonly [context: React.Context<V[K]>, value: NoInfer<V[K]>];
};

/** Contexts with their values, each value of its context's type. */
export type Provided<V extends readonly unknown[]> = readonly [...ProvidedBy<V>];

/** The options of {@link isolate} but for the props. */
export interface Surroundings<V extends readonly unknown[] = readonly unknown[]> extends CommonOptions {
  /** Child components that are replaced: by reference, by name, or as `stub(Child, how)` says. */
  readonly stub?: readonly (Component | string | Stub)[];
  /** Contexts and their values: `[[SessionContext, session]]`. */
  readonly provide?: Provided<V>;
  /** What goes around the subject, outermost first. */
  readonly wrap?: readonly Wrapper[];
  readonly keep?: readonly (Component | string)[];
}

/** The options of {@link isolate}; `props` may be left out where the component requires none. */
export type Options<P, V extends readonly unknown[] = readonly unknown[]> = Surroundings<V> &
  (object extends P ? { readonly props?: P } : { readonly props: P });

/** Arguments after the component: the options, which may be missing where no prop is required. */
export type Arguments<P, V extends readonly unknown[]> = object extends P
  ? [options?: Options<P, V>]
  : [options: Options<P, V>];

/**
 * Renders one component on its own, with its children, surroundings and requests replaced as you say.
 *
 * @param component any React component, or `() => import('./HiveBoard')`, which is loaded after what it imports was swapped;
 * or a declared state of one
 * @param args `props`, `stub`, `provide`, `wrap`, `depth`, `keep`, `network`, `swap`
 * @returns the subject, when the page is at rest
 * @throws SIM-COMPONENT-MISSING, SIM-OPTION-UNKNOWN, SIM-RENDER-THREW, SIM-PROVIDE-MISSING, SIM-WRAP-MISSING,
 * SIM-STUB-NAME, SIM-REACT-EARLY, SIM-REACT-PRODUCTION; everything is cleaned up first
 * @example
 * const board = await isolate(HiveBoard, {
 *   props: { yard: 'north' },
 *   stub: [HiveCard],
 *   network: { 'GET /api/hives?yard=:yard': hives },
 * });
 * expect(board).toShow(part(HiveCard), { times: 3 });
 */
export function isolate<C extends Component | Load | AnyState, V extends readonly unknown[] = []>(
  component: C,
  ...args: [C] extends [AnyState] ? [options?: MoreOptions<V>] : Arguments<Props<C>, V>
): Promise<Isolated<C, Subject<Props<C>>>> {
  return isolateOn(
    reactAdapter,
    component,
    (args[0] ?? {}) as AllOptions,
    calledFrom('isolate', isolate),
  ) as never;
}

/** The props of a component, or of the one that is loaded. */
export type Props<C> = React.ComponentProps<Loaded<C, Component>>;

/** Options beside those of a declared state, over them. */
export interface MoreOptions<V extends readonly unknown[] = readonly unknown[]> extends Surroundings<V> {
  readonly props?: object;
}

/**
 * Declares the states of a component: what each begins with, what is done to get there, and what it shows. Nothing
 * is rendered. `isolate(board.failed)` begins a test with one; `testStates(board)` of `simulacra/jest` tests each,
 * and whether they can be told apart.
 *
 * @param component any React component, or `() => import('./HiveBoard')`
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
  common: Surroundings<V> & { readonly props?: G & Partial<Props<C>> },
  declared: { readonly [name in K]: DeclaredState<Props<C>, G, K> } & {
    readonly [name in keyof W]: { readonly provide?: readonly [] | ProvidedBy<W[name]> };
  },
): States<K, Subject<Props<C>>> {
  return declareStates(
    reactAdapter,
    component,
    common as AllOptions,
    declared as never,
    calledFrom('states', states),
  ) as never;
}

/** One state of a component with the props `P`, of which all have `G`. */
export type DeclaredState<P, G, K extends string> = Omit<Surroundings, 'provide'> &
  Declared<Subject<P>, K> &
  (object extends Lacking<P, G>
    ? { readonly props?: Partial<P> }
    : { readonly props: Lacking<P, G> } | { readonly from: NoInfer<K>; readonly props?: Partial<P> });

/**
 * Makes an `isolate` with default options for your team. Each call adds its own options. Props and routes merge
 * key by key, and the call wins. Lists are joined with the defaults first, so default wrappers are outermost, and
 * the later value for a context wins. `depth` is replaced.
 *
 * @param defaults options for every call
 * @example
 * const session = standIn<Session>(['signIn', 'signOut'], { keeper: 'Imke' });
 * const isolateSignedIn = isolateWith({ provide: [[SessionContext, session]] });
 * const gate = await isolateSignedIn(YardGate, { props: { children: 'The yard' } });
 * expect(gate).toShow(text('Imke'));
 */
export function isolateWith<D extends readonly unknown[] = [], G extends object = object>(
  defaults: Surroundings<D> & { readonly props?: G },
): TeamIsolate<G> {
  return isolateOnWith(reactAdapter, defaults as AllOptions) as unknown as TeamIsolate<G>;
}

/** A team's own `isolate`: what its defaults have of the props need not be given. */
export type TeamIsolate<G = object> = <
  C extends Component | Load | AnyState,
  V extends readonly unknown[] = [],
>(
  component: C,
  ...args: [C] extends [AnyState] ? [options?: MoreOptions<V>] : Arguments<Lacking<Props<C>, G>, V>
) => Promise<Isolated<C, Subject<Props<C>>>>;

/**
 * Describes how to replace a child component. Without a second argument you get the default stub: a plain
 * element with the child's name, its props to read, and what its parent put inside of it.
 *
 * @param component the child, or its name
 * @param how a rendering of your own, or a `handle`: what the parent reaches through a ref
 * @example
 * const Field = forwardRef<{ focus(): void }>(() => <textarea />);
 * const NotePad = () => {
 *   const field = useRef<{ focus(): void }>(null);
 *   return <><button onClick={() => field.current?.focus()}>Write</button><Field ref={field} /></>;
 * };
 * const pad = await isolate(NotePad, { stub: [stub(Field, { handle: ['focus'] })] });
 * await pad.click(role('button', 'Write'));
 * expect(pad.part(Field).handle['focus']?.calls).toEqual([[]]);
 */
export function stub<C extends Component>(
  component: C | string,
  how?: ((props: React.ComponentProps<C>) => React.ReactNode) | React.ReactElement | StubHow<C>,
): Stub {
  return makeStub(component, isHow(how) ? how : { render: how });
}

/** How a child is replaced, in full. */
export interface StubHow<C extends Component> {
  /** What the parent reaches through a ref: method names, or methods with their answers. */
  readonly handle?: readonly string[] | Readonly<Record<string, unknown>>;
  readonly render?: (props: React.ComponentProps<C>) => React.ReactNode;
}

const isHow = (how: unknown): how is { handle: Stub['handle']; render: unknown } =>
  typeof how === 'object' && how !== null && !('$$typeof' in how);

export type { Stub, Subject };
export type { Part, PartInstance } from '../stage/parts';
