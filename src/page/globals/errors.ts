import { explain } from '../../core/errors';
import { ownerOfCall } from '../../core/ownership';
import { printThrown } from '../../core/print';
import { shared } from '../../core/shared';
import { isTimerRunning, throwers } from './run-timer';

/**
 * Errors of listeners and timers reach nothing but the window's own event for them; rejected promises do in a
 * browser (in Node they reach the runner, which fails the test).
 */
export function watchErrors(window: Window): void {
  window.addEventListener('error', (event) => {
    if (take((event as { error: unknown }).error ?? event.message)) event.preventDefault();
  });
  window.addEventListener('unhandledrejection', (event) => {
    if (take((event as { reason: unknown }).reason)) event.preventDefault();
  });
}

/**
 * Tells the subject an error belongs to of it, where it came out of a timer and a framework caught it.
 *
 * @returns false for an error that came from elsewhere
 */
export const takeFromTimer = (error: unknown): boolean =>
  (typeof error === 'object' && error !== null && throwers.has(error) && take(error)) ||
  (isTimerRunning() && take(error));

/** @returns false for an error that belongs to no subject */
function take(error: unknown): boolean {
  const thrower = typeof error === 'object' && error !== null ? throwers.get(error) : undefined;
  const owner = thrower ?? ownerOfCall(() => true);
  if (!owner) return false;
  if (owner.state === 'down') {
    const threw = printThrown(error);
    shared.strays.push(explain('SIM-LATE-THREW', { subject: owner.name, threw }, { cause: error }));
  } else owner.onUncaught(error);
  return true;
}
