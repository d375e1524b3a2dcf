import type { Sandbox } from './sandbox';

/**
 * What must exist once in a process even where a bundle of this library is loaded twice (the ES
 * module and the CommonJS one, or two entries that each carry their own copy of the core).
 */
export interface Shared {
  /** Sandboxes that are still up, oldest first. */
  readonly sandboxes: Set<Sandbox>;
  /** Brings every live subject to rest; put here by the stage. */
  rest: (() => Promise<void>) | undefined;
  /** Answers that are ready and wait for the next turn of the stage. */
  readonly gate: (() => void)[];
  /** Grows with everything that happens; a turn in which it stays the same was a quiet one. */
  activity: number;
  /** True while the stage drives turns, and will open the gate by itself. */
  driving: number;
  /** What other rooms of the house keep for the whole process, by name. */
  readonly rooms: Record<string, unknown>;
}

const key = Symbol.for('simulacra');

export const shared: Shared = ((globalThis as Record<symbol, unknown>)[key] ??= {
  sandboxes: new Set(),
  rest: undefined,
  gate: [],
  activity: 0,
  driving: 0,
  rooms: {},
}) as Shared;
