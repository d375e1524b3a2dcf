import { placeIn } from '../core/origin';
import { readClock } from '../core/host';
import { pageTime } from '../core/page-time';
import { printSpan } from '../core/spans';
import type { DueKind, Scheduled } from '../core/virtual-clock';
import type { Ground } from './ground';

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
export function printScheduled(one: Scheduled): string {
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
