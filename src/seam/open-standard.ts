import { refuse } from './errors';
import { makeLink } from './link';
import { watchLoad } from './loads';
import { doubleOf, noteLoad, placedFor, modules, type Exports, type Link, type Named } from './modules';
import { neededOf, usage, type Uses } from './uses';
import { tagThunk } from './thunk';

interface Meta {
  readonly url: string;
  resolve?(specifier: string): string;
}

/**
 * Gives a rewritten ES module access to its imports. They are awaited one after the other, as a runner does,
 * but a swapped module is never loaded.
 */
export function openStandard(meta: Meta, own: string = plain(meta.url)) {
  modules.files.add(own);
  let isLoading = true;
  const common = { importer: own, isCommon: false };
  const idOf = ([specifier, id]: Named) => id ?? resolve(meta, specifier);
  const realOf = (specifier: string, id: string) => (): Exports =>
    modules.real.get(id) ?? refuse('SIM-SEAM-UNLOADED', { specifier, importer: own });
  const where = (specifier: string, id: string) => ({
    specifier,
    id: () => id,
    real: realOf(specifier, id),
    loaded: () => modules.real.get(id),
  });
  const makeOne = async (named: Named, load: () => Promise<unknown>, uses: Uses): Promise<Link> => {
    const id = idOf(named);
    let coming: Promise<void> | undefined;
    // Two files that import each other cannot both wait. One of them gets the other's exports as they become
    // available.
    const bring = () => (coming ??= load().then((exports) => void modules.real.set(id, exports as Exports)));
    const need = (name: string) => needFrom(id, name, bring);
    const [specifier] = named;
    const link = makeLink({ ...common, ...where(specifier, id), uses, need, isLoading: () => isLoading });
    const names = neededOf(uses);
    if (modules.placed.length > 0) modules.left.add(link);
    const isNeeded = placedFor(id).length === 0 || names.some((name) => !isGiven(id, name));
    if (isNeeded) await waitFor(own, id, bring);
    await Promise.all(
      names.map((name) => !isGiven(id, name) && modules.handed.get(id)?.get(name)?.link.need(name)),
    );
    return link;
  };
  // One link per module, however often it is imported.
  const whole = new Map<string, Link>();
  const makeWhole = (specifier: string, id: string): Link => {
    const uses = { '*': usage.passed };
    const asked = { need: () => undefined, isAsked: true, isLoading: () => false };
    return makeLink({ ...common, ...where(specifier, id), uses, ...asked });
  };
  return {
    link: makeOne,
    tell(exported: string, link: Link, name: string, update: () => void): void {
      const handed = modules.handed.get(own) ?? new Map<string, { link: Link; name: string }>();
      modules.handed.set(own, handed.set(exported, { link, name }));
      // An export that is not ready is reported later; a refused one is reported to its reader.
      const tell = () => void attempt(update);
      tell();
      modules.updaters.set(`${own}\0${exported}`, tell);
    },
    star: (): void => undefined,
    /** Called by the last line of the file. */
    end: (): void => void (isLoading = false),
    async load(named: Named, load: () => Promise<unknown>): Promise<unknown> {
      const id = idOf(named);
      const loaded = noteLoad(own, named[0], () => id);
      if (placedFor(id).length === 0) {
        const exports = await watchLoad(named[0], load, loaded);
        modules.real.set(id, exports as Exports);
        return exports;
      }
      const link = whole.get(id) ?? makeWhole(named[0], id);
      whole.set(id, link);
      return link();
    },
    thunk(named: Named, load: () => Promise<unknown>) {
      const [specifier, id, functions] = named;
      if (id !== undefined && functions) modules.functions.set(id, functions);
      return tagThunk(load, specifier, () => idOf(named));
    },
  };
}

// As a path, so that CommonJS modules of the same process use the same id.
const plain = (url: string) => {
  const path = url.replace(/[?#].*$/, '');
  return path.startsWith('file://') ? decodeURIComponent(path.slice('file://'.length)) : path;
};

function resolve(meta: Meta, specifier: string): string {
  try {
    return plain(meta.resolve!(specifier));
  } catch {
    return /^\.{0,2}\//.test(specifier) ? plain(new URL(specifier, meta.url).href) : specifier;
  }
}

const isGiven = (id: string, name: string): boolean =>
  placedFor(id).some(({ rest }) => rest === 'refused') || (name !== '*' && doubleOf(id, name) !== undefined);

// Includes re-exports, which are left out until someone needs them.
async function needFrom(id: string, name: string, bring: () => Promise<void>): Promise<void> {
  if (isGiven(id, name)) return;
  await bring();
  const further = modules.handed.get(id)?.get(name);
  await further?.link.need(further.name);
  for (const tell of modules.updaters.values()) tell();
}

/** Waits for a module, but not for one that waits for this one: two modules may import each other. */
async function waitFor(importer: string, id: string, bring: () => Promise<void>): Promise<void> {
  if (importer === id || leadsTo(id, importer)) {
    bring().catch(() => undefined);
    return;
  }
  const waits = modules.waiting.get(importer) ?? new Set<string>();
  modules.waiting.set(importer, waits.add(id));
  try {
    await bring();
  } finally {
    waits.delete(id);
  }
}

const leadsTo = (from: string, to: string, seen = new Set<string>()): boolean =>
  [...(modules.waiting.get(from) ?? [])].some(
    (next) => next === to || (!seen.has(next) && leadsTo(next, to, seen.add(next))),
  );

function attempt(work: () => void): void {
  try {
    work();
  } catch {
    return;
  }
}
