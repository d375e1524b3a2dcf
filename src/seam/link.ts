import { makeView, readReal } from './view';
import { doubleOf, placedFor, room, type Link, type Uses } from './room';

export interface Linking {
  readonly importer: string;
  readonly id: () => string;
  readonly uses: Uses;
  /** The original's exports; loads them where that can be done at once. */
  real(): Record<string | symbol, unknown>;
  need(name: string): Promise<void> | undefined;
  readonly isCommon: boolean;
}

/** Makes the look-up a rewritten file has for one module. */
export function makeLink(linking: Linking): Link {
  const { id, importer, uses, real, isCommon } = linking;
  let seen = -1;
  let current: Record<string, unknown>;
  let isSwapped = false;
  const refresh = () => {
    isSwapped = isSwappedNow(linking);
    current = (isSwapped ? makeView({ id: id(), importer, uses, real, isCommon }) : real()) as typeof current;
    seen = room.generation;
    return current;
  };
  const lookUp = () => (seen === room.generation ? current : refresh());
  let whole: { readonly of: unknown; readonly made: unknown } | undefined;
  const link = Object.assign(lookUp, {
    importer,
    id,
    uses,
    need: linking.need,
    byDefault: () => {
      const now = lookUp();
      return isSwapped ? now['default'] : readReal(now, 'default', isCommon);
    },
    whole: () => {
      const now = lookUp();
      if (isSwapped || !isCommon || now['__esModule']) return now;
      if (whole?.of !== now) whole = { of: now, made: asNamespace(now) };
      return whole.made;
    },
    taken: (name: string, lookUpName: () => unknown, line: number) => {
      note(linking, name, line);
      return lookUpName();
    },
  });
  room.links.push(link);
  return link;
}

// Finding out what identifies a module takes its time, so nobody asks as long as nothing is swapped.
const isSwappedNow = ({ id }: Linking): boolean => room.placed.length > 0 && placedFor(id()).length > 0;

// What a module that is one value looks like to `import * as`: its members, and itself as the default.
function asNamespace(exports: Record<string, unknown>): unknown {
  if (exports === null || (typeof exports !== 'object' && typeof exports !== 'function'))
    return { default: exports };
  return Object.defineProperties({ default: exports }, Object.getOwnPropertyDescriptors(exports));
}

function note({ id, importer }: Linking, name: string, line: number): void {
  const isAll = name === '*';
  const double = room.placed.length > 0 && !isAll ? doubleOf(id(), name) : undefined;
  // All exports at once are a view that changes with the swaps, where it was one when it was taken.
  const isView = isAll && room.placed.length > 0 && placedFor(id()).length > 0;
  const given = double ? { value: double.given } : isView ? { value: undefined } : undefined;
  room.taken.push({ id, name, by: importer, line, given });
}
