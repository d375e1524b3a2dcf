import type { Environment } from '../../core/environment';
import { calledFrom } from '../../core/errors/called-from';
import { startTimer } from '../../core/host';
import { ownerOfCall, runAs } from '../../core/ownership';
import { placeOfCaller } from '../../core/origin';
import { once } from '../../core/shared';
import { replaceFunction, type Page } from '../../core/replace';
import { pageTime, type DueKind, type Scheduled, type VirtualClock } from '../../core/virtual-clock';

type Handler = (...args: unknown[]) => unknown;
type Start = (handler: unknown, delay?: number, ...args: unknown[]) => unknown;
type Clear = (id?: unknown) => void;

/** Whose code threw an error that the page will report. */
export const throwers = once('throwers', () => new WeakMap<object, Environment>());

/** How to say that a timer is over, by its id. */
const open = once('timers', () => new Map<unknown, () => void>());

/**
 * Records each timer that a subject starts, and runs it on behalf of that subject. Other timers go to the
 * platform unchanged. While there is a virtual clock, every timer goes to that instead.
 */
export function watchTimers(page: Page): void {
  const isProcess = !page['document'];
  const replace = (name: string, kind: DueKind) =>
    replaceFunction<Start>(page, name, (start) => {
      const watching = watched(page, start, name, kind);
      return function (handler, delay, ...args) {
        const { clock } = pageTime;
        if (!clock || typeof handler !== 'function') return watching(handler, delay, ...args);
        return scheduleOn(clock, { name, kind, handler: handler as Handler, delay, args, isProcess });
      };
    });
  replace('setTimeout', 'timeout');
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
          if (scheduled.size > 0 && cancelScheduled(id)) return undefined;
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

function watched(page: Page, start: Start, name: string, kind: DueKind): Start {
  const isOfFrame = kind === 'frame';
  return function (handler, delay, ...args) {
    const owner = typeof handler === 'function' ? ownerOfCall() : undefined;
    if (!owner || kind === 'idle') return Reflect.apply(start, page, [handler, delay, ...args]);
    // As on the platform, anything that is not a number counts as 0.
    const wait = isOfFrame ? frame : Number(delay) || 0;
    const label = `${name} ${wait} ms`;
    let end = owner.work.beginTimer(kind, label, wait);
    const id: unknown = Reflect.apply(start, page, [
      function (this: unknown, ...given: unknown[]) {
        end();
        if (kind === 'interval')
          open.set(id, (end = owner.work.beginTimer(kind, label, Math.max(again, wait))));
        else open.delete(id);
        return runAs(owner, () => runNoting(owner, handler as Handler, this, given));
      },
      wait,
      ...args,
    ]);
    open.set(id, () => end());
    return id;
  };
}

let running = 0;

/** True while the code of a timer runs. */
export const isTimerRunning = (): boolean => running > 0;

function runNoting(
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

// zone.js puts many frames of its own between a call and ours.
const depthOfStack = () => ('Zone' in globalThis ? 16 : 6);

/** What is scheduled on the virtual clock, by the id that its caller has. */
const scheduled = once('scheduled', () => new Map<number, Scheduled>());
// Higher than any id of the page's own.
const ids = once('scheduled-ids', () => ({ last: 2 ** 40 }));

interface Asked {
  readonly name: string;
  readonly kind: DueKind;
  readonly handler: Handler;
  readonly delay: unknown;
  readonly args: readonly unknown[];
  /** True for Node's own timers, which are objects. */
  readonly isProcess: boolean;
}

// The most that a page waits for, in milliseconds. What is longer runs at once.
const longest = 2 ** 31 - 1;
// From how many timers that start each other a page waits at least 4 ms.
const deepest = 5;

function scheduleOn(clock: VirtualClock, asked: Asked): unknown {
  const { name, kind, args, isProcess } = asked;
  const owner = ownerOfCall();
  const calledAt = clock.remembersPlaces ? calledFrom(name, scheduleOn, depthOfStack()) : undefined;
  const wait = delayOf(clock, asked, calledAt);
  const id = ++ids.last;
  const handler = bound(asked.handler, name);
  const given = () =>
    kind === 'frame'
      ? [clock.now()]
      : kind === 'idle'
        ? [{ didTimeout: false, timeRemaining: () => 50 }]
        : args;
  const run = () => {
    if (kind !== 'interval') scheduled.delete(id);
    runScheduled(owner, handler, given());
  };
  scheduled.set(
    id,
    clock.schedule({
      kind,
      delay: wait,
      run,
      owner,
      calledAt,
      label: kind === 'frame' || kind === 'idle' ? name : `${name} ${wait} ms`,
      every: kind === 'interval' ? Math.max(again, wait) : undefined,
      from: owner?.running(),
    }),
  );
  return isProcess ? nodeTimer(id) : id;
}

function delayOf(clock: VirtualClock, { kind, delay }: Asked, calledAt: Error | undefined): number {
  if (kind === 'frame') return clock.toFrame;
  if (kind === 'idle') return 1;
  const wait = Math.trunc(Number(delay)) || 0;
  const held = wait > longest || wait < 0 ? 0 : wait;
  if (held >= again || clock.level < deepest) return held;
  // A page clamps here. A package's own scheduler may have no other way to go on, so it is not clamped.
  return calledAt && placeOfCaller(calledAt) === undefined ? held : again;
}

interface Zones {
  readonly current: { wrap(work: Handler, name: string): Handler };
}

// With zone.js around the page's timers, ours are outside of its view.
function bound(handler: Handler, name: string): Handler {
  const { Zone: zones } = globalThis as { Zone?: Zones };
  return zones ? zones.current.wrap(handler, name) : handler;
}

function runScheduled(owner: Environment | undefined, handler: Handler, args: readonly unknown[]): void {
  const isUp = owner?.state === 'up';
  const work = () => void runNoting(owner, handler, undefined, [...args]);
  try {
    if (isUp) runAs(owner, work);
    else work();
  } catch (error) {
    if (isUp) owner.onUncaught(error);
    // As an error of a timer of the page's own. After the end of the clock it is our doing that it runs.
    else if (pageTime.clock)
      startTimer(0, () => {
        throw error;
      });
  }
}

function cancelScheduled(id: unknown): boolean {
  const number = Number(id);
  const found = scheduled.get(number);
  if (!found) return false;
  found.isOver = true;
  scheduled.delete(number);
  return true;
}

/** A timer as Node has it. @see https://nodejs.org/api/timers.html#class-timeout */
function nodeTimer(id: number): object {
  const timer = {
    ref: () => timer,
    unref: () => timer,
    hasRef: () => true,
    refresh: () => timer,
    close: () => (cancelScheduled(id), timer),
    [Symbol.toPrimitive]: () => id,
  };
  return timer;
}

/**
 * Gives up what is still scheduled when a virtual clock ends. A package that never hears from its timers may
 * stay in a state that the next test finds, so its timers run once more; those of the user's own files do not.
 */
export function endScheduled(clock: VirtualClock): void {
  const left = clock.scheduled;
  scheduled.clear();
  for (const one of left) {
    one.isOver = true;
    const isOfPackage = one.calledAt !== undefined && placeOfCaller(one.calledAt) === undefined;
    if (one.kind === 'answer' || one.kind === 'interval' || !isOfPackage) continue;
    if (one.at <= clock.now()) startTimer(0, one.run);
    else one.run();
  }
}
