import type { Environment } from '../../core/environment';
import { ownerOfCall, runAs } from '../../core/ownership';
import { once } from '../../core/shared';
import { replaceFunction, type Page } from '../../core/replace';

type Handler = (...args: unknown[]) => unknown;
type Start = (handler: unknown, delay?: number, ...args: unknown[]) => unknown;
type Clear = (id?: unknown) => void;

/** Whose code threw an error that the page will report. */
export const throwers = once('throwers', () => new WeakMap<object, Environment>());

/** How to say that a timer is over, by its id. */
const open = once('timers', () => new Map<unknown, () => void>());

/**
 * Records each timer that a subject starts, and runs it on behalf of that subject. Other timers go to the
 * platform unchanged.
 */
export function watchTimers(page: Page): void {
  replaceFunction<Start>(page, 'setTimeout', (start) => watched(page, start, 'setTimeout', false));
  replaceFunction<Start>(page, 'setInterval', (start) => watched(page, start, 'setInterval', true));
  replaceFunction<Start>(page, 'requestAnimationFrame', (start) => {
    const watching = watched(page, start, 'requestAnimationFrame', false);
    return (handler) => watching(handler, frame);
  });
  for (const name of ['clearTimeout', 'clearInterval', 'cancelAnimationFrame']) {
    replaceFunction<Clear>(
      page,
      name,
      (clear) =>
        function (id) {
          if (open.size > 0) {
            open.get(id)?.();
            open.delete(id);
          }
          return Reflect.apply(clear, page, [id]);
        },
    );
  }
}

// An interval of 0 ms never ends, so only its first run is waited for.
const again = 4;

// The approximate time to the next frame, in milliseconds.
const frame = 16;

function watched(page: Page, start: Start, name: string, repeats: boolean): Start {
  return function (handler, delay, ...args) {
    const owner = typeof handler === 'function' ? ownerOfCall() : undefined;
    if (!owner) return Reflect.apply(start, page, [handler, delay, ...args]);
    // As on the platform, anything that is not a number counts as 0.
    const wait = Number(delay) || 0;
    const label = `${name} ${wait} ms`;
    let end = owner.work.beginTimer(label, wait);
    const id: unknown = Reflect.apply(start, page, [
      function (this: unknown, ...given: unknown[]) {
        end();
        if (repeats) open.set(id, (end = owner.work.beginTimer(label, Math.max(again, wait))));
        else open.delete(id);
        return runAs(owner, () => runNoting(owner, handler as Handler, this, given));
      },
      delay,
      ...args,
    ]);
    open.set(id, () => end());
    return id;
  };
}

let running = 0;

/** True while the code of a timer runs. */
export const isTimerRunning = (): boolean => running > 0;

function runNoting(owner: Environment, handler: Handler, self: unknown, args: unknown[]): unknown {
  running++;
  try {
    return handler.apply(self, args);
  } catch (error) {
    if (typeof error === 'object' && error !== null) throwers.set(error, owner);
    throw error;
  } finally {
    running--;
  }
}
