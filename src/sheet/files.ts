import { existsSync, readdirSync, statSync } from 'node:fs';
import { basename, dirname, join, relative, resolve } from 'node:path';
import { nearest } from '../core/near';
import { refuse } from './errors';

const declares = /\.states\.[cm]?[jt]sx?$/;
const isLeftOut = (name: string) => /^(node_modules|dist|build|coverage)$|^\./.test(name);

/**
 * The files that declare states, of files and folders that were named; of the whole folder where none was.
 *
 * @throws SIM-SHEET-FILE, SIM-SHEET-NONE
 */
export function findStatesFiles(named: readonly string[], root: string): string[] {
  const asked = named.length > 0 ? named : ['.'];
  const found = asked.flatMap((name) => {
    const path = resolve(root, name);
    const kind = existsSync(path) ? statSync(path) : refuseMissing(path, name);
    if (kind.isDirectory()) return filesBelow(path);
    if (!declares.test(path)) refuseOther(path, name);
    return [path];
  });
  if (found.length === 0) refuse('SIM-SHEET-NONE', { folders: asked, components: [] });
  return [...new Set(found)].sort();
}

function filesBelow(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (isLeftOut(entry.name)) return [];
    if (entry.isDirectory()) return filesBelow(path);
    return declares.test(entry.name) ? [path] : [];
  });
}

function refuseMissing(path: string, name: string): never {
  const folder = dirname(path);
  const near = existsSync(folder) ? nearest(basename(path), readdirSync(folder)) : undefined;
  return refuse('SIM-SHEET-FILE', {
    ...{ file: name, why: 'there is no such file or folder' },
    nearest: near && join(dirname(name), near),
  });
}

// Of a component, its states may stand beside it.
function refuseOther(path: string, name: string): never {
  const own = basename(path).replace(/\.\w+$/, '');
  const beside = readdirSync(dirname(path)).find(
    (one) => declares.test(one) && one.startsWith(`${own}.states.`),
  );
  return refuse('SIM-SHEET-FILE', {
    ...{ file: name, why: 'it is no file that declares states' },
    nearest: beside && relative(process.cwd(), join(dirname(path), beside)),
  });
}

/** The files of one part of a whole, evenly spread. @throws SIM-SHEET-SHARD */
export function filesOfShard(files: readonly string[], shard: string | undefined): string[] {
  if (shard === undefined) return [...files];
  const [, part, whole] = /^(\d+)\/(\d+)$/.exec(shard) ?? [];
  const [at, of] = [Number(part), Number(whole)];
  if (!(at >= 1 && at <= of)) refuse('SIM-SHEET-SHARD', { given: shard });
  return files.filter((_, index) => index % of === at - 1);
}
