import { calledFrom } from '../core/errors/called-from';
import { directed, directing } from '../core/director';
import { nearest } from '../core/near';
import { print } from '../core/print';
import { guessSpan, printSpan, readSpan } from '../core/spans';
import { makeStep } from '../core/step';
import type { AnyFunction } from '../core/spy';
import { pageTime } from '../core/page-time';
import { VirtualClock } from '../core/virtual-clock';
import type { Environment } from '../core/environment';
import { nextTurn } from '../core/host';
import { allZones, enterZone, isZone } from '../page/globals/zone';
import { readPageClock } from '../page/globals/dates';
import { endScheduled } from '../page/globals/scheduled';
import { explained } from './explained';
import { refuse } from './errors';
import { activityOf } from './rest';
import { printDue, printScheduled, whatIsDue, type Due } from './scheduled';
import type { Ground } from './ground';

/** The time a subject lives in. */
export type TimeOption = 'virtual' | VirtualTime;

/** Virtual time, in detail. */
export interface VirtualTime {
  /** The date the test begins at: a `Date`, milliseconds since 1970, or a text (ISO 8601). The present otherwise. */
  readonly startsAt?: Date | string | number;
  /** The time zone, by its IANA name: `'Europe/Paris'`. */
  readonly zone?: string;
}

/**
 * The time of a subject. With `time: 'virtual'` it stands still until the test moves it.
 *
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': later(4000, hives) }, time: 'virtual' });
 * await board.time.advance('4s');
 * expect(board).toShow(text('Anemone'));
 */
export interface Time {
  /** The date and time it is now. */
  readonly now: Date;
  /** What is scheduled, the next first. */
  readonly due: readonly Due[];
  /**
   * Moves the clock. What is due on the way runs in order, and the page comes to rest after each.
   *
   * @param span milliseconds, or a text: `'250ms'`, `'4s'`, `'1h 30min'`
   * @throws SIM-TIME-REAL, SIM-TIME-SPAN
   */
  advance(span: number | string): Promise<void>;
  /** Moves the clock to a date. @throws SIM-TIME-REAL, SIM-TIME-DATE, SIM-TIME-PAST */
  advanceTo(date: Date | string | number): Promise<void>;
  /** Moves the clock until nothing is scheduled. @throws SIM-TIME-REAL, SIM-TIME-ENDLESS */
  runOut(): Promise<void>;
}

/** @returns milliseconds since 1970 @throws SIM-TIME-DATE */
function readDate(asked: string, date: unknown, calledAt: Error): number {
  const read =
    typeof date === 'number' || date instanceof Date
      ? Number(date)
      : typeof date === 'string'
        ? Date.parse(date)
        : NaN;
  if (!Number.isNaN(read)) return read;
  const [year, month, day] = typeof date === 'string' ? (date.match(/\d+/g) ?? []) : [];
  const isNear = year?.length === 4 && Number(month) <= 12 && Number(day) <= 31;
  const near = isNear ? `${year}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}T08:00Z` : undefined;
  return refuse('SIM-TIME-DATE', { asked, date: print(date), nearest: near }, { calledAt });
}

/** Gives a subject the time it asks for. @throws SIM-TIME-ZONE, SIM-TIME-DATE, SIM-TIME-SHARED */
export function enterTime(environment: Environment, asked: TimeOption | undefined, calledAt: Error): void {
  const known = pageTime.clock;
  if (asked === undefined && !known) return;
  const { zone, startsAt } = typeof asked === 'object' ? asked : {};
  if (zone !== undefined && !isZone(zone))
    refuse(
      'SIM-TIME-ZONE',
      { zone: print(zone), nearest: nearest(zone, allZones()), isKnown: false },
      { calledAt },
    );
  if (known) refuseOther(environment, known, { zone, startsAt }, calledAt);
  else pageTime.clock = makeClock({ zone, startsAt }, calledAt);
  pageTime.users.add(environment);
  environment.chronicle.restart();
  environment.sandbox.onTakeDown(() => leaveTime(environment));
}

function makeClock({ zone, startsAt }: VirtualTime, calledAt: Error): VirtualClock {
  const leave = zone === undefined ? undefined : enterZone(zone);
  if (zone !== undefined && !leave)
    refuse('SIM-TIME-ZONE', { zone: print(zone), isKnown: true }, { calledAt });
  try {
    // A text that names no zone is read in the one that was asked for.
    const begin = startsAt === undefined ? Date.now() : readDate('startsAt', startsAt, calledAt);
    pageTime.leaveZone = leave;
    return new VirtualClock(readPageClock(), begin, zone);
  } catch (error) {
    leave?.();
    throw error;
  }
}

function refuseOther(
  { name }: Environment,
  clock: VirtualClock,
  { zone, startsAt }: VirtualTime,
  calledAt: Error,
): void {
  const others = [...pageTime.users].map((user) => user.name);
  const differs =
    zone !== undefined && zone !== clock.zone
      ? `the time zone ${zone}`
      : startsAt !== undefined &&
          ![clock.date(), clock.epoch].includes(readDate('startsAt', startsAt, calledAt))
        ? 'another date'
        : undefined;
  if (differs) refuse('SIM-TIME-SHARED', { subject: name, others, differs }, { calledAt });
}

