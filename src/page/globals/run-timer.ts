import type { Environment } from '../../core/environment';
import { once } from '../../core/shared';

export type Handler = (...args: unknown[]) => unknown;

/** Whose code threw an error that the page will report. */
export const throwers = once('throwers', () => new WeakMap<object, Environment>());

// An interval of 0 ms never ends, so only its first run is waited for.
export const again = 4;

let running = 0;

/** True while the code of a timer runs. */
export const isTimerRunning = (): boolean => running > 0;

/** Runs the code of a timer, and remembers whose error it throws. */
export function runNoting(
  owner: Environment | undefined,
  handler: Handler,
  self: unknown,
  args: unknown[],
): unknown {
  running++;
  try {
    return handler.apply(self, args);
  } catch (error) {
    if (owner && typeof error === 'object' && error !== null) throwers.set(error, owner);
    throw error;
  } finally {
    running--;
  }
}
