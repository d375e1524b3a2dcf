import { directing } from '../core/director';
import type { Environment } from '../core/environment';
import { nextTurn, pause, readClock } from '../core/host';
import type { OpenItem } from '../core/open-work';
import { pageTime } from '../core/page-time';
import type { Pace } from './ground';
import { refuse } from './errors';

/** In how many turns something may happen before it is taken to never end. */
const mostTurns = 500;
/** How long work may be under way with nothing happening, in milliseconds. */
const patience = 5000;
/** How long a framework may say that it has work and do none of it, in milliseconds. */
const frameworkPatience = 1000;

/** What rest is decided for. */
export interface Resting {
  readonly environment: Environment;
  readonly adapter: Pace;
  readonly container: Element | undefined;
  /** Grows with each rendering that reached the page. */
  readonly renders: number;
  /** To be called before each turn. */
  onTurn(): void;
}

/**
 * Brings a subject to rest. It runs turns until the framework has nothing scheduled, no open work is in
 * progress, and nothing happened during a whole turn. It does not wait for held answers, or for what is due
 * later.
 *
 * @throws SIM-REST-NEVER, SIM-SUBJECT-GONE where the test ends meanwhile
 */
export async function comeToRest(resting: Resting): Promise<void> {
  const { environment, adapter, container } = resting;
  const { gate, work } = environment;
  // Timers that start from now on and are due later do not count.
  const begin = readClock();
  let lastChange = begin;
  let quiet = 0;
  // After an answer more turns are needed: platforms deliver a body in pieces that we cannot see.
  let needed = 1;
  gate.stepsRunning++;
  try {
    for (let turn = 0; ;) {
      if (environment.state === 'down') return;
      resting.onTurn();
      const before = activityOf(resting);
      if (!gate.isEmpty) needed = 3;
      const timers = work.timersDue(begin);
      await pass(adapter, timers.length > 0 ? passTimers : () => takeTurn(environment));
      const happened = activityOf(resting) !== before;
      const now = readClock();
      if (happened) {
        lastChange = now;
        if (++turn > mostTurns) refuseNever(resting, mostTurns, lastOf(environment));
      }
      const isPending =
        container !== undefined &&
        adapter.isPending?.(container) === true &&
        now - lastChange < frameworkPatience;
      const open = [...(work.isActive ? work.active : []), ...work.timersDue(begin)];
      const isArriving = !gate.isEmpty && !directing.current;
      const isBusy = isPending || isArriving || open.length > 0 || pageTime.clock?.isDue === true;
      if (isBusy && now - lastChange > patience) refuseNever(resting, turn, wordOpen(open));
      quiet = happened || isBusy ? 0 : quiet + 1;
      if (quiet >= needed) {
        const id = directing.current?.next(environment);
        if (id === undefined) return;
        gate.open([id]);
        quiet = 0;
      }
      refuseClosing(environment);
    }
  } finally {
    gate.stepsRunning--;
  }
}

/** Lets time pass for a framework. */
export const pass = (adapter: Pace, turn: () => Promise<void>): Promise<void> =>
  adapter.pass ? adapter.pass(turn) : adapter.settle(turn);

/** Grows with everything that happens to a subject. */
export const activityOf = ({ environment: { gate, work }, renders }: Resting): number =>
  work.changes + gate.passed + renders + (pageTime.clock?.ran ?? 0);

async function takeTurn({ gate }: Environment): Promise<void> {
  if (!directing.current) gate.open();
  // What is due on a virtual clock counts as part of the turn. One at a time, as a page runs its timers.
  if (pageTime.clock?.isDue) pageTime.clock.runNext();
  await nextTurn();
}

const passTimers = () => pause(0);

function refuseNever({ environment }: Resting, turns: number, busy: string): never {
  refuse('SIM-REST-NEVER', { subject: environment.name, turns, busy });
}

function lastOf({ chronicle, work }: Environment): string {
  const timer = work.timersDue(0)[0];
  if (timer) return timer.label;
  const { last } = chronicle;
  return last ? `${last.kind} ${last.what}` : 'nothing that could be seen';
}

const wordOpen = (open: readonly OpenItem[]) =>
  open.map(({ kind, label }) => `${kind} ${label}`).join(', ') || 'nothing that could be seen';

// The test has ended without waiting, so the work stops.
function refuseClosing({ state, name }: Environment): void {
  if (state !== 'up') refuse('SIM-SUBJECT-GONE', { subject: name, asked: 'A step that was not awaited' });
}
