import { shared } from '../core/shared';
import type { Uses } from './uses';

/** What a test gave for one module's exports, while it is in place. */
export interface Placed {
  /** What identifies the module: the same for every specifier that leads to it. */
  readonly module: string;
  readonly doubles: ReadonlyMap<string, Double>;
  /** What becomes of the exports that were not given. */
  readonly rest: 'real' | 'refused';
  readonly owner: Owner;
  /** The specifier the test named it by. */
  readonly specifier: string;
}

/** Whose swaps they are: one subject's. */
export interface Owner {
  /** True while code of this subject's components runs; set once it is on the stage. */
  isRunning?: () => boolean;
}

/** What is looked up in place of an export. */
export interface Double {
  /** What the test gave, as it was given. */
  readonly given: unknown;
  /** For where a function is needed. */
  readonly call: unknown;
  /** For where the export itself is needed. */
  readonly value: unknown;
}

/** What a module took from another while it was loaded, and so for good. */
export interface Taken {
  readonly id: () => string;
  readonly name: string;
  readonly by: string;
  /** Where, if the file itself says it; a function that runs while its file is loaded does not. */
  readonly line: number | undefined;
  /** What the test had given then; undefined where the original was taken. */
  readonly given: { readonly value: unknown } | undefined;
}

/** A way from one file to a module it imports. */
export interface Link {
  /** The module's exports as they are looked up now. */
  (): Record<string, unknown>;
  /** All exports together, as `import * as` has them. */
  whole(): unknown;
  byDefault(): unknown;
  /** A look-up made while the file is loaded. */
  taken(name: string, lookUp: () => unknown, line: number): unknown;
  readonly id: () => string;
  readonly importer: string;
  /** As the file names the module. */
  readonly specifier: string;
  readonly uses: Uses;
  /** The original's exports, if they are loaded. */
  loaded(): unknown;
  /** True for what a file asks for when it needs it, rather than imports. */
  readonly isAsked: boolean;
  /** Loads what a test may have left out and somebody needs now. */
  need(name: string): Promise<void> | undefined;
}

/** A module as a rewritten file names it, with the functions that it exports where those are known. */
export type Named = readonly [specifier: string, id?: string, functions?: readonly string[]];

/** A module that a file loads when it needs it. */
export interface Loaded {
  readonly importer: string;
  /** As the file names the module. */
  readonly specifier: string;
  readonly id: () => string;
  /** Its exports, once they are loaded. */
  exports?: unknown;
  /** What was in place for the module when the file last asked for it. */
  readonly given: readonly Placed[];
}

export type Exports = Record<string | symbol, unknown>;

/** What is known of all modules in this process that were rewritten. */
export interface Modules {
  /** Grows whenever something else is to be looked up. */
  generation: number;
  readonly placed: Placed[];
  /** The ways that are known, each once, however often its file is run. */
  readonly links: Map<string, Link>;
  /** What was taken for good, by where; a file that is run again takes anew. */
  readonly taken: Map<string, Taken>;
  /** What re-exports them under names of its own, and is updated when they change. */
  readonly updaters: Map<string, () => void>;
  /** Which module hands on what: by module, then by name. */
  readonly handed: Map<string, Map<string, { readonly link: Link; readonly name: string }>>;
  /** Every file that was rewritten and run. */
  readonly files: Set<string>;
  /** The exports of the standard modules that are loaded. */
  readonly real: Map<string, Exports>;
  /** What a file loaded when it was needed. */
  readonly loads: Map<string, Loaded>;
  /** Modules a test named as its subject, and so loaded itself. */
  readonly subjects: Set<string>;
  /** True while a test loads its subject. */
  isLoadingSubject: boolean;
  /** Links that may have left an original out because it was swapped. */
  readonly left: Set<Link>;
  /** Which module waits for which others, while they are loaded. */
  readonly waiting: Map<string, Set<string>>;
  /** Refuses to load from an address; put here by the stage. */
  refuseAddress?: (specifier: string) => Error;
  /** By specifier: what stands for a module in every file, whoever swaps what; put here by the stage. */
  readonly always: Map<string, (real: Exports) => Exports>;
  /** The names of the functions a module exports, where that was read from its text beforehand. */
  readonly functions: Map<string, readonly string[]>;
}

export const modules = (shared.singletons['seam'] ??= {
  generation: 0,
  placed: [],
  links: new Map(),
  taken: new Map(),
  updaters: new Map(),
  handed: new Map(),
  files: new Set(),
  real: new Map(),
  loads: new Map(),
  subjects: new Set(),
  isLoadingSubject: false,
  left: new Set(),
  waiting: new Map(),
  always: new Map(),
  functions: new Map(),
}) as Modules;

/** Has every look-up made anew. */
export function renew(): void {
  modules.generation++;
  for (const tell of modules.updaters.values()) tell();
}

/** Everything that is in place for a module, what counts most first. */
export function placedFor(module: string): Placed[] {
  const found = modules.placed.filter((one) => one.module === module).reverse();
  const owners = new Set(found.map(({ owner }) => owner));
  if (owners.size < 2) return found;
  // With two subjects up, the swaps of the one whose code runs apply.
  const running = [...owners].find((owner) => owner.isRunning?.()) ?? found[0]!.owner;
  return found.filter(({ owner }) => owner === running);
}

/** Finding out what identifies a module takes its time, so nobody asks as long as nothing is swapped. */
export const isSwapped = (id: () => string): boolean =>
  modules.placed.length > 0 && placedFor(id()).length > 0;

/** What is in place for one export. */
export function doubleOf(module: string, name: string): Double | undefined {
  for (const { doubles } of placedFor(module)) {
    const double = doubles.get(name);
    if (double) return double;
  }
  return undefined;
}

/** Remembers that a file loads a module when it is needed. @returns undefined for the subject of a test */
export function noteLoad(importer: string, specifier: string, id: () => string): Loaded | undefined {
  if (modules.isLoadingSubject) return void modules.subjects.add(id());
  const given = modules.placed.length > 0 ? placedFor(id()) : [];
  const loaded: Loaded = { importer, specifier, id, given };
  modules.loads.set(`${importer}\0${specifier}`, loaded);
  return loaded;
}
