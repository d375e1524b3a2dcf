import { existsSync } from 'node:fs';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import type { TestResult } from '@jest/test-result';
import { complaintOf } from '../browser/complaint';
import type { ScreenWanted } from '../core/files';
import { explain as explainPage } from '../browser/errors';
import { withPackages } from '../browser/pages';
import type { ServedProject } from '../browser/project';
import { markPage, type Slot } from '../browser/slot';
import { addCoverage, beginCoverage } from './coverage';
import { explain } from './errors';
import { Input } from './input';
import { makeResult, type Configs } from './result';
import type { StackReader } from './stacks';
import type { Asked, FileTold, Message, RunAsked, TestTold } from './told';

/** What a file is run on. */
export interface Place {
  readonly slot: Slot;
  readonly project: ServedProject;
  readonly stacks: StackReader;
  /** The folder of our own modules. */
  readonly ours: string;
}

// A page that is loading may have much to prepare at first.
const patience = { load: 90_000, more: 5_000 };
const longest = 2 ** 31 - 1;

/** Runs one test file on a page. What goes wrong with the page itself fails the file, and no other one. */
export class FileRun {
  readonly #path: string;
  readonly #place: Place;
  readonly #configs: Configs;
  readonly #extra = new Map<string, string>();
  readonly #start = Date.now();
  readonly #done: TestTold[] = [];
  #running: readonly string[] | undefined;
  #input: Input | undefined;
  #timer: NodeJS.Timeout | undefined;

  constructor(path: string, place: Place, configs: Configs) {
    this.#path = path;
    this.#place = place;
    this.#configs = configs;
  }

