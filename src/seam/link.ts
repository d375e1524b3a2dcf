import { makeView, readReal } from './view';
import { doubleOf, isSwapped, room, type Exports, type Link } from './room';
import type { Uses } from './uses';

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
  readonly isCommon: boolean;
}

/** Makes the look-up a rewritten file has for one module. */
export function makeLink(linking: Linking): Link {
  const { id, importer, uses, real, isCommon } = linking;
  let seen = -1;
  let current: Record<string, unknown>;
  let isView = false;
  const refresh = () => {
    isView = isSwapped(id);
    current = (isView ? makeView({ id: id(), importer, uses, real, isCommon }) : real()) as typeof current;
    seen = room.generation;
    return current;
  };
  const lookUp = () => (seen === room.generation ? current : refresh());
  let whole: { readonly of: unknown; readonly made: unknown } | undefined;
  const link = Object.assign(lookUp, {
    importer,
    specifier: linking.specifier,
    id,
    uses,
    need: linking.need,
    loaded: linking.loaded,
    byDefault: () => {
      const now = lookUp();
      return isView ? now['default'] : readReal(now, 'default', isCommon);
    },
    whole: () => {
      const now = lookUp();
      if (isView || !isCommon || now['__esModule']) return now;
      if (whole?.of !== now) whole = { of: now, made: asNamespace(now) };
      return whole.made;
    },
    taken: (name: string, lookUpName: () => unknown, line: number) => {
      note(linking, name, line);
      return lookUpName();
    },
  });
  // By what it leads to and how it is used, as it is written: what identifies the module takes long to ask.
  room.links.set([importer, linking.specifier, ...Object.keys(uses)].join('\0'), link);
  return link;
}

// What a module that is one value looks like to `import * as`: its members, and itself as the default.
function asNamespace(exports: Record<string, unknown>): unknown {
  if (exports === null || (typeof exports !== 'object' && typeof exports !== 'function'))
    return { default: exports };
  return Object.defineProperties({ default: exports }, Object.getOwnPropertyDescriptors(exports));
}

// All exports at once are a view that changes with the swaps, where it was one when it was taken.
const wholeView = { given: undefined };

function note({ id, importer }: Linking, name: string, line: number): void {
  const double = isSwapped(id) ? (name === '*' ? wholeView : doubleOf(id(), name)) : undefined;
  room.taken.push({ id, name, by: importer, line, given: double && { value: double.given } });
}
