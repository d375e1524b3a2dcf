import type { Swap } from '../seam/swap';
import type { Chronicle } from '../core/chronicle';
import type { StandIn } from '../core/stand-in';
import type { AskedRequest } from '../network/network';
import type { Locator } from '../page/locators';
import type { Part } from './parts';

/** Where a gesture goes: a locator that fits one element, or the element itself. */
export type Target = Locator | Element;

/** How long to wait for something to come or go. */
export interface Patience {
  /** Milliseconds; 1,000 unless said otherwise. */
  readonly within?: number;
}

/** Props of a component, found from the component itself; of one known by name, anything. */
/* eslint-disable @typescript-eslint/no-explicit-any -- what a pattern leaves open must be any */
export type PropsOf<C> = C extends new (...args: any[]) => { $props: infer P }
  ? P
  : C extends (props: infer P, ...rest: any[]) => unknown
    ? P
    : C extends new (props: infer P, ...rest: any[]) => unknown
      ? P
      : Record<string, any>;
/** Props of which some are given beforehand, by a team's defaults: those need not be given again. */
export type Lacking<P, G> = [keyof G] extends [never]
  ? P
  : P extends unknown
    ? Omit<P, keyof G> & Partial<Pick<P, Extract<keyof G, keyof P>>>
    : never;

/** The arguments of each time something was told, by name: the functions among the props. */
export type OutputsOf<P> = {
  readonly [
    K in keyof P as K extends `on${string}`
      ? NonNullable<P[K]> extends (...args: any[]) => unknown
        ? K
        : never
      : never
  ]-?: NonNullable<P[K]> extends (...args: infer A) => unknown ? A[] : never;
};
/* eslint-enable @typescript-eslint/no-explicit-any */

/**
 * The component being verified, alone on its stage. Everything that returns a promise resolves when
 * the page is at rest: what was set off has been rendered, and only what is held, or due later, is
 * still open.
 *
 * @example
 * const card = await isolate(HiveCard, { props: { hive: hives[0] } });
 * expect(card).toShow(role('heading', 'Anemone'));
 */
export interface Subject<Props = object, Outputs = OutputsOf<Props>> {
  /** How the component is called. */
  readonly name: string;
  /** The element the subject is rendered into. */
  readonly container: HTMLElement;
  /** Everything that happened so far, in order. */
  readonly chronicle: Chronicle;
  /** Every request so far, in order. */
  readonly requests: readonly AskedRequest[];

  /** The one element a locator fits. @throws SIM-FIND-NONE and its kin, SIM-FIND-MANY */
  find(locator: Locator): HTMLElement;
  /** Every element a locator fits, in page order; none is an empty list. */
  findAll(locator: Locator): HTMLElement[];
  /** True where a locator fits at least one element. */
  has(locator: Locator): boolean;
  /** Waits until a locator fits, and resolves to the first such element. @throws SIM-WAIT-OVER */
  appears(locator: Locator, patience?: Patience): Promise<HTMLElement>;
  /** Waits until a locator fits nothing. @throws SIM-WAIT-OVER */
  vanishes(locator: Locator, patience?: Patience): Promise<void>;

  /** Clicks with the main button. @throws SIM-ACT-DISABLED, SIM-ACT-HIDDEN */
  click(target: Target): Promise<void>;
  /** Clicks a field and types into it, key by key. @throws SIM-ACT-FIELD */
  type(target: Target, text: string): Promise<void>;
  /** Empties a field. @throws SIM-ACT-FIELD */
  clear(target: Target): Promise<void>;
  /** Chooses: options of a select or listbox by their text, or a checkbox or radio button itself. @throws SIM-ACT-OPTION */
  choose(target: Target, ...options: string[]): Promise<void>;
  /** Presses a key where the focus is, or on a target: `Enter`, `Shift+Tab`, `Control+k`. @throws SIM-ACT-KEY */
  press(keys: string, target?: Target): Promise<void>;

  /** Gives the subject other props; what is not named stays as it is. */
  update(props: Partial<Props>): Promise<void>;
  /** The children of one kind: what they were given, and a way to call back. */
  part<C>(component: C): Part<PropsOf<C>>;
  /** What was provided for a context, or given in place of a module's exports; its methods are taken to be spies. @throws SIM-GIVEN-NONE */
  given<T>(token: Token<T>): StandIn<NonNullable<T>>;
  /** What the subject told its parent, by name: the arguments of each time. @throws SIM-OUTPUT-NONE */
  readonly outputs: Outputs;
  /** Resolves when nothing is left to do that is due. */
  atRest(): Promise<void>;
  /** @throws SIM-ROUTE-UNUSED where a route of this test was never asked for */
  everyRouteAsked(): void;
  /** What is rendered, as text; `depth` is how many levels of components are looked into. */
  outline(options?: { readonly depth?: number }): string;
  /** Takes the subject down before the test ends. @throws what it has to complain of */
  takeDown(): Promise<void>;
}

/** What a value can be provided for. A context is told by the type it provides. */
export type Token<T> =
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a provider of whatever framework
  | { readonly Provider: (props: { value: T; children?: any }) => any }
  | (abstract new (...args: never[]) => T)
  | Swap<T>;

/** Where the matchers reach into a subject; they may come from another bundle. */
export const verdicts = Symbol.for('simulacra.verdicts');