  /** @throws what kept the file from being run at all */
  async run(): Promise<TestResult> {
    const outcome = await withPackages(this.#place.project, () => {
      this.#extra.clear();
      this.#done.length = 0;
      this.#running = undefined;
      return this.#once().catch((problem: unknown) => this.#rescue(problem as Error));
    });
    if (outcome instanceof Error) throw outcome;
    return outcome;
  }

  /** What is known of the tests of a page that ended before it could report all of them. */
  async #rescue(failure: Error): Promise<TestResult | Error> {
    const running = this.#running;
    if (running === undefined) return failure;
    const { message, stack = message } = failure;
    const broken: TestTold = {
      ...{ path: running, status: 'done', duration: null, startedAt: null, invocations: 1 },
      ...{ location: null, failing: false, numPassingAsserts: 0, retryReasons: [] },
      ...{ errors: [stack], details: [{ message, stack }] },
    };
    const told = { results: [...this.#done, broken], unhandled: [], console: [] };
    const { stacks } = this.#place;
    return makeResult(this.#path, told, this.#configs, { start: this.#start, stacks, extra: this.#extra });
  }

  async #once(): Promise<TestResult> {
    const { slot, project, stacks } = this.#place;
    const name = relative(this.#configs.config.rootDir, this.#path);
    let isOver = false;
    // Otherwise we would wait for messages after the end of the page.
    await slot.listen('simulacraTell', (text) => void (isOver || this.#hear(text)));
    const { globalConfig } = this.#configs;
    if (globalConfig.collectCoverage) await beginCoverage(slot.session);
    await slot.load(project.url);
    this.#input = new Input(slot.page, slot.session);
    await this.#setScreen({});
    const asked = await this.#asked();
    const globals = JSON.stringify(this.#configs.config.globals);
    const expression = `(async () => { ${markPage} Object.assign(globalThis, ${globals}); return simulacraRun(${JSON.stringify(asked)}); })()`;
    this.#wait(patience.load);
    try {
      const told = await slot.evaluate<FileTold>(expression, name, longest);
      if (told.results.length === 0 && told.unhandled.length === 0)
        throw explain('SIM-FILE-EMPTY', { file: name });
      const more = { start: this.#start, stacks, extra: this.#extra };
      const result = await makeResult(this.#path, told, this.#configs, more);
      if (globalConfig.collectCoverage) await addCoverage(result, slot.session, project, this.#configs);
      return result;
    } catch (failure) {
      throw await this.#wordFailure(failure, name);
    } finally {
      isOver = true;
      clearTimeout(this.#timer);
      await this.#input.close();
    }
  }

  async #asked(): Promise<RunAsked> {
    const { project, ours } = this.#place;
    const { config, globalConfig } = this.#configs;
    const setup = [...config.setupFiles, ...config.setupFilesAfterEnv];
    const isOfStates = (file: string) => dirname(file) === ours && /[\\/]jest-states\.\w+$/.test(file);
    const modules = setup.filter((file) => !isOfStates(file)).map((file) => this.#moduleOf(file));
    const hasStates = setup.some(isOfStates) && /\.states\.[cm]?[jt]sx?$/.test(this.#path);
    const { testNamePattern, testTimeout, maxConcurrency, seed, randomize } = globalConfig;
    return {
      setup: modules.map((file) => project.urlOf(file)),
      url: project.urlOf(this.#path),
      path: this.#path,
      states: hasStates ? project.urlOf(join(ours, 'jest.js')) : undefined,
      pattern: testNamePattern,
      timeout: testTimeout ?? config.testTimeout ?? 5000,
      isLocated: config.testLocationInResults,
      ...{ maxConcurrency, seed, isRandom: randomize === true, expand: globalConfig.expand },
      env: { ACCEPT_LOOKS: process.env['ACCEPT_LOOKS'] },
    };
  }

  // A runner resolves our entries to their form for Node.
  #moduleOf(file: string): string {
    const module = file.replace(/\.cjs$/, '.js');
    if (dirname(file) === this.#place.ours && existsSync(module)) return module;
    if (file.endsWith('.cjs')) {
      const name = relative(this.#configs.config.rootDir, file);
      throw explain('SIM-FILE-SETUP', { file: name, why: 'it is no standard module' });
    }
    return file;
  }

  #wait(milliseconds: number): void {
    clearTimeout(this.#timer);
    if (milliseconds >= longest) return;
    this.#timer = setTimeout(() => {
      const page = this.#running?.join(' › ') ?? relative(this.#configs.config.rootDir, this.#path);
      this.#place.slot.giveUp(explainPage('SIM-PAGE-HANGS', { page, milliseconds }));
    }, milliseconds);
  }

  async #hear(text: string): Promise<void> {
    const message = JSON.parse(text) as Message;
    if (message.kind === 'started') {
      this.#running = message.path;
      this.#wait(message.limit + patience.more);
    } else if (message.kind === 'done') {
      this.#done.push(message.result);
      this.#running = undefined;
      this.#wait(patience.load);
    } else if (message.kind === 'loaded') this.#wait(patience.load);
    else {
      const answer = await this.#do(message).catch((problem: unknown) => ({ problem: String(problem) }));
      const said = JSON.stringify(answer) ?? 'undefined';
      this.#place.slot.tell(`simulacraAnswer(${message.id}, ${said})`);
    }
  }

  #setScreen({ width = 1280, height = 800, dark, reducedMotion = false }: ScreenWanted): Promise<void> {
    const scheme = dark ? 'dark' : 'light';
    return this.#place.slot.setScreen({ width, height, scheme, isStill: reducedMotion });
  }

  #do(message: Asked): Promise<unknown> {
    if (message.kind === 'input') return this.#input!.do(message);
    if (message.kind === 'screen') return this.#setScreen(message.wanted);
    if (message.kind === 'files') return this.#input!.choose(message.files);
    return this.#keepFailed(message.path).catch(() => undefined);
  }

  /** Keeps a picture and the markup of what is on the page when a test fails. */
  async #keepFailed(path: readonly string[]): Promise<void> {
    const { slot } = this.#place;
    const { rootDir } = this.#configs.config;
    const word = (text: string) =>
      text
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .replace(/^-|-$/g, '')
        .slice(0, 60) || 'x';
    const folder = join(rootDir, 'failed-tests', relative(rootDir, this.#path).replace(/\.[^.]+$/, ''));
    const file = join(folder, path.map(word).join('.').slice(-150));
    await mkdir(folder, { recursive: true });
    const [picture, markup] = await Promise.all([
      slot.page.screenshot({ type: 'png' }),
      slot.page.evaluate('document.documentElement.outerHTML'),
    ]);
    await Promise.all([writeFile(`${file}.png`, picture), writeFile(`${file}.html`, String(markup))]);
    const name = relative(rootDir, file);
    this.#extra.set(path.join('\n'), `  The page as it was:   ${name}.png   ${name}.html`);
  }

  async #wordFailure(failure: unknown, name: string): Promise<Error> {
    const { code, fields } = failure as { code?: string; fields?: { threw?: string } };
    if (code !== 'SIM-PAGE-THREW') return failure as Error;
    const { project, stacks } = this.#place;
    const threw = fields?.threw ?? '';
    if (!/Failed to fetch dynamically imported module|does not provide an export/.test(threw)) {
      const error = new Error(threw.split('\n    at ')[0]!.replace(/^(Uncaught )?\w*Error: /, ''));
      error.stack = await stacks.read(threw);
      return error;
    }
    const why = await complaintOf(project, [this.#path], failure);
    return explainPage('SIM-PAGE-LOAD', { file: name, why: await stacks.read(why) });
  }
}

/** Takes away what former runs kept of failing tests. */
export const forgetFailed = (rootDir: string): Promise<void> =>
  rm(join(rootDir, 'failed-tests'), { recursive: true, force: true });
