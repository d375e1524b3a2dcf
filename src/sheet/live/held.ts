import { markOf } from '../../core/mark';
import type { Held } from '../../core/hold';
import type { StateData } from '../../stage/state';

/** An answer that a state is given only when somebody says so, and with what. */
export interface HeldAnswer {
  readonly answer: Held<unknown>;
  /** What other states are answered there, by their names. */
  readonly offers: readonly { readonly name: string; readonly value: unknown }[];
}

/** The answers that a state holds back, wherever its options have them. */
export function heldIn({ options }: StateData, states: readonly StateData[]): HeldAnswer[] {
  const found = new Map<object, readonly string[]>();
  const search = (value: unknown, path: readonly string[]): void => {
    if (typeof value !== 'object' || value === null || found.has(value) || path.length > 5) return;
    if (markOf(value) === 'hold') return void found.set(value, path);
    const prototype: unknown = Object.getPrototypeOf(value);
    if (prototype !== Object.prototype && prototype !== null && !Array.isArray(value)) return;
    for (const [key, inside] of Object.entries(value)) search(inside, [...path, key]);
  };
  for (const [option, value] of Object.entries(options)) search(value, [option]);
  return [...found].map(([answer, path]) => ({
    answer: answer as Held<unknown>,
    offers: offersOf(path, states),
  }));
}

/** What states have in that place of their options, each value once. */
function offersOf(path: readonly string[], states: readonly StateData[]): HeldAnswer['offers'] {
  const offers = new Map<string, HeldAnswer['offers'][number]>();
  for (const { name, options } of states) {
    const value = path.reduce<unknown>(
      (inside, key) => (inside as Record<string, unknown> | undefined)?.[key],
      options,
    );
    const told = isPlain(value) ? JSON.stringify(value) : undefined;
    if (told !== undefined && !offers.has(told)) offers.set(told, { name, value });
  }
  return [...offers.values()];
}

/** True for data: what JSON can hold, and no answer of another kind. */
function isPlain(value: unknown): boolean {
  if (value === undefined || typeof value === 'function') return false;
  if (typeof value !== 'object' || value === null) return true;
  if (markOf(value) !== undefined) return false;
  return Array.isArray(value) || Object.getPrototypeOf(value) === Object.prototype;
}
