import type { Limits } from './run/runner';

/** How a draft is made. */
export interface DraftOptions {
  /** Declared states in place of tests. */
  readonly isStates: boolean;
  /** True where an older draft is written over, with what a person has changed in it. */
  readonly isForced: boolean;
  /** True where nothing is written. */
  readonly isPrinted: boolean;
  readonly limits: Limits;
  /** The folder of this package's own files. */
  readonly own: string;
  readonly progress: (said: string) => void;
  /** Aborted when a person stops the command. */
  readonly stopped: AbortSignal;
}

/** What became of a draft. */
export interface Outcome {
  readonly component: string;
  readonly source: string;
  /** Where it belongs. */
  readonly target: string;
  readonly text: string;
  readonly hasPassed: boolean;
  readonly tests: readonly string[];
  /** What was added for what had failed, in words. */
  readonly done: readonly string[];
  /** Why it does not pass, or what it could not be brought to say. */
  readonly left: readonly string[];
  readonly rounds: number;
  readonly milliseconds: number;
  /** A configuration of Jest to write, where the project has none. */
  readonly config?: { readonly file: string; readonly text: string };
}
