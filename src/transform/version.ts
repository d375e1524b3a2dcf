import { createRequire } from 'node:module';
import { dirname } from 'node:path';

const versions = new Map<string, string | undefined>();

/** The version of a package that a file finds; undefined where it finds none. */
export function versionIn(file: string, name: string): string | undefined {
  const key = `${dirname(file)}\0${name}`;
  if (!versions.has(key)) versions.set(key, readVersion(file, name));
  return versions.get(key);
}

function readVersion(file: string, name: string): string | undefined {
  try {
    return (createRequire(file)(`${name}/package.json`) as { version: string }).version;
  } catch {
    return undefined;
  }
}
