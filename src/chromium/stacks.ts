import { TraceMap, originalPositionFor } from '@jridgewell/trace-mapping';
import type { ServedProject } from '../browser/project';
import { runnerPath } from './told';

/** Puts the user's files and lines into stacks, in the place of the addresses a page loaded them from. */
export class StackReader {
  readonly #project: ServedProject;
  readonly #maps = new Map<string, { readonly file: string; readonly map: TraceMap | undefined }>();

  readonly #ours: string;

  /** @param ours the folder of our own modules, which count as those of a package */
  constructor(project: ServedProject, ours: string) {
    this.#project = project;
    this.#ours = ours;
  }

  /** What was changed since has another map. */
  forget(): void {
    this.#maps.clear();
  }

  async read(text: string): Promise<string> {
    const address = new RegExp(`${this.#project.url.replace(/[/.]/g, '\\$&')}([^\\s)]*?):(\\d+):(\\d+)`, 'g');
    const found = [...text.matchAll(address)];
    for (const [, path = ''] of found) await this.#learn(path);
    return text.replace(address, (all, path: string, line: string, column: string) => {
      if (`/${path}` === runnerPath) return `node_modules/jest-circus/build/index.js:${line}:${column}`;
      const known = this.#maps.get(path);
      if (!known) return all;
      if (!known.map) return `${known.file}:${line}:${column}`;
      const at = originalPositionFor(known.map, { line: Number(line), column: Number(column) - 1 });
      return at.line === null
        ? `${known.file}:${line}:${column}`
        : `${known.file}:${at.line}:${at.column + 1}`;
    });
  }

  async #learn(path: string): Promise<void> {
    if (this.#maps.has(path) || `/${path}` === runnerPath) return;
    const { file: found, map } = await this.#project.loaded(`/${path}`);
    const file = found.startsWith(this.#ours)
      ? `node_modules/simulacra/dist${found.slice(this.#ours.length)}`
      : found;
    this.#maps.set(path, { file, map: map && new TraceMap(map as never) });
  }
}
