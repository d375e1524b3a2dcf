/* Describes, runs and reports tests on a page: Jest's own describe, it and expect. It is loaded before all else. */
import { addEventHandler, getState, run } from 'jest-circus';
import * as circus from 'jest-circus';
import { expect } from './expect';
import { listenToConsole } from './console';
import { lendDevices, putDown } from './devices';
import { lendFiles, resetScreen } from './lend';
import fs from './node/fs';
import { fileURLToPath, pathToFileURL } from './node/other';
import path from './node/path';
import { ask, tell } from './wire';
import type { ErrorTold, FileTold, RunAsked, TestTold } from '../told';

const { describe, it, test, beforeAll, beforeEach, afterAll, afterEach } = circus;
const globals = {
  ...{ describe, it, test, beforeAll, beforeEach, afterAll, afterEach, expect },
  ...{ fdescribe: describe.only, xdescribe: describe.skip, fit: it.only, xit: it.skip, xtest: it.skip },
};
// As in Jest, with what a page can do.
const jest = {
  setTimeout: (milliseconds: number) => void (getState().testTimeout = milliseconds),
  retryTimes: (times: number) =>
    void ((globalThis as unknown as Record<symbol, unknown>)[Symbol.for('RETRY_TIMES')] = times),
};
const node = { fs, 'fs/promises': fs.promises, path, url: { fileURLToPath, pathToFileURL } };
Object.assign(globalThis, globals, { simulacraGlobals: { ...globals, jest, node } });

interface CircusTest {
  readonly name: string;
  readonly parent: { readonly name: string; readonly parent?: CircusTest['parent'] };
  readonly timeout?: number | undefined;
  readonly duration?: number | null;
  readonly startedAt?: number | null;
  readonly invocations?: number;
  errors: unknown[];
}

const pathOf = ({ name, parent }: CircusTest): string[] => [
  ...(parent.parent ? pathOf(parent as unknown as CircusTest) : []),
  name,
];

addEventHandler(async (event, state) => {
  const { name } = event;
  if (name === 'test_start') {
    const one = event.test as unknown as CircusTest;
    expect.setState({ currentTestName: pathOf(one).join(' ') });
    tell('started', { path: pathOf(one), limit: one.timeout ?? state.testTimeout });
  } else if (name === 'test_done') {
    const one = event.test as unknown as CircusTest;
    await putDown();
    await resetScreen();
    addAssertionErrors(one);
    tell('done', { result: describeDone(one) });
  } else if (name === 'test_fn_failure' || (name === 'hook_failure' && event.test)) {
    // While all is still on the page.
    await ask('failed', { path: pathOf(event.test as unknown as CircusTest) });
  }
});

/** A test that is over, reported at once in case the page ends early. */
function describeDone(test: CircusTest): TestTold {
  const details = test.errors.map((error) => describeError(Array.isArray(error) ? error[0] : error));
  const { duration = null, startedAt = null, invocations = 1 } = test;
  return {
    ...{ path: pathOf(test), duration, startedAt, invocations, details, location: null, failing: false },
    ...{ status: 'done', numPassingAsserts: 0, retryReasons: [] },
    errors: details.map(({ stack, message }) => stack ?? message),
  };
}

function addAssertionErrors(test: CircusTest): void {
  const { extractExpectedAssertionsErrors } = expect as unknown as {
    extractExpectedAssertionsErrors(): { readonly error: unknown }[];
  };
  test.errors.push(...extractExpectedAssertionsErrors().map(({ error }) => error));
  const { suppressedErrors } = expect.getState();
  expect.setState({ suppressedErrors: [] });
  test.errors.push(...suppressedErrors);
}

function noteUncaught(error: unknown): void {
  const { currentlyRunningTest, unhandledErrors } = getState();
  const list =
    (currentlyRunningTest as unknown as CircusTest | null)?.errors ?? (unhandledErrors as unknown[]);
  list.push(error);
}

/**
 * Hears of what nobody has caught: what no other listener of the page has prevented. So it has to be the last of
 * them.
 */
function listenTo(kind: 'error' | 'unhandledrejection', read: (event: never) => unknown): void {
  const { addEventListener: add } = EventTarget.prototype;
  const hear = (event: Event) => {
    if (!event.defaultPrevented) noteUncaught(read(event as never));
  };
  add.call(globalThis, kind, hear);
  const before = globalThis.addEventListener;
  globalThis.addEventListener = function (this: unknown, ...given: Parameters<typeof add>) {
    const target = (this ?? globalThis) as EventTarget;
    before.apply(target as typeof globalThis, given as Parameters<typeof before>);
    if (given[0] !== kind || target !== globalThis) return;
    globalThis.removeEventListener(kind, hear);
    add.call(globalThis, kind, hear);
  } as typeof before;
}
listenTo('error', ({ error, message }: ErrorEvent) => error ?? new Error(message));
listenTo('unhandledrejection', ({ reason }: PromiseRejectionEvent) => reason);

const said = listenToConsole();

async function runFile(asked: RunAsked): Promise<FileTold> {
  Error.stackTraceLimit = 100;
  lendFiles(asked);
  const state = getState();
  state.testTimeout = asked.timeout;
  if (asked.pattern !== undefined) state.testNamePattern = new RegExp(asked.pattern, 'i');
  state.includeTestLocationInResult = asked.isLocated;
  state.maxConcurrency = asked.maxConcurrency;
  if (asked.seed !== undefined) Object.assign(state, { seed: asked.seed });
  if (asked.isRandom) Object.assign(state, { randomize: true });
  expect.setState({ testPath: asked.path, expand: asked.expand });
  for (const url of asked.setup) await import(/* @vite-ignore */ url);
  const module = (await import(/* @vite-ignore */ asked.url)) as { default?: unknown };
  if (asked.states !== undefined) {
    const { testStates } = (await import(/* @vite-ignore */ asked.states)) as {
      testStates(given: unknown): void;
    };
    testStates(module.default);
  }
  tell('loaded', {});
  const { testResults, unhandledErrors } = await run();
  const results = (testResults as unknown as CircusResult[]).map(
    ({ testPath, errorsDetailed, ...told }): TestTold => ({
      ...told,
      path: testPath.slice(1),
      details: errorsDetailed.map(describeError),
    }),
  );
  return { results, unhandled: unhandledErrors as unknown as string[], console: said };
}

/** What the runner reports about a test. */
interface CircusResult extends Omit<TestTold, 'path' | 'details'> {
  /** From the root on, which has a name of its own. */
  readonly testPath: readonly string[];
  readonly errorsDetailed: readonly unknown[];
}

function describeError(error: unknown): ErrorTold {
  if (!(error instanceof Error)) return { message: String(error) };
  const { name, message, stack, cause } = error;
  return { name, message, stack, ...(cause !== undefined && { cause: describeError(cause) }) };
}

lendDevices();
Object.assign(globalThis, { simulacraRun: runFile });
