import type { Environment } from '../../core/environment';
import { calledFrom } from '../../core/errors/called-from';
import { startTimer } from '../../core/host';
import { placeOfCaller } from '../../core/origin';
import { depthOfStack } from '../../core/left';
import { ownerOfCall, runAs } from '../../core/ownership';
import { pageTime } from '../../core/page-time';
import { once } from '../../core/shared';
import type { DueKind, VirtualClock } from '../../core/virtual-clock';
import { again, runNoting, type Handler } from './run-timer';

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

/** Starts a timer on a virtual clock. @returns its id, as the page has it */
export function scheduleOn(clock: VirtualClock, asked: Asked): unknown {
  const { name, kind, args, isProcess } = asked;
  const owner = ownerOfCall();
  const calledAt = clock.takePlace()
    ? calledFrom(name, scheduleOn, depthOfStack(kind !== 'interval'))
    : undefined;
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
    if (kind !== 'interval') pageTime.timers.delete(id);
    runScheduled(owner, handler, given());
  };
  pageTime.timers.set(
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

/** Calls a timer off. @returns false for one of the page's own */
export function cancelScheduled(id: unknown): boolean {
  const number = Number(id);
  const found = pageTime.timers.get(number);
  if (!found) return false;
  found.isOver = true;
  pageTime.timers.delete(number);
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
  pageTime.timers.clear();
  for (const one of left) {
    one.isOver = true;
    const isOfPackage = one.calledAt !== undefined && placeOfCaller(one.calledAt) === undefined;
    if (one.kind === 'answer' || one.kind === 'interval' || !isOfPackage) continue;
    if (one.at <= clock.now()) startTimer(0, one.run);
    else one.run();
  }
}
