import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Plugin } from 'vite';
import { isFunctionIn } from '../kinds';
import { parse, type Parsed } from '../rewrite/parse';
import { rewriteParsed } from '../rewrite/rewrite';
import { makeLineReader } from './maps';
import { exportNamesOf, isOwnFile } from './rewrite-file';

const runtime = 'virtual:simulacra-seam';
const ours = dirname(fileURLToPath(import.meta.url));
const plain = (id: string) => id.replace(/[?#].*$/, '');

/**
 * A Vite plugin that rewrites the project's files after all other plugins. It only runs in the dev server,
 * not in a build.
 *
 * @example
 * export default defineConfig({ plugins: [react(), seams()] });
 */
export function seams(): Plugin {
  const name = 'simulacra-seam';
  let isFirst = true;
  const plugin: Plugin = {
    name,
    // Twice rewritten is once too often.
    configResolved: ({ plugins }) => void (isFirst = plugins.find((one) => one.name === name) === plugin),
    enforce: 'post',
    apply: 'serve',
    resolveId: (id) => (id === runtime ? `\0${runtime}` : undefined),
    load: (id) => (id === `\0${runtime}` ? readFileSync(join(ours, 'seam-page.js'), 'utf8') : undefined),
    async transform(code, id) {
      if (
        !isFirst ||
        !isOwnFile(id, ours) ||
        !/\.([cm]?[jt]sx?|vue)($|\?)/.test(id) ||
        /[?&](raw|url|type=style)\b/.test(id)
      )
        return;
      const parsed = parse(code, 'script.js');
      if (!parsed) return;
      const ids = new Map<string, string>();
      for (const specifier of specifiersIn(parsed)) {
        const found = /^(\/@|virtual:|\0)/.test(specifier) ? null : await this.resolve(specifier, id);
        // Vite reports imports that cannot be resolved. A file that imports itself, as React's hot reloading
        // does, has nothing to wait for.
        if (found && !found.external && plain(found.id) !== plain(id)) ids.set(specifier, plain(found.id));
      }
      // The output depends on facts about other files.
      for (const path of ids.values())
        if (isOwnFile(path, ours) && /\bswap\b|export\s*\*/.test(code)) this.addWatchFile(path);
      const rewritten = rewriteParsed(parsed, {
        form: 'module',
        runtime,
        own: plain(id),
        lineOf: makeLineReader(() => this.getCombinedSourcemap()),
        isKept: (specifier) => !ids.has(specifier),
        idOf: (specifier) => ids.get(specifier),
        namesOf: (specifier) => exportNamesOf(ids.get(specifier)),
        functionsOf: (specifier) => functionsIn(ids.get(specifier)),
      });
      return rewritten && { code: rewritten.code, map: rewritten.makeMap() as never };
    },
  };
  return plugin;
}

function specifiersIn({ code, module }: NonNullable<Parsed>): ReadonlySet<string> {
  const text = (start: number, end: number) => /^(['"])(.*)\1$/.exec(code.slice(start, end))?.[2];
  const requests = [
    ...module.staticImports.map(({ moduleRequest }) => moduleRequest.value),
    ...module.staticExports.flatMap(({ entries }) =>
      entries.map(({ moduleRequest }) => moduleRequest?.value),
    ),
    ...module.dynamicImports.map(({ moduleRequest: { start, end } }) => text(start, end)),
  ];
  return new Set(requests.filter((one) => one !== undefined));
}

// A page cannot read source files, so we read the needed facts here.
function functionsIn(file: string | undefined): string[] | undefined {
  const names = file === undefined ? undefined : exportNamesOf(file);
  if (!names) return undefined;
  const text = readFileSync(file!, 'utf8');
  return names.filter((name) => isFunctionIn(text, name));
}
