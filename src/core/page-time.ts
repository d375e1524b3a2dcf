import type { Environment } from './environment';
import { readClock } from './host';
import { once } from './shared';
import type { Scheduled, VirtualClock } from './virtual-clock';

/** The time of the page. Subjects that are up at once share a page, so they share its clock. */
export const pageTime = once('time', () => ({
  /** The virtual clock, while some subject has asked for one. */
  clock: undefined as VirtualClock | undefined,
  /** Milliseconds that the page's clock is ahead, because virtual time has passed and a clock never goes back. */
  ahead: 0,
  /** Gives the time zone back that the clock has changed. */
  leaveZone: undefined as (() => void) | undefined,
  /** The subjects that use the virtual clock. */
  users: new Set<Environment>(),
  /** What is scheduled on it, by the id that its caller has. */
  timers: new Map<number, Scheduled>(),
}));

/** Milliseconds on the page's clock, virtual or real. It never goes back. */
export const readPageTime = (): number => pageTime.clock?.now() ?? readClock();
