import { existsSync, realpathSync, statSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import { nearest } from '../core/near';
import { refuse } from './errors';
import type { Unit } from './facts';
import type { Linker } from './link';
import type { Project } from './project';
import { isSource } from './read/file';

/** A component, and where it is declared. */
export interface Subject {
  readonly file: string;
  readonly unit: Unit;
}

/** What was asked for: one component, or all that a folder declares. */
export type Asked =
  | { readonly kind: 'one'; readonly subject: Subject; readonly others: readonly Unit[] }
  | { readonly kind: 'folder'; readonly folder: string; readonly files: readonly string[] };

/**
 * Finds what a person named: a file, `file#Component`, a folder, or a component by its name.
 *
 * @throws SIM-SURVEY-MISSING, SIM-SURVEY-NONE, SIM-SURVEY-WHICH, SIM-SURVEY-UNREAD
 */
export function findAsked(linker: Linker, asked: string, from: string): Asked {
  const [path = '', wanted] = asked.split('#');
  const place = resolve(from, path);
  if (!existsSync(place)) {
    refuseCircle(place, asked);
    return byName(linker, asked);
  }
  if (statSync(place).isDirectory())
    return { kind: 'folder', folder: place, files: linker.project.list(place) };
  return inFile(linker, place, wanted);
}

/** The files that have to be read to find what is asked for, beside those that it leads to. */
export function filesAsked(project: Project, asked: string, from: string): readonly string[] {
  const place = resolve(from, asked.split('#')[0] ?? '');
  if (!existsSync(place)) return project.list();
  return statSync(place).isDirectory() ? project.list(place) : [];
}

// A link that leads back to itself is there, and cannot be followed.
function refuseCircle(place: string, asked: string): void {
  try {
    realpathSync(place);
  } catch (failure) {
    if ((failure as NodeJS.ErrnoException).code === 'ELOOP')
      refuse('SIM-SURVEY-UNREAD', { file: asked, line: 1, why: 'it is a link that leads back to itself' });
  }
}

function inFile(linker: Linker, file: string, wanted: string | undefined): Asked {
  const { project } = linker;
  const name = project.nameOf(file);
  if (!isSource(file))
    return refuse('SIM-SURVEY-UNREAD', { file: name, line: 1, why: 'it is no file of source code' });
  const { unread, exports } = project.facts(file);
  if (unread) return refuse('SIM-SURVEY-UNREAD', { file: name, ...unread });
  const all = componentsIn(linker, file);
  if (wanted !== undefined) {
    const unit = all.find((one) => one.name === wanted);
    if (unit) return { kind: 'one', subject: { file, unit }, others: [] };
  }
  const exported = all.filter((unit) => exports.some(({ local }) => local === unit.name));
  const choices = exported.length > 0 ? exported : all;
  const stem = basename(file).replace(/\..*$/, '').replace(/[-_]/g, '').toLowerCase();
  const main = choices.length === 1 ? choices[0] : choices.find((unit) => unit.name.toLowerCase() === stem);
  if (wanted === undefined && main)
    return { kind: 'one', subject: { file, unit: main }, others: choices.filter((one) => one !== main) };
  if (choices.length > 0)
    return refuse('SIM-SURVEY-WHICH', {
      asked: wanted === undefined ? name : `${name}#${wanted}`,
      choices: choices.map((unit) => addressOf(linker, { file, unit })),
    });
  const handedOn = handedOnBy(linker, file);
  if (handedOn) return handedOn;
  return refuse('SIM-SURVEY-NONE', {
    file: name,
    exports: exports.map((one) => one.name),
    importers: usersOf(linker, file),
  });
}

/** How a call names one component of a file. */
const addressOf = ({ project }: Linker, { file, unit }: Subject): string =>
  `${project.nameOf(file)}#${unit.name}`;

export const componentsIn = (linker: Linker, file: string): readonly Unit[] =>
  linker.project
    .facts(file)
    .units.filter((unit) => unit.kind === 'component' && (unit.isExported === true || !isOnlyLazy(unit)));

/** `const Late = lazy(() => import('./Late'))` is the component of another file. */
const isOnlyLazy = ({ uses }: Unit) =>
  uses.some(({ isLazy }) => isLazy) && uses.every(({ isLazy, name }) => isLazy ?? name === 'lazy');

/** A file that only hands on what others declare stands for it, if that is one component. */
function handedOnBy(linker: Linker, file: string): Asked | undefined {
  const { exports } = linker.project.facts(file);
  const found = exports.flatMap(({ name }) => {
    const one = linker.exported(file, name);
    return one?.kind === 'unit' && one.unit.kind === 'component' ? [one] : [];
  });
  const [one] = found;
  if (!one) return undefined;
  if (found.length === 1) return { kind: 'one', subject: { file: one.file, unit: one.unit }, others: [] };
  return refuse('SIM-SURVEY-WHICH', {
    asked: linker.project.nameOf(file),
    choices: found.map((one) => addressOf(linker, one)),
  });
}

/** Components that use something of a file. */
function usersOf({ project }: Linker, file: string): string[] {
  return project
    .importersOf(file)
    .filter((one) => project.facts(one).units.some(({ kind }) => kind === 'component'))
    .map((one) => project.nameOf(one));
}

function byName(linker: Linker, asked: string): Asked {
  const { project } = linker;
  const all = project
    .list()
    .flatMap((file) => componentsIn(linker, file).map((unit): Subject => ({ file, unit })));
  const named = all.filter(({ unit }) => unit.name === asked);
  // What is below the folder of the call goes before what is elsewhere in the project.
  const here = named.filter(({ file }) => !project.nameOf(file).startsWith('..'));
  const found = here.length > 0 ? here : named;
  const [one] = found;
  if (one && found.length === 1) return { kind: 'one', subject: one, others: [] };
  if (one)
    return refuse('SIM-SURVEY-WHICH', {
      asked,
      choices: found.map((one) => addressOf(linker, one)),
    });
  const names = [...new Set(all.map(({ unit }) => unit.name))];
  const files = project.list().map((file) => project.nameOf(file));
  const isPath = /[/.]/.test(asked);
  const near = nearest(asked, isPath ? files : names);
  const beside = files.filter(
    (file) => basename(file).split('.')[0]!.toLowerCase() === basename(asked).split('.')[0]!.toLowerCase(),
  );
  return refuse('SIM-SURVEY-MISSING', {
    asked,
    nearest: [...new Set([...(near === undefined ? [] : [near]), ...beside])].slice(0, 4),
    root: project.root,
  });
}
