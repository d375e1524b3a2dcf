import { files } from '../core/files';
import { modules } from './modules';

/**
 * Finds out from a module's source whether an export is a function, without running it. Needed only if a file
 * passes the export on without calling or inspecting it.
 */
export function readKind(module: string, name: string): 'function' | undefined {
  const known = modules.functions.get(module);
  if (known) return known.includes(name) ? 'function' : undefined;
  const text = readText(module);
  return text !== undefined && isFunctionIn(text, name) ? 'function' : undefined;
}

/** True where a text declares a function of this name. */
export function isFunctionIn(text: string, name: string): boolean {
  if (name === 'default') return /\bexport\s+default\s+(?:async\b|function\b|\(|[\w$]+\s*=>)/.test(text);
  const id = name.replaceAll('$', '\\$');
  const declared = new RegExp(`\\bfunction\\s*\\*?\\s*${id}\\s*[(<]`);
  const value = String.raw`(?:async\b|function\b|[(<]|[\w$]+\s*=>)`;
  const assigned = new RegExp(`\\b(?:const|let|var)\\s+${id}\\b[^=;]*=\\s*${value}`);
  return declared.test(text) || assigned.test(text);
}

/** The text of a file, by its path or address; undefined where it cannot be read. */
export function readText(file: string): string | undefined {
  const path = file.replace(/^file:\/\//, '');
  try {
    return files()?.readFileSync(path, 'utf8');
  } catch {
    return undefined;
  }
}
