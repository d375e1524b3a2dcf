import { existsSync } from 'node:fs';
import { cp, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import { explain, refuse } from './errors';
import { failedOf } from './failed';
import type { SheetFolder } from './keep';
import type { Failed, Sheet, SheetComponent, View } from './model';

/* Pictures compared with those that were accepted. */

/** What is compared, and how. */
export interface CompareOptions {
  /** The folder of the accepted pictures. */
  readonly accepted: string;
  /** How much of a picture may differ, from 0 to 1. */
  readonly tolerance: number;
}

/** Compares each picture of a sheet; a difference is a failure of its state. */
export async function compareSheet(
  sheet: Sheet,
  folder: SheetFolder,
  options: CompareOptions,
): Promise<Sheet> {
  return mapViews(sheet, (view, component, state) =>
    compareView({ view, component, state, folder, ...options }),
  );
}

async function mapViews(
  sheet: Sheet,
  map: (view: View, component: string, state: string) => Promise<View>,
): Promise<Sheet> {
  const components: SheetComponent[] = [];
  for (const component of sheet.components) {
    const states = [];
    for (const state of component.states) {
      const views: View[] = [];
      for (const view of state.views) views.push(await map(view, component.component, state.name));
      states.push({ ...state, views });
    }
    components.push({ ...component, states });
  }
  return { ...sheet, components };
}

interface Compared extends CompareOptions {
  readonly view: View;
  readonly component: string;
  readonly state: string;
  readonly folder: SheetFolder;
}

async function compareView({ view, component, state, folder, accepted, tolerance }: Compared): Promise<View> {
  const { picture } = view;
  if (picture === undefined) return view;
  const name = nameOf(picture);
  const file = join(accepted, name);
  const failing = (failure: Failed, comparison: View['comparison']): View => ({
    ...{ ...view, comparison, failure: view.failure ?? failure },
  });
  if (!existsSync(file)) {
    const failure = failedOf(explain('SIM-PICTURE-NEW', { component, state, file: name }));
    return failing(failure, { outcome: 'new', part: 1, accepted: undefined, difference: undefined });
  }
  const [now, before] = await Promise.all([readFile(join(folder.draft, picture)), readFile(file)]);
  const same = { outcome: 'same', part: 0, accepted: undefined, difference: undefined } as const;
  if (now.equals(before)) return { ...view, comparison: same };
  const made = PNG.sync.read(now);
  const taken = readPicture(before);
  if (taken instanceof Error) {
    const failure = failedOf(explain('SIM-PICTURE-FILE', { file: name, why: taken.message }));
    return failing(failure, { outcome: 'changed', part: 1, accepted: undefined, difference: undefined });
  }
  const { part, difference } = differ(made, taken);
  const isResized = made.width !== taken.width || made.height !== taken.height;
  if (part <= tolerance && !isResized) return { ...view, comparison: { ...same, part } };
  const beside = (word: string) => picture.replace(/\.png$/, `.${word}.png`);
  await folder.write(beside('accepted'), before);
  await folder.write(beside('difference'), PNG.sync.write(difference));
  const sizes = { size: [made.width, made.height], accepted: [taken.width, taken.height] } as const;
  const failure = failedOf(explain('SIM-PICTURE-CHANGED', { component, state, part, tolerance, ...sizes }));
  return failing(failure, {
    ...{ outcome: 'changed', part, accepted: beside('accepted'), difference: beside('difference') },
  });
}

/** What a picture of a sheet is called among those that were accepted. */
const nameOf = (picture: string): string => picture.replace(/^pictures\//, '');

function readPicture(bytes: Buffer): PNG | Error {
  try {
    return PNG.sync.read(bytes);
  } catch (problem) {
    return problem as Error;
  }
}

/** Where two pictures differ, of a size that holds both. */
function differ(one: PNG, other: PNG): { readonly part: number; readonly difference: PNG } {
  const size = { width: Math.max(one.width, other.width), height: Math.max(one.height, other.height) };
  const difference = new PNG(size);
  const [a, b] = [one, other].map((picture) => grown(picture, size));
  const { width, height } = size;
  const count = pixelmatch(a!.data, b!.data, difference.data, width, height, { threshold: 0.1 });
  return { part: count / (width * height), difference };
}

function grown(picture: PNG, size: { readonly width: number; readonly height: number }): PNG {
  if (picture.width === size.width && picture.height === size.height) return picture;
  // What one of them does not reach is transparent in it, and differs.
  const larger = new PNG({ ...size, fill: true });
  PNG.bitblt(picture, larger, 0, 0, picture.width, picture.height, 0, 0);
  return larger;
}

/**
 * Takes the pictures of a sheet as accepted, of the states that are as they declare. Pictures of states that are
 * declared no more go.
 *
 * @returns how many were taken, and how many went
 * @throws SIM-SHEET-WRITE
 */
export async function acceptSheet(
  sheet: Sheet,
  { draft }: SheetFolder,
  accepted: string,
): Promise<{ readonly taken: number; readonly gone: number }> {
  let [taken, gone] = [0, 0];
  try {
    for (const { states } of sheet.components) {
      const views = states.flatMap((state) => state.views);
      const names = views.flatMap(({ picture }) => (picture === undefined ? [] : nameOf(picture)));
      for (const { picture, failure } of views) {
        if (!picture || failure) continue;
        const file = join(accepted, nameOf(picture));
        await mkdir(dirname(file), { recursive: true });
        const bytes = await readFile(join(draft, picture));
        if (existsSync(file) && (await readFile(file)).equals(bytes)) continue;
        await writeFile(file, bytes);
        taken++;
      }
      for (const folder of new Set(names.map(dirname)))
        for (const name of await readdir(join(accepted, folder)).catch(() => []))
          if (name.endsWith('.png') && !names.includes(`${folder}/${name}`)) {
            await rm(join(accepted, folder, name));
            gone++;
          }
    }
  } catch (cause) {
    refuse('SIM-SHEET-WRITE', { folder: accepted, why: (cause as Error).message }, { cause });
  }
  return { taken, gone };
}

/** Copies the pictures of one sheet into the folder of another. */
export const copyPictures = (from: string, { draft }: SheetFolder): Promise<void> =>
  cp(join(from, 'pictures'), join(draft, 'pictures'), { recursive: true });
