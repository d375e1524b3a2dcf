import { readFile } from 'node:fs/promises';
import { join, relative, resolve } from 'node:path';
import { copyPictures } from './compare';
import { refuse } from './errors';
import type { SheetFolder } from './keep';
import type { Sheet } from './model';

/**
 * Makes one sheet of the parts that were drawn on several machines.
 *
 * @throws SIM-SHEET-MERGE for what is no sheet, for a part that is missing, and for a file that two of them have
 */
export async function mergeSheets(
  folders: readonly string[],
  root: string,
  into: SheetFolder,
): Promise<Sheet> {
  const parts: { readonly folder: string; readonly sheet: Sheet }[] = [];
  for (const given of folders)
    parts.push({ folder: given, sheet: await readSheet(resolve(root, given), given) });
  refuseMissing(parts);
  const owners = new Map<string, string>();
  for (const { folder, sheet } of parts)
    for (const { file } of sheet.components) {
      const other = owners.get(file);
      if (other !== undefined)
        refuse('SIM-SHEET-MERGE', { folder, why: `it has ${file}, and so has ${other}` });
      owners.set(file, folder);
    }
  for (const { folder } of parts) await copyPictures(resolve(root, folder), into);
  const components = parts
    .flatMap(({ sheet }) => sheet.components)
    .sort((a, b) => (a.file < b.file ? -1 : 1));
  const made = parts
    .map(({ sheet }) => sheet.made)
    .sort()
    .at(-1)!;
  const milliseconds = parts.reduce((all, { sheet }) => all + sheet.milliseconds, 0);
  return { simulacra: 'sheet', version: 1, made, milliseconds, shard: undefined, components };
}

async function readSheet(folder: string, given: string): Promise<Sheet> {
  const file = join(folder, 'sheet.json');
  const text = await readFile(file, 'utf8').catch((cause: unknown) =>
    refuse('SIM-SHEET-MERGE', { folder: given, why: 'it has no sheet.json' }, { cause }),
  );
  let read: Partial<Sheet> | null;
  try {
    read = JSON.parse(text) as Partial<Sheet> | null;
  } catch (cause) {
    return refuse('SIM-SHEET-MERGE', { folder: given, why: 'its sheet.json is no JSON' }, { cause });
  }
  if (read?.simulacra !== 'sheet' || !Array.isArray(read.components))
    refuse('SIM-SHEET-MERGE', { folder: given, why: `${relative(folder, file)} is no sheet` });
  if (read.version !== 1)
    refuse('SIM-SHEET-MERGE', { folder: given, why: `it was written by another version (${read.version})` });
  return read as Sheet;
}

function refuseMissing(parts: readonly { readonly folder: string; readonly sheet: Sheet }[]): void {
  const shards = parts.flatMap(({ sheet }) => sheet.shard ?? []);
  const whole = Number(shards[0]?.split('/')[1] ?? 0);
  const missing = Array.from({ length: whole }, (_, at) => `${at + 1}/${whole}`).filter(
    (shard) => !shards.includes(shard),
  );
  if (missing.length > 0)
    refuse('SIM-SHEET-MERGE', { folder: parts[0]!.folder, why: `part ${missing.join(', ')} was not given` });
}
