import { explain, refuse } from './errors';
import { drop } from '../core/drop';
import { nearest } from '../core/near';
import { specifierOf } from './exports';
import { readKind } from './kinds';
import {
  doubleOf,
  placedFor,
  renew,
  modules,
  type Link,
  type Owner,
  type Placed,
  type Taken,
} from './modules';
import { neededOf, usage } from './uses';
import type { Swap } from './swap';
import { moduleOf, type Thunk } from './thunk';

/** The swaps of one subject, in place until they are taken away. */
export interface PlacedSwaps {
  readonly owner: Owner;
  /** Waits for what an earlier test left out and this one does not; undefined where there is nothing. */
  ready(): Promise<void> | undefined;
  /** @throws SIM-SWAP-TAKEN where a module has taken something else for good, while it was loaded */
  refuseTaken(subject: string | undefined, component: unknown, calledAt: Error): void;
  /** What to say of a swap that no module which was loaded imports; undefined where each is of use. */
  complainOfUnused(subject: string | undefined, calledAt: Error): Error | undefined;
  takeAway(): void;
}

async function bringLeft(): Promise<void> {
  for (const link of modules.left) await Promise.all(neededOf(link.uses).map((name) => link.need(name)));
}

/** Puts what a test gave in place of modules' exports. */
export function placeSwaps(swaps: readonly Swap[], spare: ReadonlySet<Swap>): PlacedSwaps {
  const owner: Owner = {};
  const own = swaps.map(({ load, doubles, rest }): Placed => {
    const { id, specifier } = moduleOf(load as unknown as Thunk);
    return { module: id(), doubles, rest, owner, specifier };
  });
  if (own.length > 0) {
    modules.placed.push(...own);
    renew();
  }
  return {
    owner,
    ready: () => (modules.left.size > 0 ? bringLeft() : undefined),
    refuseTaken,
    complainOfUnused: (subject, calledAt) => {
      if (own.length === 0) return undefined;
      const reached = reachedFrom(startingFrom(subject));
      for (const [at, one] of own.entries()) {
        const complaint = spare.has(swaps[at]!) ? undefined : complainOfUnused(one, reached, calledAt);
        if (complaint) return complaint;
      }
      return undefined;
    },
    takeAway: () => {
      if (own.length === 0) return;
      for (const one of own.splice(0)) drop(modules.placed, one);
      renew();
    },
  };
}

/** Calls the way to a subject's module. */
export function callForSubject(load: () => Promise<unknown>): Promise<unknown> {
  modules.isLoadingSubject = true;
  try {
    return load();
  } finally {
    modules.isLoadingSubject = false;
  }
}

/** What stands for each export a swap names, as the files that import it have it. */
export function readDoubles({ load, doubles }: Swap): Record<string, unknown> {
  const id = moduleOf(load as unknown as Thunk).id();
  const isCalled = (name: string) =>
    readKind(id, name) === 'function' ||
    [...modules.links.values()].some((link) => link.uses[name] === usage.called && link.id() === id);
  return Object.fromEntries(
    [...doubles].map(([name, { call, value }]) => [name, call !== value && isCalled(name) ? call : value]),
  );
}

function refuseTaken(subject: string | undefined, component: unknown, calledAt: Error): void {
  if (modules.generation === 0) return;
  const found = [...modules.taken.values()].filter(isStale);
  if (found.length === 0) return;
  const reached = reachedFrom(startingFrom(subject));
  const stale = found.find(({ by }) => reached.has(by));
  if (!stale) return;
  const { name, by, line, given } = stale;
  const isSwapped = placedFor(stale.id()).length > 0;
  const specifier = specifierOf(component);
  const fields = { name, by, line, earlier: given !== undefined, isSwapped, specifier };
  refuse('SIM-SWAP-TAKEN', fields, { calledAt });
}

function isStale({ id, name, given }: Taken): boolean {
  if (name === '*') return given === undefined && placedFor(id()).length > 0;
  const now = doubleOf(id(), name);
  return now === undefined ? given !== undefined : given === undefined || given.value !== now.given;
}

/**
 * The subject's module and the files that nobody imports. A subject that the test passed, or that was loaded
 * before the test, is imported by one of them.
 */
function startingFrom(subject: string | undefined): string[] {
  const imported = new Set([...modules.links.values(), ...modules.loads.values()].map(({ id }) => id()));
  const first = [...modules.files].filter((file) => !imported.has(file) && !modules.subjects.has(file));
  return subject === undefined ? first : [subject, ...first];
}

/** The modules some modules lead to, as far as they were rewritten. */
function reachedFrom(start: readonly string[]): ReadonlySet<string> {
  const next = new Map<string, string[]>();
  for (const { importer, id } of [...modules.links.values(), ...modules.loads.values()])
    next.set(importer, [...(next.get(importer) ?? []), id()]);
  const reached = new Set(start);
  for (const at of reached) for (const id of next.get(at) ?? []) reached.add(id);
  return reached;
}

function complainOfUnused(
  { module, doubles, specifier, rest, owner }: Placed,
  reached: ReadonlySet<string>,
  calledAt: Error,
): Error | undefined {
  const leadsHere = ({ id, importer }: Pick<Link, 'id' | 'importer'>) =>
    id() === module && reached.has(importer);
  const links = [...modules.links.values()].filter((link) => leadsHere(link) && !link.isAsked);
  const loads = [...modules.loads.values()].filter(leadsHere);
  if (loads.some(({ given }) => given.some(({ owner: one }) => one === owner))) return undefined;
  // A file that loaded it before, and did not load it again, keeps what it got.
  const [early] = loads;
  if (early && links.length === 0) {
    const { importer: by, given } = early;
    const what = { name: '*', by, line: undefined, loads: specifier };
    return explain('SIM-SWAP-TAKEN', { ...what, earlier: given.length > 0, isSwapped: true }, { calledAt });
  }
  const imported = links.flatMap(({ uses }) => Object.keys(uses));
  if (links.length > 0 && (rest === 'refused' || doubles.size === 0 || imported.includes('*')))
    return undefined;
  const missing = [...doubles.keys()].find((name) => !imported.includes(name));
  if (links.length > 0 && missing === undefined) return undefined;
  const importers = [...new Set(links.map(({ importer }) => importer))];
  const fields = { specifier, name: missing, importers, imported: [...new Set(imported)] };
  return explain(
    'SIM-SWAP-UNUSED',
    { ...fields, nearest: missing && nearest(missing, imported) },
    { calledAt },
  );
}
