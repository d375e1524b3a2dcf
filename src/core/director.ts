import type { Environment } from './environment';
import { once } from './shared';

/** Decides which answer arrives when, while a test is tried in every order of arrival. */
export interface Director {
  /** True where it brings subjects to rest before each step: then the step itself need not. */
  readonly restsBefore: boolean;
  /** At rest: the id of the answer that arrives now; undefined where none does. */
  next(environment: Environment): string | undefined;
  /** Does a step of the test. What waits may arrive before it. @param isWait true for one that waits for answers */
  step<T>(words: string, work: () => T | Promise<T>, isWait?: boolean): Promise<T>;
  /**
   * Runs a timer of a virtual clock. What waits may arrive before it.
   *
   * @param words the timer
   * @param isFirst true where nothing has happened since the step began, before which it could arrive as well
   */
  tick(words: string, isFirst: boolean, run: () => Promise<void>): Promise<void>;
  /** Lets answers arrive one by one until something is there, or none waits any more. */
  until(environment: Environment, isThere: () => boolean): Promise<void>;
  /** The test looks at a subject between two steps. */
  look(): void;
  /** A spy was called; what it takes down belongs to this run. */
  called(calls: unknown[]): void;
}

/** The one at work; undefined as a rule. */
export const directing: { current: Director | undefined } = once('directing', () => ({ current: undefined }));

/** Does a step of the test, as the director says where there is one. */
export const directed = <T>(words: string, work: () => Promise<T>): Promise<T> =>
  directing.current ? directing.current.step(words, work) : work();
