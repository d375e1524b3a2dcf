import { reportRefusal } from '../core/ownership';
import { explain } from './errors';
import { readKind } from './kinds';
import { doubleOf, placedFor, type Double, type Exports } from './modules';
import { usage, type Uses } from './uses';

interface Viewed {
  readonly id: string;
  readonly importer: string;
  readonly uses: Uses;
  /** The original's exports, loaded by then. */
  real(): Exports;
  /** True for a module whose exports come as one value, which is also its default. */
  readonly isCommon: boolean;
}

/** A module's exports with what a test gave in their place; the original is reached for only when it is needed. */
export function makeView(viewed: Viewed): Record<string, unknown> {
  const { id } = viewed;
  const get = (name: string): unknown => {
    const double = doubleOf(id, name);
    if (double) return pick(double, name, viewed);
    refuseRest(viewed, name);
    return readReal(viewed.real(), name, viewed.isCommon);
  };
  return new Proxy<Record<string, unknown>>(
    {},
    {
      get: (_, name) =>
        typeof name === 'symbol'
          ? tagOf(name)
          : asksForModule(name)
            ? name === '__esModule' || undefined
            : get(name),
      has: (_, name) =>
        (typeof name === 'string' && doubleOf(id, name) !== undefined) || name in viewed.real(),
      ownKeys: () => [...new Set([...namesIn(id), ...(isRestRefused(id) ? [] : Object.keys(viewed.real()))])],
      getOwnPropertyDescriptor: (_, name) => ({
        value: typeof name === 'string' ? get(name) : undefined,
        ...{ enumerable: true, configurable: true, writable: true },
      }),
    },
  );
}

// A promise reads `then` of what it resolves to, and interop reads `__esModule`.
const asksForModule = (name: string) => name === '__esModule' || name === 'then';
const tagOf = (name: symbol) => (name === Symbol.toStringTag ? 'Module' : undefined);

const namesIn = (id: string) => placedFor(id).flatMap(({ doubles }) => [...doubles.keys()]);
const isRestRefused = (id: string) => placedFor(id).some(({ rest }) => rest === 'refused');

export const readReal = (real: Exports, name: string, isCommon: boolean): unknown =>
  name === 'default' && isCommon && !real['__esModule'] ? real : real[name];

/** A double as a file needs it, by what the file does with it. */
function pick(double: Double, name: string, { id, uses }: Viewed): unknown {
  if (double.call === double.value || uses[name] === usage.lookedInto) return double.value;
  if (uses[name] === usage.called || readKind(id, name) === 'function') return double.call;
  return double.value;
}

function refuseRest({ id, importer }: Viewed, name: string): void {
  const refusing = placedFor(id).find(({ rest }) => rest === 'refused');
  if (!refusing) return;
  const { specifier, doubles } = refusing;
  const error = explain('SIM-SWAP-REFUSED', { specifier, name, importer, given: [...doubles.keys()] });
  // The component may catch this error, so the test also gets it directly.
  reportRefusal(error);
  throw error;
}
