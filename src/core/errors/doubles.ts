import type { Report } from './error';
import { list } from '../print';

/** Failures of doubles. */
export const doubles = {
  'SIM-STANDIN-UNKNOWN': (f: {
    whose: string;
    name: string;
    known: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `"${f.name}" was asked of ${f.whose === 'a stand-in' ? f.whose : `a stand-in for ${f.whose}`}, which has no such member.`,
    there: [f.known.length ? `It has ${list(f.known, 20)}.` : 'It has no members at all.'],
    nearest: f.nearest,
    next: [`Add it to the stand-in:   standIn({ ${f.name}: … })`],
  }),
};
