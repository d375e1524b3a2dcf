import type { Report } from '../../core/errors/error';
import { count } from '../../core/print';
import type { Sought } from '../../page/errors';

/** How a wait ended. */
export interface Waited {
  /** `over`: the time was up. `still`: nothing could change any more. `later`: what comes next comes too late. */
  readonly why: 'over' | 'still' | 'later';
  /** Milliseconds. */
  readonly waited?: number | undefined;
  readonly pending: readonly string[];
  /** What is due next, in words. */
  readonly due?: string | undefined;
  /** How long until then: `4s`. */
  readonly span?: string | undefined;
  readonly isVirtual: boolean;
  readonly subject: string;
}

const whenOf = ({ why, waited }: Waited): string =>
  why === 'over'
    ? `After ${waited} ms`
    : why === 'still'
      ? 'Nothing can change any more, and'
      : `Nothing will change within ${waited} ms, and`;

const stillOpen = ({ pending, due, why }: Waited): string[] => [
  ...(why === 'still' && pending.length === 0
    ? ['The page is at rest: no request, timer or promise of the component is under way.']
    : []),
  ...(due ? [`Due next: ${due}.`] : []),
  ...(pending.length ? [`Not answered yet: ${pending.join(', ')}.`] : []),
];

const nextOf = ({ why, span, isVirtual, subject, pending }: Waited): string[] =>
  why === 'later'
    ? [
        isVirtual
          ? `Let it come:   await subject.time.advance('${span}')`
          : `Let time pass without waiting:   isolate(${subject}, { time: 'virtual' }), then   await subject.time.advance('${span}')`,
      ]
    : why === 'over'
      ? ['If it really takes longer, wait with   { within: 3000 }   (milliseconds).']
      : pending.length
        ? ['Release the held answer before you wait, or in the same   Promise.all([ … ]).']
        : [];

/** Failures of matchers and of waiting. */
export const waiting = {
  'SIM-SHOWN': (f: Sought & { found: string[]; times: number; wanted?: number | undefined }): Report => ({
    head:
      f.wanted === undefined
        ? `Something on the page ${f.what}, and nothing should.`
        : `${count(f.times, 'element')} on the page ${f.times === 1 ? f.what : f.what.replace(/^has/, 'have').replace(/^is/, 'are')}; the test expects ${f.wanted}.`,
    there: [...f.found.slice(0, 8)],
  }),
  'SIM-NEVER-SHOWN': (f: Sought & { moments: number; there: string[]; wanted: boolean }): Report => ({
    head: f.wanted
      ? `At none of ${count(f.moments, 'moment')} anything on the page ${f.what.replace(/^has/, 'had').replace(/^is/, 'was')}.`
      : `At one of ${count(f.moments, 'moment')} something on the page ${f.what.replace(/^has/, 'had').replace(/^is/, 'was')}.`,
    there: f.there,
  }),
  'SIM-WAIT-OVER': (f: Sought & Waited & { comes: boolean; there: string[] }): Report => ({
    head: `${whenOf(f)} ${f.comes ? `still nothing on the page ${f.what}` : `something on the page still ${f.what}`}.`,
    there: [...f.there, ...stillOpen(f)],
    next: nextOf(f),
  }),
  'SIM-WAIT-CHECK': (f: Waited & { threw?: string | undefined }): Report => ({
    head: `${whenOf(f)} the check of eventually() still ${f.threw === undefined ? 'returns false' : 'fails'}.`,
    there: [...(f.threw === undefined ? [] : [f.threw]), ...stillOpen(f)],
    next: nextOf(f),
  }),
};
