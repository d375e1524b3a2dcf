import type { ScreenWanted } from '../core/files';

/* The messages between a page and the process that drives it. */

/** Where the page's own describe, it and expect are served. */
export const runnerPath = '/@simulacra/tests.js';
/** Where files of the project are read. */
export const filesPath = '/@simulacra/file';

/** A file that is to be run. */
export interface RunAsked {
  /** The modules to load first. */
  readonly setup: readonly string[];
  readonly url: string;
  readonly path: string;
  /** The module that makes tests of declared states, where the file is one of those. */
  readonly states: string | undefined;
  /** Of the names of tests. */
  readonly pattern: string | undefined;
  /** Milliseconds. */
  readonly timeout: number;
  readonly isLocated: boolean;
  readonly maxConcurrency: number;
  readonly seed: number | undefined;
  readonly isRandom: boolean;
  readonly expand: boolean;
  /** Variables of the environment that say what is done with the files of a project. */
  readonly env: Readonly<Record<string, string | undefined>>;
}

/** What came of one test. */
export interface TestTold {
  readonly path: readonly string[];
  /** `done` also where it failed. */
  readonly status: 'todo' | 'skip' | 'done';
  readonly duration: number | null;
  /** The stacks. */
  readonly errors: readonly string[];
  readonly details: readonly ErrorTold[];
  readonly failing: boolean;
  readonly invocations: number;
  readonly location: { readonly line: number; readonly column: number } | null;
  readonly numPassingAsserts: number;
  readonly retryReasons: readonly string[];
  readonly startedAt: number | null;
}

export interface ErrorTold {
  readonly name?: string;
  readonly message: string;
  readonly stack?: string;
  readonly cause?: ErrorTold;
}

/** What was printed. */
export interface Said {
  readonly type: 'log' | 'info' | 'warn' | 'error' | 'debug' | 'assert';
  readonly message: string;
  readonly origin: string;
}

/** What came of a file. */
export interface FileTold {
  readonly results: readonly TestTold[];
  readonly unhandled: readonly string[];
  readonly console: readonly Said[];
}

/** The messages of a page while it runs. */
export type Message =
  | { readonly kind: 'loaded' }
  | { readonly kind: 'started'; readonly path: readonly string[]; readonly limit: number }
  | { readonly kind: 'done'; readonly result: TestTold }
  | Asked;

/** What a page waits for. */
export type Asked =
  | { readonly kind: 'failed'; readonly id: number; readonly path: readonly string[] }
  | AskedInput
  | { readonly kind: 'screen'; readonly id: number; readonly wanted: ScreenWanted }
  | { readonly kind: 'files'; readonly id: number; readonly files: readonly CarriedFile[] };

/** A method of the browser's protocol, of its domain Input. @see https://chromedevtools.github.io/devtools-protocol/tot/Input/ */
export type Command = readonly [method: `Input.${string}`, params: object];

export interface AskedInput {
  readonly kind: 'input';
  readonly id: number;
  readonly commands: readonly Command[];
  /** What is put on the clipboard before. */
  readonly clipboard?: { readonly text: string; readonly html?: string };
  /** Whether the answer includes the clipboard afterwards. */
  readonly isRead?: boolean;
}

/** What is on the clipboard. */
export type Copied = { readonly text: string; readonly html?: string } | null;

export interface CarriedFile {
  readonly name: string;
  /** Milliseconds since 1970. */
  readonly lastModified: number;
  readonly base64: string;
}
