import type { Swap } from '../seam/swap';
import type { Chronicle } from '../core/chronicle';
import type { StandIn } from '../core/stand-in';
import type { AskedRequest } from '../network/network';
import type { Locator } from '../page/locators';
import type { Part } from './parts';
import type { Time } from './time';

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
 * A component that `isolate` rendered on its own. Every promise resolves when the page is at rest: all work has
 * finished and rendered, except answers that are held and timers that are due later.
 *
 * @example
 * const card = await isolate(HiveCard, { props: { hive: hives[0] } });
 * expect(card).toShow(role('heading', 'Anemone'));
 */
export interface Subject<Props = object, Outputs = OutputsOf<Props>> {
  /** The name of the component. */
  readonly name: string;
  /** The element the subject is rendered into. */
  readonly container: HTMLElement;
  /** Everything that happened so far, in order. */
  readonly chronicle: Chronicle;
  /** Every request so far, in order. */
  readonly requests: readonly AskedRequest[];

  /** Finds exactly one element. @throws SIM-FIND-NONE (or a more precise code), SIM-FIND-MANY */
  find(locator: Locator): HTMLElement;
  /** Finds all matching elements, in page order. The list may be empty. */
  findAll(locator: Locator): HTMLElement[];
  /** The visible texts of all matching elements, in page order. An element without text is told by its name. */
  texts(locator: Locator): string[];
  /** Tells whether a locator matches at least one element. */
  has(locator: Locator): boolean;
  /** Waits until a locator matches, and resolves to the first match. @throws SIM-WAIT-OVER */
  appears(locator: Locator, patience?: Patience): Promise<HTMLElement>;
  /** Waits until a locator matches nothing. @throws SIM-WAIT-OVER */
  vanishes(locator: Locator, patience?: Patience): Promise<void>;
  /**
   * Waits until a check holds, for what is not on the page. It holds when it neither throws nor returns false.
   *
   * @returns what the check returned
   * @throws SIM-WAIT-CHECK
   */
  eventually<T>(check: () => T | Promise<T>, patience?: Patience): Promise<T>;

  /** Clicks with the main button. @throws SIM-ACT-DISABLED, SIM-ACT-HIDDEN */
  click(target: Target): Promise<void>;
  /** Clicks a field and types into it, key by key. @throws SIM-ACT-FIELD */
  type(target: Target, text: string): Promise<void>;
  /** Empties a field. @throws SIM-ACT-FIELD */
  clear(target: Target): Promise<void>;
  /** Chooses options of a select or listbox by their text, or checks a checkbox or radio button. @throws SIM-ACT-OPTION */
  choose(target: Target, ...options: string[]): Promise<void>;
  /** Presses a key on the focused element, or on a target: `Enter`, `Shift+Tab`, `Control+k`. @throws SIM-ACT-KEY */
  press(keys: string, target?: Target): Promise<void>;

  /** The time the subject lives in. It stands still with the option `time: 'virtual'`. */
  readonly time: Time;

  /** Changes some props of the subject. */
  update(props: Partial<Props>): Promise<void>;
  /** All children of one component: the props they received, and a way to call their callbacks. */
  part<C>(component: C): Part<PropsOf<C>>;
  /** The value you provided for a context or token, or the exports you swapped, with its methods typed as spies. @throws SIM-GIVEN-NONE */
  given<T>(token: Token<T>): StandIn<NonNullable<T>>;
  /** The calls the subject made to its parent, by name: the arguments of each. @throws SIM-OUTPUT-NONE */
  readonly outputs: Outputs;
  /** Resolves when no work is pending. */
  atRest(): Promise<void>;
  /** Checks that the component requested every route. @throws SIM-ROUTE-UNUSED */
  everyRouteAsked(): void;
  /** Prints the component tree. `depth` limits the levels of components. */
  outline(options?: { readonly depth?: number }): string;
  /** Unmounts the subject before the test ends. @throws all problems of the test so far */
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
