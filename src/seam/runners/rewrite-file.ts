import { existsSync, readFileSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { readParser } from '../../syntax/parser';

/** True for a file of the project's own that may be rewritten: no package's, and none of ours. */
export const isOwnFile = (path: string, ours: string): boolean =>
  !/[\\/]node_modules[\\/]/.test(path) && !path.startsWith(ours) && !path.startsWith('\0');

const endings = ['', '.ts', '.tsx', '.mts', '.js', '.jsx', '.mjs', '/index.ts', '/index.tsx', '/index.js'];

/** The file a relative specifier leads to, as bundlers and TypeScript find it. */
export function findFile(specifier: string, importer: string): string | undefined {
  if (!/^\.{1,2}(\/|$)/.test(specifier)) return undefined;
  const path = resolve(dirname(importer), specifier);
  const bare = path.replace(/\.[cm]?jsx?$/, '');
  return [...endings.map((ending) => path + ending), ...endings.map((ending) => bare + ending)].find(
    (file) => existsSync(file) && statSync(file).isFile(),
  );
}

/** Tells the names `export * from` hands on in a file, where its modules can be found by their specifiers. */
export const namesFrom =
  (importer: string) =>
  (specifier: string): string[] | undefined =>
    exportNamesOf(findFile(specifier, importer));

/**
 * The names that a module exports, read from its source, following `export *`. Undefined if they cannot be
 * known.
 */
export function exportNamesOf(file: string | undefined, seen = new Set<string>()): string[] | undefined {
  if (file === undefined || !/\.[cm]?[jt]sx?$/.test(file) || seen.has(file)) return undefined;
  seen.add(file);
  const { module } = readParser().parseSync(file, readFileSync(file, 'utf8'));
  const names: string[] = [];
  for (const entry of module.staticExports.flatMap(({ entries }) => entries)) {
    if (entry.isType) continue;
    if (entry.exportName.kind === 'None') {
      const further = exportNamesOf(findFile(entry.moduleRequest?.value ?? '', file), seen);
      if (!further) return undefined;
      names.push(...further);
    } else if (entry.exportName.kind === 'Name') names.push(entry.exportName.name!);
  }
  return names;
}
