import { packageOf } from '../core/origin';
import { modules, type Link } from './modules';

/** How a user's file names the module that exports a value; undefined where none imports it. */
export const specifierOf = (value: unknown): string | undefined =>
  find((other) => other === value)?.link.specifier;

/** The name of a user's export that is a value, where a rewritten file imports it. */
export const exportOf = (value: unknown): string | undefined => exportFitting((other) => other === value);

/** The file of a user's that exports a value, and the name it has there. */
export function homeOf(value: unknown): { readonly file: string; readonly name: string } | undefined {
  const found = find((other) => other === value);
  return found && { file: found.link.id(), name: found.name };
}

/** The same by the name alone, where only one value is exported by it. */
export function homeOfExport(name: string): { readonly file: string; readonly name: string } | undefined {
  const found = [...modules.links.values()].flatMap((link) => {
    const exports = link.loaded();
    const isUsers = exports !== null && typeof exports === 'object' && !packageOf(link.id());
    return isUsers && name in exports ? [{ file: link.id(), value: readFrom(exports, name) }] : [];
  });
  const [first, ...others] = found;
  return first && others.every(({ value }) => value === first.value) ? { file: first.file, name } : undefined;
}

/** The name of the first user's export that fits. */
export function exportFitting(fits: (value: unknown) => boolean): string | undefined {
  const found = find(fits);
  return found?.name === 'default' ? fileName(found.link.id()) : found?.name;
}

function find(fits: (value: unknown) => boolean): { readonly link: Link; readonly name: string } | undefined {
  for (const link of modules.links.values()) {
    const exports = link.loaded();
    if (exports === null || typeof exports !== 'object' || packageOf(link.id())) continue;
    for (const name of Object.keys(exports)) {
      if (name === '__esModule' || !fits(readFrom(exports, name))) continue;
      return { link, name };
    }
  }
  return undefined;
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