function leaveTime(environment: Environment): void {
  const { clock, users } = pageTime;
  users.delete(environment);
  if (!clock || users.size > 0) return;
  pageTime.clock = undefined;
  // Code that measures spans must not see time go back.
  pageTime.ahead += Math.max(0, clock.now() - readPageClock());
  pageTime.leaveZone?.();
  pageTime.leaveZone = undefined;
  endScheduled(clock);
}

/** The time of a subject, as its test sees it. */
export function makeTime(stage: Ground): Time {
  const step = (
    asked: string,
    call: AnyFunction,
    work: (clock: VirtualClock, at: Error) => Promise<void>,
  ) => {
    const calledAt = calledFrom(asked, call);
    const moved = explained(stage, calledAt, () => {
      stage.refuseGone(`${asked}()`, calledAt);
      const { clock } = pageTime;
      if (!clock)
        return refuse('SIM-TIME-REAL', { subject: stage.setting.name, asked: `${asked}()` }, { calledAt });
      return inLine(clock, () => directed(asked, () => work(clock, calledAt)));
    });
    return makeStep(asked, calledAt, moved);
  };
  const time: Time = {
    get now() {
      return new Date(pageTime.clock?.date() ?? Date.now());
    },
    get due() {
      return whatIsDue(stage);
    },
    advance: (span) =>
      step('time.advance', time.advance, async (clock, calledAt) => {
        const asked = 'time.advance';
        const milliseconds = readSpan(span);
        if (milliseconds === undefined)
          refuse('SIM-TIME-SPAN', { asked, span: print(span), nearest: guessSpan(span) }, { calledAt });
        await moveTo(stage, clock, clock.now() + milliseconds!, true);
      }),
    advanceTo: (date) =>
      step('time.advanceTo', time.advanceTo, async (clock, calledAt) => {
        const asked = 'time.advanceTo';
        const to = readDate(asked, date, calledAt);
        const now = new Date(clock.date()).toISOString();
        if (to < clock.date()) refuse('SIM-TIME-PAST', { asked, now, date: print(date) }, { calledAt });
        await moveTo(stage, clock, clock.now() + (to - clock.date()), true);
      }),
    runOut: () => step('time.runOut', time.runOut, (clock, at) => runOut(stage, clock, at)),
  };
  return time;
}

// Steps that overlap run one after the other, so that each span counts in full.
function inLine(clock: VirtualClock, work: () => Promise<void>): Promise<void> {
  const run = clock.line.then(work);
  clock.line = run.catch(() => undefined);
  return run;
}

/**
 * Moves the clock, runs what is due on the way, and comes to rest after each.
 *
 * @param isAlone true for a step that does nothing else
 */
export async function moveTo(stage: Ground, clock: VirtualClock, to: number, isAlone = false): Promise<void> {
  await stage.moving(async () => {
    let isFirst = isAlone;
    await stage.restBefore();
    stage.chronicle.add('moved', 'the clock', { detail: printSpan(to - clock.now()), trigger: true });
    for (let { next } = clock; next && next.at <= to; { next } = clock) {
      await runNext(stage, clock, isFirst);
      isFirst = false;
    }
    clock.moveTo(to);
    await stage.atRest();
  });
}

/** Runs what is due next, and comes to rest if it changed anything. */
export async function runNext(stage: Ground, clock: VirtualClock, isFirst = false): Promise<void> {
  const { current } = directing;
  if (!current || !clock.next) return runOne(stage, clock);
  return current.tick(printScheduled(clock.next), isFirst, () => runOne(stage, clock));
}

async function runOne(stage: Ground, clock: VirtualClock): Promise<void> {
  const before = activityOf(stage);
  clock.runNext();
  // All promises it resolved have run after a turn.
  await nextTurn();
  // Most of very many timers change nothing. A framework's own scope takes longer than they do.
  if (activityOf(stage) > before + 1 || stage.isBusy) await stage.atRest();
}

const most = 1000;
async function runOut(stage: Ground, clock: VirtualClock, calledAt: Error): Promise<void> {
  const counts = new Map<string, number>();
  await stage.moving(async () => {
    await stage.restBefore();
    stage.chronicle.add('moved', 'the clock', { detail: 'until nothing is due', trigger: true });
    for (let { next } = clock; next; { next } = clock) {
      const who = printScheduled(next);
      const ran = (counts.get(who) ?? 0) + 1;
      counts.set(who, ran);
      if (ran > most) {
        const due = whatIsDue(stage).map(printDue);
        const fields = { subject: stage.setting.name, ran: most, culprit: who, due };
        refuse('SIM-TIME-ENDLESS', fields, { calledAt });
      }
      await runNext(stage, clock, counts.size === 1 && ran === 1);
    }
  });
}
