import type { AssertionResult, TestResult } from '@jest/test-result';
import type { Config } from '@jest/types';
import { formatExecError, formatResultsErrors } from 'jest-message-util';
import type { StackReader } from './stacks';
import type { ErrorTold, FileTold, TestTold } from './told';

/* The report of a page, in the form that Jest has for results. */

/** What a file is run with. */
export interface Configs {
  readonly config: Config.ProjectConfig;
  readonly globalConfig: Config.GlobalConfig;
}

const noSnapshots = {
  ...{ added: 0, fileDeleted: false, matched: 0, unchecked: 0, uncheckedKeys: [], unmatched: 0, updated: 0 },
};

/** A result in which nothing was run. */
function emptyResult(path: string, { config }: Configs, start: number): TestResult {
  const end = Date.now();
  return {
    ...{ leaks: false, openHandles: [], skipped: false, snapshot: noSnapshots, testFilePath: path },
    ...{ numFailingTests: 0, numPassingTests: 0, numPendingTests: 0, numTodoTests: 0, testResults: [] },
    ...(config.displayName && { displayName: config.displayName }),
    perfStats: {
      ...{ start, end, runtime: end - start, slow: (end - start) / 1000 > config.slowTestThreshold },
      ...{ loadTestEnvironmentStart: start, loadTestEnvironmentEnd: start },
      ...{ setupFilesStart: start, setupFilesEnd: start, setupAfterEnvStart: start, setupAfterEnvEnd: start },
    },
  } as TestResult;
}

/** @param extra what is printed with a failing test beside its own failure, by the names that lead to it */
export async function makeResult(
  path: string,
  told: FileTold,
  configs: Configs,
  { start, stacks, extra }: { start: number; stacks: StackReader; extra: ReadonlyMap<string, string> },
): Promise<TestResult> {
  const testResults = await Promise.all(told.results.map((one) => makeAssertion(one, stacks, extra)));
  const count = (status: AssertionResult['status']) =>
    testResults.filter((one) => one.status === status).length;
  const result = emptyResult(path, configs, start);
  const failing = { numFailingTests: count('failed'), numPassingTests: count('passed') };
  const others = { numPendingTests: count('pending'), numTodoTests: count('todo') };
  const { config, globalConfig } = configs;
  const failureMessage = formatResultsErrors(testResults, config, globalConfig, path);
  const said = await Promise.all(
    told.console.map(async (one) => ({ ...one, origin: await stacks.read(one.origin) })),
  );
  Object.assign(result, { ...failing, ...others, testResults, failureMessage });
  if (said.length > 0) result.console = said as never;
  if (told.unhandled.length > 0) {
    const [first = ''] = await Promise.all(told.unhandled.map((stack) => stacks.read(stack)));
    result.testExecError = { message: first.split('\n    at ')[0] ?? first, stack: first };
    result.failureMessage = formatExecError(result.testExecError, config, globalConfig, path);
  }
  return result;
}

async function makeAssertion(
  { path, errors, details, location, startedAt, status, ...told }: TestTold,
  stacks: StackReader,
  extra: ReadonlyMap<string, string>,
): Promise<AssertionResult> {
  const title = path.at(-1)!;
  const more = extra.get(path.join('\n'));
  const failureMessages = await Promise.all(errors.map((stack) => stacks.read(stack)));
  return {
    ...{ ancestorTitles: path.slice(0, -1), title, fullName: path.join(' '), location },
    duration: told.duration,
    failing: told.failing,
    failureDetails: await Promise.all(details.map((one) => revive(one, stacks))),
    failureMessages: more && failureMessages.length > 0 ? withMore(failureMessages, more) : failureMessages,
    invocations: told.invocations,
    numPassingAsserts: told.numPassingAsserts,
    retryReasons: [...told.retryReasons],
    startAt: startedAt,
    status: statusOf(status, errors),
  };
}

function statusOf(status: TestTold['status'], errors: readonly string[]): AssertionResult['status'] {
  if (status === 'todo') return 'todo';
  if (status === 'skip') return 'pending';
  return errors.length > 0 ? 'failed' : 'passed';
}

// Between the message and its stack.
function withMore([first = '', ...others]: string[], more: string): string[] {
  const at = first.search(/\n {4}at /);
  const [message, stack] = at < 0 ? [first, ''] : [first.slice(0, at), first.slice(at)];
  return [`${message}\n\n${more}${stack}`, ...others];
}

async function revive({ name, message, stack, cause }: ErrorTold, stacks: StackReader): Promise<Error> {
  const error = new Error(message, cause && { cause: await revive(cause, stacks) });
  if (name) error.name = name;
  if (stack) error.stack = await stacks.read(stack);
  return error;
}
