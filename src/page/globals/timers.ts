import { calledFrom } from '../../core/errors/called-from';
import { depthOfStack } from '../../core/left';
import { ownerOfCall, runAs } from '../../core/ownership';
import { once } from '../../core/shared';
import { replaceFunction, type Page } from '../../core/replace';
import { again, runNoting, type Handler } from './run-timer';
import { cancelScheduled, scheduleOn } from './scheduled';
import { promisedBy } from './timer-modules';
import { pageTime } from '../../core/page-time';
import type { DueKind } from '../../core/virtual-clock';

type Start = (handler: unknown, delay?: number, ...args: unknown[]) => unknown;
type Clear = (id?: unknown) => void;

/** How to say that a timer is over, by its id. Frames have ids of their own, which may be the same numbers. */
const { timers, frames } = once('timers', () => ({
  timers: new Map<unknown, () => void>(),
  frames: new Map<unknown, () => void>(),
}));

/**
 * Records each timer that a subject starts, and runs it on behalf of that subject. Other timers go to the
 * platform unchanged. While there is a virtual clock, every timer goes to that instead.
 */
export function watchTimers(page: Page): void {
  const isProcess = !page['document'];
  const replace = (name: string, kind: DueKind, more?: (start: Start) => PropertyDescriptorMap) => {
    const wrap = (start: Start): Start => {
      const watching = watched(page, start, name, kind);
      return function (handler, delay, ...args) {
        const { clock } = pageTime;
        if (!clock || typeof handler !== 'function') return watching(handler, delay, ...args);
        return scheduleOn(clock, { name, kind, handler: handler as Handler, delay, args, isProcess });
      };
    };
    replaceFunction<Start>(page, name, wrap, more);
  };
  replace('setTimeout', 'timeout', promisedBy);
  replace('setInterval', 'interval');
  replace('requestAnimationFrame', 'frame');
  // What we supply ourselves uses the page's own timers, and is not made before it is needed.
  if (Object.getOwnPropertyDescriptor(page, 'requestIdleCallback')?.value)
    replace('requestIdleCallback', 'idle');
  for (const name of ['clearTimeout', 'clearInterval', 'cancelAnimationFrame', 'cancelIdleCallback']) {
    if (!Object.getOwnPropertyDescriptor(page, name)?.value) continue;
    replaceFunction<Clear>(
      page,
      name,
      (clear) =>
        function (id) {
          if (pageTime.timers.size > 0 && cancelScheduled(id)) return undefined;
          const open = /Frame/.test(name) ? frames : timers;
          if (open.size > 0) {
            open.get(id)?.();
            open.delete(id);
          }
          return Reflect.apply(clear, page, [id]);
        },
    );
  }
}

// The approximate time to the next frame, in milliseconds.
const frame = 16;

function watched(page: Page, start: Start, name: string, kind: DueKind): Start {
  const isOfFrame = kind === 'frame';
  const open = isOfFrame ? frames : timers;
  const watching: Start = function (handler, delay, ...args) {
    const owner = typeof handler === 'function' ? ownerOfCall() : undefined;
    if (!owner || kind === 'idle') return Reflect.apply(start, page, [handler, delay, ...args]);
    // As on the platform, anything that is not a number counts as 0.
    const wait = isOfFrame ? frame : Number(delay) || 0;
    const label = `${name} ${wait} ms`;
    const made = {
      what: label,
      from: owner.running(),
      calledAt: calledFrom(name, watching, depthOfStack(kind !== 'interval')),
    };
    let end = owner.work.beginTimer(kind, label, wait, made);
    const id: unknown = Reflect.apply(start, page, [
      function (this: unknown, ...given: unknown[]) {
        end();
        if (kind === 'interval')
          open.set(id, (end = owner.work.beginTimer(kind, label, Math.max(again, wait), made)));
        else open.delete(id);
        return runAs(owner, () => runNoting(owner, handler as Handler, this, given));
      },
      wait,
      ...args,
    ]);
    open.set(id, () => end());
    return id;
  };
  return watching;
}
