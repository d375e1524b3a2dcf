import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { createHash } from 'node:crypto';
import type { FileFacts } from './facts';
import { readers } from './read/file';

// What was read in another way is not read again from here.
const version = createHash('sha1').update(readers().join()).digest('base64url');

/** What files said in runs before, by their content. Whatever is wrong with it, it is only read anew. */
export class FactsCache {
  readonly #before: Readonly<Record<string, FileFacts>>;
  readonly #now: Record<string, FileFacts> = {};
  #isNew = false;

  constructor(readonly file: string) {
    this.#before = readKept(file);
  }

  take(key: string): FileFacts | undefined {
    const kept = Object.hasOwn(this.#before, key) ? this.#before[key] : undefined;
    if (kept) this.#now[key] = kept;
    return kept;
  }

  keep(key: string, facts: FileFacts): void {
    this.#now[key] = facts;
    this.#isNew = true;
  }

  /** Writes what was read, as a whole or not at all. */
  save(): void {
    if (!this.#isNew) return;
    try {
      mkdirSync(dirname(this.file), { recursive: true });
      const beside = `${this.file}.${process.pid}`;
      // What is not asked for any more is given up once it is much.
      const isMuch = Object.keys(this.#before).length > 20_000;
      const facts = isMuch ? this.#now : { ...this.#before, ...this.#now };
      writeFileSync(beside, JSON.stringify({ version, facts }));
      renameSync(beside, this.file);
    } catch {
      // A folder that cannot be written to costs the next run some time, and nothing else.
    }
  }
}

function readKept(file: string): Readonly<Record<string, FileFacts>> {
  try {
    const kept = JSON.parse(readFileSync(file, 'utf8')) as {
      version: string;
      facts: Record<string, FileFacts>;
    };
    return kept.version === version ? kept.facts : {};
  } catch {
    return {};
  }
}
