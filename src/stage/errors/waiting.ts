import type { Report } from '../../core/errors/error';
import { count } from '../../core/print';
import type { Sought } from '../../page/errors';

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
  'SIM-WAIT-OVER': (
    f: Sought & { waited: number; comes: boolean; there: string[]; pending: readonly string[] },
  ): Report => ({
    head: f.comes
      ? `After ${f.waited} ms still nothing on the page ${f.what}.`
      : `After ${f.waited} ms something on the page still ${f.what}.`,
    there: [...f.there, ...(f.pending.length ? [`Not answered yet: ${f.pending.join(', ')}.`] : [])],
    next: ['If it really takes longer, wait with   { within: 3000 }   (milliseconds).'],
  }),
};
