import { availableParallelism } from 'node:os';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Config } from '@jest/types';
import type { TestResult } from '@jest/test-result';
import { openBrowser, type OpenBrowser } from '../browser/open';
import { onPages } from '../browser/pages';
import { projectOf, serveProject, type ServedProject } from '../browser/project';
import type { Slot } from '../browser/slot';
import { nameFiles, serveFiles } from './files';
import { printTestsHtml, serveRunner } from './page-html';
import { FileRun, forgetFailed } from './run-file';
import { StackReader } from './stacks';

interface Test {
  readonly context: { readonly config: Config.ProjectConfig };
  readonly path: string;
}
type OnStart = (test: Test) => Promise<void>;
type OnResult = (test: Test, result: TestResult) => Promise<void>;
type OnFailure = (test: Test, error: { message: string; stack: string }) => Promise<void>;
interface Watcher {
  isInterrupted(): boolean;
}

const ours = dirname(fileURLToPath(import.meta.url));

/** What stays open between the runs of a watch. */
interface Kept {
  browser: Promise<OpenBrowser> | undefined;
  readonly projects: Map<string, Promise<{ readonly project: ServedProject; readonly stacks: StackReader }>>;
}
const kept: Kept = { browser: undefined, projects: new Map() };

const signals = ['SIGINT', 'SIGTERM', 'SIGHUP'] as const;

/** A run that is stopped leaves no browser behind. */
function stop(signal: NodeJS.Signals): void {
  void closeKept().finally(() => process.kill(process.pid, signal));
}

async function closeKept(): Promise<void> {
  const { browser, projects } = kept;
  for (const signal of signals) process.removeListener(signal, stop);
  kept.browser = undefined;
  const served = await Promise.allSettled(projects.values());
  projects.clear();
  // A server waits for the connections that the browser keeps.
  await (await browser?.catch(() => undefined))?.close();
  for (const one of served) if (one.status === 'fulfilled') await one.value.project.close();
}

/**
 * Runs the test files of a project in Chromium: `runner: 'simulacra/chromium'`. Files and components are served by
 * the project's own Vite; describe, it and expect are Jest's own.
 *
 * @see https://jestjs.io/docs/configuration#runner-string
 */
export class ChromiumRunner {
  readonly isSerial = false;
  readonly supportsEventEmitters = false;
  readonly #globalConfig: Config.GlobalConfig;

  constructor(globalConfig: Config.GlobalConfig) {
    this.#globalConfig = globalConfig;
  }

  async runTests(
    tests: readonly Test[],
    watcher: Watcher,
    onStart: OnStart,
    onResult: OnResult,
    onFailure: OnFailure,
  ): Promise<void> {
    const { watch, watchAll, maxWorkers } = this.#globalConfig;
    const isWatching = watch || watchAll;
    try {
      for (const rootDir of new Set(tests.map(({ context }) => context.config.rootDir)))
        await forgetFailed(rootDir);
      if (!kept.browser) for (const signal of signals) process.once(signal, stop);
      const { browser } = await (kept.browser ??= openBrowser(process.env['SHOW_BROWSER'] === '1'));
      const pages = Math.min(maxWorkers, availableParallelism());
      const how = { pages, isOver: () => watcher.isInterrupted() };
      await onPages(browser, tests, how, async (test, slot) => {
        await onStart(test);
        await this.#runFile(test, tests, slot, isWatching).then(
          (result) => onResult(test, result),
          ({ message, stack = message }: Error) => onFailure(test, { message, stack }),
        );
      });
    } catch (failure) {
      await closeKept();
      const { message, stack = message } = failure as Error;
      for (const test of tests) await onFailure(test, { message, stack });
    } finally {
      if (!isWatching) await closeKept();
    }
  }

  async #runFile(test: Test, tests: readonly Test[], slot: Slot, isWatching: boolean): Promise<TestResult> {
    const { config } = test.context;
    const configs = { config, globalConfig: this.#globalConfig };
    const root = projectOf(test.path, config.rootDir);
    const key = `${config.id} ${root}`;
    const served = kept.projects.get(key) ?? this.#serve(root, config, tests, isWatching);
    kept.projects.set(key, served);
    const { project, stacks } = await served;
    stacks.forget();
    return new FileRun(test.path, { slot, project, stacks, ours }, configs).run();
  }

  async #serve(root: string, config: Config.ProjectConfig, tests: readonly Test[], isWatching: boolean) {
    const files = tests
      .filter(
        ({ context, path }) => context.config.id === config.id && projectOf(path, config.rootDir) === root,
      )
      .map(({ path }) => path);
    const project = await serveProject({
      ...{ root, files, html: printTestsHtml, isWatching, purpose: `tests-${config.id.slice(0, 8)}` },
      plugins: [serveRunner(ours), serveFiles(), nameFiles()],
    });
    return { project, stacks: new StackReader(project, ours) };
  }
}
