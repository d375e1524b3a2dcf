import { markOf } from '../core/mark';
import { isArranged } from '../core/answers';
import { isSpy, spy, type AnswerOf, type AnyFunction } from '../core/spy';
import { moduleOf, isThunk } from './thunk';
import { calledFrom } from '../core/errors/called-from';
import { refuse } from './errors';
import { runnerHere } from './runner-here';
import type { Double } from './modules';

/** What a module exports instead, by name: for a function any answer, for anything else a value of its kind. */
export type Swapped<M> = {
  readonly [K in keyof M]?: M[K] extends AnyFunction ? AnswerOf<M[K]> : Widened<M[K]>;
};

// Widens the literal type of a constant.
type Widened<T> = T extends string ? string : T extends number ? number : T extends boolean ? boolean : T;

/** A module and what it exports instead; what {@link swap} returns. */
export interface Swap<M = object> {
  readonly simulacra: 'swap';
  readonly load: () => Promise<M>;
  readonly rest: 'real' | 'refused';
  readonly doubles: ReadonlyMap<string, Double>;
}

/**
 * Says what a module exports instead, while a subject is up. The subject, given as
 * `() => import('…')`, is loaded after that, so that the original is never run.
 *
 * @param load `() => import('…')`, which names the module; it is not called
 * @param exports by name, typed by the module: for a function any answer (a value, a function, `fail`,
 * `hold`, `later`, `inTurn`, `stream`), for anything else a value of its kind
 * @param options `rest`: what is not named stays `'real'` (the default), or is `'refused'` when it is used
 * @returns what the `swap` option takes
 * @throws SIM-SEAM-MISSING where the runner does not rewrite modules, SIM-SWAP-MODULE for what names no module
 * @example
 * const scale = swap(() => import('./useScale'), { useScale: { kilograms: 31.2, live: true } });
 * const feed = await isolate(() => import('./ScaleFeed'), { props: { hiveId: 'h1' }, swap: [scale] });
 * expect(feed).toShow(text('31.2 kg'));
 * expect(feed.given(scale).useScale.calls).toEqual([['h1']]);
 */
export function swap<M extends object>(
  load: () => Promise<M>,
  exports: Swapped<NoInfer<M>>,
  options: { readonly rest?: 'real' | 'refused' } = {},
): Swap<M> {
  checkSwap(load, exports);
  const given = exports as Record<string, unknown>;
  return {
    simulacra: 'swap',
    load,
    rest: options.rest ?? 'real',
    doubles: new Map(Object.keys(given).map((name) => [name, makeDouble(given[name], name)])),
  };
}

function checkSwap(load: unknown, exports: unknown): void {
  const calledAt = calledFrom('swap', swap);
  if (!isThunk(load)) {
    const isImport = typeof load === 'function' && /\bimport\b|\brequire\b/.test(String(load));
    if (isImport) refuse('SIM-SEAM-MISSING', { asked: 'swap()', ...runnerHere() }, { calledAt });
    refuse('SIM-SWAP-MODULE', { value: load }, { calledAt });
  }
  if (typeof exports !== 'object' || exports === null)
    refuse('SIM-SWAP-EXPORTS', { value: exports, specifier: moduleOf(load).specifier }, { calledAt });
}

export const isSwap = (value: unknown): value is Swap => markOf(value) === 'swap';

/*
 * Without the original nobody knows whether an export is a function that is to answer so, or
 * something else that is to be so: that is seen where it is used. A function, an arranged answer and a
 * spy leave no doubt.
 */
function makeDouble(given: unknown, name: string): Double {
  if (isSpy(given) || isComponent(given, name)) return { given, call: given, value: given };
  const call = spy(given as AnyFunction, name);
  if (typeof given === 'function') Object.assign(call, given);
  const isFunction = typeof given === 'function' || isArranged(given);
  return { given, call, value: isFunction ? call : given };
}

// A class cannot be called, and a component is recognized by identity, so both stay as they are.
const isComponent = (given: unknown, name: string): boolean =>
  typeof given === 'function' &&
  (/^[A-Z]/.test(name) || /^class\b/.test(Function.prototype.toString.call(given)) || '$$typeof' in given);
