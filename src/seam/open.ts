import { makeLink } from './link';
import { watchLoad } from './loads';
import {
  doubleOf,
  isSwapped,
  noteLoad,
  placedFor,
  modules,
  type Exports,
  type Link,
  type Named,
} from './modules';
import { usage, type Uses } from './uses';
import { tagThunk } from './thunk';

interface Require {
  (specifier: string): unknown;
  resolve(specifier: string): string;
}

/** What a rewritten CommonJS module reaches the others through. */
export function open(
  require: Require,
  module: { exports: unknown; readonly loaded?: boolean },
  file: string,
) {
  modules.files.add(file);
  const idOf = ([specifier]: Named) => {
    let id: string | undefined;
    return () => (id ??= resolve(require, specifier));
  };
  const makeOne = (named: Named, load: () => unknown, uses: Uses, isAsked = false): Link => {
    let real: { readonly exports: Exports } | undefined;
    const readReal = () => (real ??= { exports: load() as Exports }).exports;
    const id = idOf(named);
    // Imports load in the order they are written. Only swapped modules wait until they are needed.
    if (!isSwapped(id)) readReal();
    return makeLink({
      importer: file,
      specifier: named[0],
      id,
      uses,
      real: readReal,
      loaded: () => real?.exports,
      need: () => undefined,
      isCommon: true,
      isAsked,
      isLoading: () => !isAsked && module.loaded === false,
    });
  };
  // One link per module, however often it is imported.
  const whole = new Map<string, Link>();
  const lookUpWhole = (named: Named, load: () => unknown, isAsked = false): unknown => {
    const [specifier] = named;
    const link = whole.get(specifier) ?? makeOne(named, load, { '*': usage.passed }, isAsked);
    whole.set(specifier, link);
    return link();
  };
  const exports = () => module.exports as Exports;
  const tell = (exported: string, _: Link, __: string, get: () => unknown) =>
    void Object.defineProperty(exports(), exported, { get, enumerable: true, configurable: true });
  return {
    link: makeOne,
    tell,
    /** `export *`: names that are unknown before the original is loaded are looked up when they are read. */
    star(link: Link): void {
      const own = exports();
      const isLeftOut = isSwapped(link.id);
      const names = isLeftOut
        ? placedFor(link.id()).flatMap(({ doubles }) => [...doubles.keys()])
        : Object.keys(link());
      for (const name of names) {
        if (name !== 'default' && name !== '__esModule' && !Object.hasOwn(own, name))
          tell(name, link, name, () => link()[name]);
      }
      if (isLeftOut)
        Object.setPrototypeOf(own, makeBackground(link, Object.getPrototypeOf(own) as object | null));
    },
    load(named: Named, load: () => Promise<unknown>): Promise<unknown> {
      const id = idOf(named);
      const loaded = noteLoad(file, named[0], id);
      return isSwapped(id)
        ? Promise.resolve(lookUpWhole(named, () => require(named[0]), true))
        : watchLoad(named[0], load, loaded);
    },
    // Loads inside it are recorded where they happen.
    thunk: (named: Named, load: () => Promise<unknown>) => tagThunk(load, named[0], idOf(named)),
    require(named: Named, load: () => unknown): unknown {
      return isSwapped(idOf(named)) ? lookUpWhole(named, load) : load();
    },
  };
}

// A module without a file is identified by its name.
function resolve(require: Require, specifier: string): string {
  try {
    return require.resolve(specifier);
  } catch {
    return specifier;
  }
}

/** Stands behind a module that hands everything on, for the names it does not know itself. */
const makeBackground = (link: Link, behind: object | null): object =>
  new Proxy(behind ?? {}, {
    get: (target, name, self) =>
      typeof name === 'symbol' ||
      name in target ||
      name === 'default' ||
      name === '__esModule' ||
      name === 'then'
        ? (Reflect.get(target, name, self) as unknown)
        : link()[name],
    has: (target, name) =>
      name in target || (typeof name === 'string' && doubleOf(link.id(), name) !== undefined),
  });
