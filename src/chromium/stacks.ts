import { TraceMap, originalPositionFor } from '@jridgewell/trace-mapping';
import type { ServedProject } from '../browser/project';

/** Where the page's own describe, it and expect are served. */
export const runnerPath = '/@simulacra/tests.js';

/** Puts the user's files and lines into stacks, in the place of the addresses a page loaded them from. */
export class StackReader {
  readonly #project: ServedProject;
  readonly #maps = new Map<string, { readonly file: string; readonly map: TraceMap | undefined }>();

  readonly #ours: string;

  /** @param ours the folder of our own modules, which are told as those of a package */
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
    const { server } = this.#project;
    const graph = server.environments.client.moduleGraph;
    const plain = `/${path}`.replace(/([?&])t=\d+(&|$)/, '$1').replace(/[?&]$/, '');
    const module = await graph.getModuleByUrl(decodeURI(plain));
    // What was loaded may have been forgotten since.
    const known =
      module?.transformResult ?? (module && (await server.transformRequest(plain).catch(() => null)));
    const map = known?.map;
    const found = module?.file ?? fileOf(plain, server.config.root);
    const file = found.startsWith(this.#ours)
      ? `node_modules/simulacra/dist${found.slice(this.#ours.length)}`
      : found;
    this.#maps.set(path, {
      file,
      map: map && 'mappings' in map && map.mappings ? new TraceMap(map as never) : undefined,
    });
  }
}

const fileOf = (path: string, root: string): string => {
  const plain = decodeURI(path.replace(/\?.*/, ''));
  return plain.startsWith('/@fs/') ? plain.slice(4) : `${root}${plain}`;
};
