import { fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { reportTo, type Observation } from './observed';
import type { FileTold, Told } from './protocol';

export interface Limits {
  /** How long one try may take, in milliseconds. */
  readonly patience: number;
  /** How much memory the process may take, in MB. */
  readonly memory: number;
}

/** What a draft did when it was run. */
export interface Tried {
  readonly tests: FileTold['tests'];
  /** What was seen in each test, by its title; the last word of each. */
  readonly seen: ReadonlyMap<string, Observation>;
  /** Why no test was run, or not all of them. */
  readonly failed?: Failed;
}

export interface Failed {
  readonly kind: 'file' | 'slow' | 'gone' | 'runner';
  readonly message: string;
  /** The test that ran when it ended. */
  readonly during?: string;
}

const mostRuns = 40;

/** Tries drafts in a process of its own, which is begun anew where one has ended it. */
export class DraftRunner {
  #child: ChildProcess | undefined;
  #errors = '';
  #runs = 0;
  readonly #folder = mkdtempSync(join(tmpdir(), 'simulacra-draft-'));

  constructor(
    readonly root: string,
    readonly config: string,
    readonly limits: Limits,
    /** The folder of this package's own files. */
    readonly own: string,
  ) {}

  /** The line that a draft begins with while it is tried. */
  get probe(): string {
    return join(this.own, 'draft-probe.cjs');
  }

  async try(file: string, milliseconds = 5000): Promise<Tried> {
    // What a runner keeps of each run would add up.
    if (this.#runs++ % mostRuns === mostRuns - 1) this.#stop();
    const report = join(this.#folder, 'report.jsonl');
    writeFileSync(report, '');
    const child = (this.#child ??= this.#start(report));
    this.#errors = '';
    const told = await this.#ask(child, file, milliseconds);
    const seen = readReport(report);
    const during = [...seen.values()].find(({ isOver }) => !isOver)?.test;
    if ('kind' in told) {
      this.#stop();
      return { tests: [], seen, failed: { ...told, ...(during !== undefined && { during }) } };
    }
    if (told.broke !== undefined) return { tests: [], seen, failed: { kind: 'runner', message: told.broke } };
    const [own] = told.files;
    if (!own) return { tests: [], seen, failed: { kind: 'runner', message: 'Jest ran no file.' } };
    const failed = own.failed === undefined ? {} : { failed: { kind: 'file' as const, message: own.failed } };
    return { tests: own.tests, seen, ...failed };
  }

  #stop(): void {
    this.#child?.kill('SIGKILL');
    this.#child = undefined;
  }

  close(): void {
    this.#stop();
    rmSync(this.#folder, { recursive: true, force: true });
  }

  #start(report: string): ChildProcess {
    const child = fork(join(this.own, 'draft-child.cjs'), [], {
      cwd: this.root,
      execArgv: [
        `--max-old-space-size=${this.limits.memory}`,
        '--require',
        join(this.own, 'draft-guard.cjs'),
      ],
      env: { ...process.env, NODE_ENV: 'test', [reportTo]: report, FORCE_COLOR: '0', SIMULACRA_DRAFT: '1' },
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    });
    child.stderr!.on(
      'data',
      (data: Buffer) => (this.#errors = (this.#errors + data.toString()).slice(-4000)),
    );
    return child;
  }

  #ask(child: ChildProcess, file: string, milliseconds: number): Promise<Told | Failed> {
    const { patience, memory } = this.limits;
    return new Promise((resolve) => {
      const done = (result: Told | Failed) => {
        clearTimeout(timer);
        child.off('message', onMessage).off('exit', onExit);
        resolve(result);
      };
      const onMessage = (told: unknown) => done(told as Told);
      const onExit = (code: number | null, signal: string | null) => {
        const isFull = /heap out of memory/i.test(this.#errors);
        const [, exit] = /(process\.exit called with "[^"]*")/.exec(this.#errors) ?? [];
        const [, thrown] = /^(?:Uncaught )?(\w*Error: .{1,200})/m.exec(this.#errors) ?? [];
        done({
          kind: 'gone',
          message: isFull
            ? `it needs more than ${memory} MB of memory`
            : exit
              ? `it ends the process (${exit})`
              : `it ended the process (${thrown ?? signal ?? `exit code ${code}`})`,
        });
      };
      const timer = setTimeout(
        () => done({ kind: 'slow', message: `it was not done after ${Math.round(patience / 1000)} s` }),
        patience,
      );
      child.on('message', onMessage).on('exit', onExit);
      child.send({ root: this.root, files: [file], config: this.config, milliseconds });
    });
  }
}

function readReport(file: string): ReadonlyMap<string, Observation> {
  const lines = readFileSync(file, 'utf8').split('\n').filter(Boolean);
  return new Map(lines.map((line) => JSON.parse(line) as Observation).map((seen) => [seen.test, seen]));
}
