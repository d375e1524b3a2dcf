import { nearest } from '../core/near';
import { guessSpan, printSpan, readSpan } from '../core/spans';
import { refuse } from './errors';

/** The states that a served route can be switched to. */
export const stateNames = ['data', 'held', 'slow', 'empty', 'failing'] as const;

/** What a route is switched to. */
export type RouteState =
  /** `data`: as it is written. `held`: not answered until it is switched on. `empty`: every list of it without items. */
  | { readonly name: 'data' | 'held' | 'empty' }
  /** Answered after some milliseconds. */
  | { readonly name: 'slow'; readonly delay: number }
  /** Answered with a status, and problem details. */
  | { readonly name: 'failing'; readonly status: number };

const usual = { delay: 3000, status: 503 };

/** Reads a state: `held`, `slow 5s`, `failing 404`. @throws SIM-SERVE-STATE */
export function readState(given: string): RouteState {
  const [, name = '', more = ''] = /^(\S+)\s*(.*)$/.exec(given.trim()) ?? [];
  const known = stateNames.find((one) => one === name);
  if (known === 'slow') {
    const delay = more === '' ? usual.delay : readSpan(/^\d+$/.test(more) ? Number(more) : more);
    if (delay !== undefined) return { name: 'slow', delay };
  } else if (known === 'failing') {
    const status = more === '' ? usual.status : Number(more);
    if (Number.isInteger(status) && status >= 400 && status <= 599) return { name: 'failing', status };
  } else if (known && more === '') return { name: known };
  const meant = known ?? nearest(name, stateNames);
  const guess = meant === 'slow' && more ? (guessSpan(more)?.replace(/'/g, '') ?? '') : '';
  return refuse('SIM-SERVE-STATE', {
    given,
    states: ['data', 'held', 'slow', 'slow 5s', 'empty', 'failing', 'failing 404 (400 to 599)'],
    nearest: meant && `${meant} ${guess}`.trim(),
  });
}

/** A state as it is read. */
export function printState(state: RouteState): string {
  if (state.name === 'slow' && state.delay !== usual.delay) return `slow ${printSpan(state.delay)}`;
  if (state.name === 'failing' && state.status !== usual.status) return `failing ${state.status}`;
  return state.name;
}

const data: RouteState = { name: 'data' };

/** The states of all routes, while they are switched. */
export class States {
  readonly #of = new Map<string, RouteState>();
  #all: RouteState = data;
  readonly #waiting = new Set<() => void>();
  readonly #counts = new Map<string, number>();

  of(route: string): RouteState {
    return this.#of.get(route) ?? this.#all;
  }

  /** Switches one route; all of them where none is named. */
  set(state: RouteState, route?: string): void {
    if (route === undefined) {
      this.#of.clear();
      this.#all = state;
    } else this.#of.set(route, state);
    for (const wake of this.#waiting) wake();
    this.#waiting.clear();
  }

  /** How many wait for a route. */
  waiting(route: string): number {
    return this.#counts.get(route) ?? 0;
  }

  /**
   * Waits as the states of some routes say.
   *
   * @param changed called when somebody begins or ceases to wait
   * @returns the state in which to answer
   */
  async pass(routes: readonly string[], signal: AbortSignal, changed: () => void): Promise<RouteState> {
    const states = () => routes.map((route) => this.of(route));
    const isHeld = () => !signal.aborted && states().some(({ name }) => name === 'held');
    const count = (by: number) => {
      for (const route of routes) this.#counts.set(route, this.waiting(route) + by);
      changed();
    };
    if (isHeld()) {
      count(1);
      while (isHeld()) await this.#changed(signal);
      count(-1);
    }
    for (const state of states()) if (state.name === 'slow') await pause(state.delay, signal);
    const found =
      states().find(({ name }) => name === 'failing') ?? states().find(({ name }) => name === 'empty');
    return found ?? data;
  }

  /** Resolves when a state changes, or a signal says that nobody waits any more. */
  #changed(signal: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      this.#waiting.add(resolve);
      signal.addEventListener('abort', () => {
        this.#waiting.delete(resolve);
        resolve();
      });
    });
  }
}

const pause = (milliseconds: number, signal: AbortSignal) =>
  new Promise<void>((resolve) => {
    if (signal.aborted) return resolve();
    const timer = setTimeout(resolve, milliseconds);
    signal.addEventListener('abort', () => resolve(clearTimeout(timer)));
  });

/** The same without the items of its lists; undefined for what has no list. */
export function emptied(value: unknown): unknown {
  if (Array.isArray(value)) return [];
  if (typeof value !== 'object' || value === null) return undefined;
  let found = false;
  const entries = Object.entries(value).map(([key, one]) => {
    const empty = emptied(one);
    if (empty !== undefined) found = true;
    return [key, empty ?? (one as unknown)];
  });
  return found ? Object.fromEntries(entries) : undefined;
}
