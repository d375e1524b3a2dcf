import { rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type { Draft } from './model';
import type { DraftRunner, Tried } from './run/runner';
import { type Writing, printTests } from './write/print';

/** Tries drafts as files beside the one that is to be written. */
export class Trial {
  rounds = 0;

  constructor(
    readonly runner: DraftRunner,
    readonly writing: Writing,
    readonly progress: (words: string) => void,
    readonly stopped: AbortSignal,
  ) {}

  try(draft: Draft): Promise<Tried> {
    return this.run(printTests(draft, { ...this.writing, probe: this.runner.probe }));
  }

  /** @throws what the command was stopped with; no file of it is left */
  async run(source: string): Promise<Tried> {
    this.stopped.throwIfAborted();
    this.rounds++;
    this.progress(`run ${this.rounds}`);
    const file = this.besides('test');
    try {
      writeFileSync(file, source);
      return await this.runner.try(file);
    } finally {
      rmSync(file, { force: true });
    }
  }

  /** A file that is there while a draft is tried. */
  besides(kind: string): string {
    const { target } = this.writing;
    const name = basename(target).replace(/\.(test|states)\./, `.draft-${process.pid}.${kind}.`);
    return join(dirname(target), name);
  }
}
