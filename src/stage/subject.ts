import type { Swap } from '../seam/swap';
import type { Chronicle } from '../core/chronicle';
import type { StandIn } from '../core/stand-in';
import type { AskedRequests } from '../network/asked';
import type { Locator } from '../page/locators';
import type { Pasted, TypeWhere } from '../page/gestures/acts';
import type { Distance } from '../page/gestures/drag';
import type { ClickHow } from '../page/gestures/click';
import type { SubjectPage } from './page';
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

/** The arguments of each call, by name: the functions among the props. */
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
  readonly requests: AskedRequests;

  /** Finds exactly one element. @throws SIM-FIND-NONE (or a more precise code), SIM-FIND-MANY */
  find(locator: Locator): HTMLElement;
  /** Finds all matching elements, in page order. The list may be empty. */
  findAll(locator: Locator): HTMLElement[];
  /** The visible texts of all matching elements, in page order. An element without text is listed by its name. */
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

  /**
   * Clicks: once with the primary button, unless said otherwise.
   *
   * @param how `{ times: 2 }`, `{ button: 'secondary' }`, `{ holding: 'Shift' }`, `{ heldFor: 600 }` (milliseconds),
   *   `{ pointer: 'touch' }`
   * @throws SIM-ACT-DISABLED, SIM-ACT-HIDDEN, SIM-ACT-HOW, SIM-ACT-KEY
   */
  click(target: Target, how?: ClickHow): Promise<void>;
  /** Moves the pointer onto an element, off what it was over before. @throws SIM-ACT-HIDDEN */
  hover(target: Target): Promise<void>;
  /** Moves the pointer off the page. */
  leave(): Promise<void>;
  /**
   * Clicks a field and types into it, key by key, behind its text unless said otherwise.
   *
   * @param where `{ at: 0 }` places the caret, `{ over: 'North' }` types over a part of the text
   * @throws SIM-ACT-FIELD, SIM-ACT-TEXT
   */
  type(target: Target, text: string, where?: TypeWhere): Promise<void>;
  /** Composes a text in steps, as an accent or a syllable is: `compose(field, 'e', 'é')`. @throws SIM-ACT-FIELD */
  compose(target: Target, ...steps: string[]): Promise<void>;
  /** Empties a field. @throws SIM-ACT-FIELD */
  clear(target: Target): Promise<void>;
  /**
   * Chooses options of a select or listbox by their text, a date, colour or place on a range by its value, files by
   * a file input or what opens one. Without a value it checks a checkbox or radio button.
   *
   * @throws SIM-ACT-OPTION, SIM-ACT-VALUE, SIM-ACT-FILE
   */
  choose(target: Target, ...wanted: (string | File)[]): Promise<void>;
  /** Drops files from outside of the page onto an element. @throws SIM-ACT-DROP, SIM-ACT-FILE */
  drop(target: Target, ...files: File[]): Promise<void>;
  /** Drags an element onto another, or by a distance in pixels: `{ right: 40, down: 10 }`. @throws SIM-ACT-HIDDEN, SIM-ACT-HOW */
  drag(from: Target, to: Target | Distance): Promise<void>;
  /** Turns the wheel over an element, by a distance in pixels: `{ down: 400 }`. @throws SIM-ACT-HOW */
  scroll(target: Target, by: Distance): Promise<void>;
  /** Presses a key on the focused element, or on a target: `Enter`, `Shift+Tab`, `Control+k`. @throws SIM-ACT-KEY, SIM-ACT-FOCUS */
  press(keys: string, target?: Target): Promise<void>;
  /** Selects a text of a field or of an element, or all of it. @throws SIM-ACT-TEXT */
  mark(target: Target, text?: string): Promise<void>;
  /** Copies what is selected of an element, or all of it. @returns the text on the clipboard */
  copy(target: Target): Promise<string>;
  /** Cuts what is selected of a field, or all of it. @returns the text on the clipboard */
  cut(target: Target): Promise<string>;
  /** Pastes a text, files, or what was copied before. */
  paste(target: Target, what?: Pasted): Promise<void>;

  /** The time the subject lives in. It stands still with the option `time: 'virtual'`. */
  readonly time: Time;

  /** What the page is like, to be changed during a test. */
  readonly page: SubjectPage;

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
  /**
   * Checks that the component requested every route.
   *
   * @param counts how often routes must have been requested; the others, at least once: `{ 'POST /api/hives': 1 }`
   * @throws SIM-ROUTE-UNUSED, SIM-ROUTE-TIMES, SIM-ROUTE-UNKNOWN
   */
  everyRouteAsked(counts?: Readonly<Record<string, number>>): void;
  /** Prints the component tree. `depth` limits the levels of components. */
  outline(options?: { readonly depth?: number }): string;
  /** Unmounts the subject before the test ends. @throws all problems of the test so far */
  takeDown(): Promise<void>;
}

/** What a value can be provided for. A context is recognised by the type it provides. */
export type Token<T> =
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a provider of whatever framework
  | { readonly Provider: (props: { value: T; children?: any }) => any }
  | (abstract new (...args: never[]) => T)
  | Swap<T>;

/** Where the matchers reach into a subject; they may come from another bundle. */
export const verdicts = Symbol.for('simulacra.verdicts');
