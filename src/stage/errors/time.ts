import type { Report } from '../../core/errors/error';
import { count } from '../../core/print';

/** Something that is due, in words: `an interval of 4s (AlertTicker.tsx:12)`. */
export interface Told {
  readonly due: readonly string[];
}

/** Failures of virtual time. */
export const time = {
  'SIM-TIME-REAL': (f: { subject: string; asked: string }): Report => ({
    head: `${f.asked} moves a virtual clock, and time is real for ${f.subject}.`,
    next: [`Write   isolate(${f.subject}, { time: 'virtual' })`],
  }),
  'SIM-TIME-SPAN': (f: { asked: string; span: string; nearest?: string | undefined }): Report => ({
    head: `${f.asked}(${f.span}): that is no span of time.`,
    there: ["A span is milliseconds from 0, or a text: '250ms', '4s', '1h 30min', '2d'."],
    nearest: f.nearest && `${f.asked}(${f.nearest})`,
    next: f.nearest ? [] : [`${f.asked}('4s')`],
  }),
  'SIM-TIME-DATE': (f: { asked: string; date: string; nearest?: string | undefined }): Report => ({
    head: `${f.asked}: ${f.date} is no date.`,
    there: ["A date is a Date, milliseconds since 1970, or a text as ISO 8601 has it: '2031-05-04T08:00Z'."],
    nearest: f.nearest && `'${f.nearest}'`,
  }),
  'SIM-TIME-PAST': (f: { asked: string; now: string; date: string }): Report => ({
    head: `${f.asked}(${f.date}): that moment has passed. It is ${f.now}, and a clock never goes back.`,
    next: ["To begin earlier, write   time: { startsAt: '…' }"],
  }),
  'SIM-TIME-ZONE': (f: { zone: string; nearest?: string | undefined; isKnown: boolean }): Report => ({
    head: f.isKnown ? `This process cannot be given the time zone ${f.zone}.` : `${f.zone} is no time zone.`,
    there: [
      f.isKnown
        ? 'A worker thread and a browser keep the zone they were started with.'
        : "A time zone has a name of the IANA's: 'Europe/Paris', 'America/New_York', 'UTC'.",
    ],
    nearest: f.nearest && `zone: '${f.nearest}'`,
    next: f.isKnown ? ['Start the process in that zone:   TZ=' + f.zone] : [],
  }),
  'SIM-TIME-SHARED': (f: { subject: string; others: readonly string[]; differs: string }): Report => ({
    head: `${f.subject} asks for ${f.differs}, and shares a page and its clock with ${f.others.join(', ')}.`,
    there: ['Subjects that are up at once have one time.'],
    next: ["Take the other down first, or write   time: 'virtual'   to share its clock."],
  }),
  'SIM-TIME-ENDLESS': (f: Told & { subject: string; ran: number; culprit: string }): Report => ({
    head: `runOut() never ends: ${f.culprit} ran ${count(f.ran, 'time')} and is due again.`,
    there: [...f.due.slice(0, 5).map((one) => `Due: ${one}`)],
    next: ["Move by a span instead:   subject.time.advance('4s')"],
  }),
};
