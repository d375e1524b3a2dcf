import { calledFrom } from '../core/errors/called-from';
import { directed } from '../core/director';
import { nearest } from '../core/near';
import { placeIn } from '../core/origin';
import { print } from '../core/print';
import { guessSpan, printSpan, readSpan } from '../core/spans';
import { makeStep } from '../core/step';
import type { AnyFunction } from '../core/spy';
import { pageTime } from '../core/page-time';
import { VirtualClock, type DueKind, type Scheduled } from '../core/virtual-clock';
import type { Environment } from '../core/environment';
import { nextTurn, readClock } from '../core/host';
import { allZones, enterZone, isZone } from '../page/globals/zone';
import { readPageClock } from '../page/globals/dates';
import { endScheduled } from '../page/globals/scheduled';
import { explained } from './explained';
import { refuse } from './errors';
import { activityOf } from './rest';
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

/** Something that is scheduled and has not run yet. */
export interface Due {
  readonly kind: DueKind;
  /** What was asked: `setTimeout 300 ms`, `GET /api/hives`. */
  readonly what: string;
  /** Milliseconds from now. */
  readonly in: number;
  readonly at: Date;
  /** The component that made it, where that is known. */
  readonly from: string | undefined;
  /** The line of your code that made it: `AlertTicker.tsx:12`. Known in virtual time only. */
  readonly line: string | undefined;
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
        await moveTo(stage, clock, clock.now() + milliseconds!);
      }),
    advanceTo: (date) =>
      step('time.advanceTo', time.advanceTo, async (clock, calledAt) => {
        const asked = 'time.advanceTo';
        const to = readDate(asked, date, calledAt);
        const now = new Date(clock.date()).toISOString();
        if (to < clock.date()) refuse('SIM-TIME-PAST', { asked, now, date: print(date) }, { calledAt });
        await moveTo(stage, clock, clock.now() + (to - clock.date()));
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

/** Moves the clock, runs what is due on the way, and comes to rest after each. */
export async function moveTo(stage: Ground, clock: VirtualClock, to: number): Promise<void> {
  await stage.moving(async () => {
    await stage.restBefore();
    stage.chronicle.add('moved', 'the clock', { detail: printSpan(to - clock.now()), trigger: true });
    for (let { next } = clock; next && next.at <= to; { next } = clock) await runNext(stage, clock);
    clock.moveTo(to);
    await stage.atRest();
  });
}

/** Runs what is due next, and comes to rest if it changed anything. */
export async function runNext(stage: Ground, clock: VirtualClock): Promise<void> {
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
      await runNext(stage, clock);
    }
  });
}

const words: Readonly<Record<DueKind, string>> = {
  timeout: 'a time-out',
  interval: 'an interval',
  frame: 'an animation frame',
  idle: 'an idle callback',
  signal: 'the time-out of a signal',
  answer: 'the answer',
};

const lineOf = ({ calledAt }: Scheduled): string | undefined => calledAt && placeIn(calledAt);

/** Something scheduled, in words: `an interval of 4s (AlertTicker, AlertTicker.tsx:12)`. */
function printScheduled(one: Scheduled): string {
  const where = [one.from, lineOf(one)].filter(Boolean).join(', ');
  const what =
    one.kind === 'answer'
      ? `the answer to ${one.label}`
      : `${words[one.kind]}${one.kind === 'frame' || one.kind === 'idle' ? '' : ` of ${printSpan(one.delay)}`}`;
  return where ? `${what} (${where})` : what;
}

/** Something that is due, in words. */
export const printDue = ({ kind, what, in: left, from, line }: Due): string => {
  const where = [from, line].filter(Boolean).join(', ');
  const name = kind === 'answer' ? `the answer to ${what}` : `${words[kind]} (${what})`;
  return `${name}${where ? `, made by ${where},` : ''} in ${printSpan(roundedUp(left))}`;
};

/** Milliseconds, rounded up: real time passes while a message is written. */
export const roundedUp = (milliseconds: number): number => {
  const step = pageTime.clock ? 1 : milliseconds > 1000 ? 1000 : 100;
  return Math.ceil(milliseconds / step) * step;
};

/** What is scheduled for a subject, the next first. */
export function whatIsDue({ environment }: Ground): Due[] {
  const { clock } = pageTime;
  if (clock)
    return clock.scheduled.map((one) => ({
      kind: one.kind,
      what: one.label,
      in: Math.round((one.at - clock.now()) * 1000) / 1000,
      at: new Date(clock.date() + (one.at - clock.now())),
      from: one.from,
      line: lineOf(one),
    }));
  return environment.work.timers.map(({ what, label, due }) => {
    const left = Math.max(0, Math.round(due! - readClock()));
    return {
      kind: what!,
      what: label,
      in: left,
      at: new Date(Date.now() + left),
      from: undefined,
      line: undefined,
    };
  });
}
