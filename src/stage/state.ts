import { markOf } from '../core/mark';
import type { Locator } from '../page/locators';
import type { AllOptions } from './options';
import type { Subject } from './subject';

/** One thing that a state shows. */
export interface Check {
  readonly locator: Locator;
  /** How often; once or more where that is not said. */
  readonly times: number | undefined;
}

/** One declared way a component can look, read: what `isolate` begins with, and what holds then. */
export interface StateData {
  readonly simulacra: 'state';
  readonly name: string;
  /** The name of the component. */
  readonly of: string;
  readonly component: unknown;
  readonly options: AllOptions;
  /** What is done to the subject to get there, in order. */
  readonly after: readonly ((subject: Subject) => unknown)[];
  readonly checks: readonly Check[];
  /** States that it may look the same as. */
  readonly looksLike: readonly string[];
  readonly everyArrival: boolean;
  /** Where the states were declared. */
  readonly declaredAt: Error;
}

/** True for a state that was declared. */
export const isState = (value: unknown): value is StateData => markOf(value) === 'state';
