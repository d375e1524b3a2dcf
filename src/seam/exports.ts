import { packageOf } from '../core/origin';
import { modules, type Link } from './modules';

/** How a user's file names the module that exports a value; undefined where none imports it. */
export const specifierOf = (value: unknown): string | undefined =>
  find((other) => other === value)?.specifier;

/** The name of a user's export that is a value, where a rewritten file imports it. */
export const exportOf = (value: unknown): string | undefined => exportFitting((other) => other === value);

/** The file of a user's that exports a value, and the name it has there. */
export function homeOf(value: unknown): { readonly file: string; readonly name: string } | undefined {
  const found = find((other) => other === value);
  return found && { file: found.file, name: found.name };
}

/** The same by the name alone, where only one value is exported by it. */
export function homeOfExport(name: string): { readonly file: string; readonly name: string } | undefined {
  const found = [...usersModules()].flatMap(({ exports, file }) =>
    name in exports ? [{ file, value: readFrom(exports, name) }] : [],
  );
  const [first, ...others] = found;
  return first && others.every(({ value }) => value === first.value) ? { file: first.file, name } : undefined;
}

/** The name of the first user's export that fits. */
export function exportFitting(fits: (value: unknown) => boolean): string | undefined {
  const found = find(fits);
  return found?.name === 'default' ? fileName(found.file) : found?.name;
}

interface UsersModule {
  readonly exports: object;
  readonly file: string;
  /** As a file that imports it, or loads it when it is needed, names it. */
  readonly specifier: string;
}

function find(fits: (value: unknown) => boolean): (UsersModule & { readonly name: string }) | undefined {
  for (const found of usersModules())
    for (const name of Object.keys(found.exports))
      if (name !== '__esModule' && fits(readFrom(found.exports, name))) return { ...found, name };
  return undefined;
}

/** The modules of the user's own that are loaded: those that files import, then those that files load. */
function* usersModules(): Generator<UsersModule> {
  const read = (exports: unknown, { id, specifier }: Pick<Link, 'id' | 'specifier'>) =>
    exports !== null && typeof exports === 'object' && !packageOf(id())
      ? [{ exports, file: id(), specifier }]
      : [];
  for (const link of modules.links.values()) yield* read(link.loaded(), link);
  for (const loaded of modules.loads.values()) yield* read(loaded.exports, loaded);
}

// An export may be an accessor that reads something not yet initialized.
function readFrom(exports: object, name: string): unknown {
  try {
    return (exports as Record<string, unknown>)[name];
  } catch {
    return undefined;
  }
}

const fileName = (file: string) =>
  file
    .split(/[\\/]/)
    .at(-1)!
    .replace(/[?#].*$/, '')
    .replace(/(\.\w+)+$/, '');
