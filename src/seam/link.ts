import { makeView, readReal } from './view';
import { doubleOf, isSwapped, modules, type Exports, type Link } from './modules';
import { usage, type Uses } from './uses';

export interface Linking {
  readonly importer: string;
  readonly specifier: string;
  readonly id: () => string;
  readonly uses: Uses;
  /** The original's exports; loads them where that can be done at once. */
  real(): Exports;
  /** The same, if they are loaded. */
  loaded(): unknown;
  need(name: string): Promise<void> | undefined;
  /** True for what the file asks for when it needs it, rather than imports. */
  readonly isAsked?: boolean;
  /** True while the file that imports is loaded. */
  isLoading(): boolean;
  readonly isCommon: boolean;
}

/** Makes the look-up a rewritten file has for one module. */
export function makeLink(linking: Linking): Link {
  const { id, importer, specifier, uses, isCommon } = linking;
  const real = () => modules.always.get(specifier)?.(linking.real()) ?? linking.real();
  let seen = -1;
  let current: Record<string, unknown>;
  let isView = false;
  let isTaking = false;
  const refresh = () => {
    isView = isSwapped(id);
    current = (isView ? makeView({ id: id(), importer, uses, real, isCommon }) : real()) as typeof current;
    // A function that runs while its file loads keeps what it reads, like the file itself.
    if (!linking.isLoading()) seen = modules.generation;
    return current;
  };
  const lookUp = () => (seen === modules.generation ? current : refresh());
  // A value that is only re-exported is read by its importer.
  const isKept = (name: string) =>
    seen < 0 && !isTaking && (uses[name] ?? uses['*'] ?? usage.handedOn) !== usage.handedOn;
  const lookUpNoting = () => {
    const now = lookUp();
    return seen < 0 && !isTaking ? noting(now, (name) => isKept(name) && note(linking, name)) : now;
  };
  let whole: { readonly of: unknown; readonly made: unknown } | undefined;
  const link = Object.assign(lookUpNoting, {
    importer,
    specifier,
    id,
    uses,
    need: linking.need,
    loaded: linking.loaded,
    isAsked: linking.isAsked ?? false,
    byDefault: () => {
      const now = lookUp();
      if (isKept('default')) note(linking, 'default');
      return isView ? now['default'] : readReal(now, 'default', isCommon);
    },
    whole: () => {
      const now = lookUp();
      if (isKept('*')) note(linking, '*');
      if (isView || !isCommon || now['__esModule']) return now;
      if (whole?.of !== now) whole = { of: now, made: asNamespace(now) };
      return whole.made;
    },
    taken: (name: string, lookUpName: () => unknown, line: number) => {
      note(linking, name, line);
      isTaking = true;
      try {
        return lookUpName();
      } finally {
        isTaking = false;
      }
    },
  });
  // Keyed by the specifier as written and how it is used, because resolving the module's id is slow.
  modules.links.set([importer, specifier, ...Object.keys(uses)].join('\0'), link);
  return link;
}

/** Exports that record what is read of them. */
const noting = (exports: Record<string, unknown>, tell: (name: string) => void): Record<string, unknown> =>
  exports === null || (typeof exports !== 'object' && typeof exports !== 'function')
    ? exports
    : new Proxy(exports, {
        get(target, name) {
          if (typeof name === 'string' && name !== '__esModule') tell(name);
          return Reflect.get(target, name) as unknown;
        },
      });

// What `import * as` sees of a module that is a single value: its members, and the value as the default
// export.
function asNamespace(exports: Record<string, unknown>): unknown {
  if (exports === null || (typeof exports !== 'object' && typeof exports !== 'function'))
    return { default: exports };
  return Object.defineProperties({ default: exports }, Object.getOwnPropertyDescriptors(exports));
}

// A namespace object is a view that follows the swaps, if it was one when it was read.
const wholeView = { given: undefined };

function note({ id, importer, specifier }: Linking, name: string, line?: number): void {
  const double = isSwapped(id) ? (name === '*' ? wholeView : doubleOf(id(), name)) : undefined;
  const given = double && { value: double.given };
  modules.taken.set([importer, specifier, name, line ?? ''].join('\0'), {
    id,
    name,
    by: importer,
    line,
    given,
  });
}
