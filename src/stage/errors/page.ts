import type { Report } from '../../core/errors/error';
import type { Violation } from '../accessible';

/** Failures of what the page is like. */
export const page = {
  'SIM-ACCESS': (f: { subject: string; violations: readonly Violation[] }): Report => ({
    head: `${f.subject} shows what not everyone can use: ${
      f.violations.length === 1 ? f.violations[0]!.help : `${f.violations.length} rules are broken`
    }.`,
    there: f.violations.flatMap(({ rule, criteria, elements }) =>
      elements.slice(0, 5).map(({ element, html, mend }) => {
        const what = element === html ? html : `${element}, ${html}`;
        const standard = criteria.length > 0 ? `, WCAG ${criteria.join(', ')}` : '';
        const first = mend.slice(0, 4).join('; ');
        return `${what} (${rule}${standard}): ${first}${mend.length > 4 ? '; …' : '.'}`;
      }),
    ),
    next: [
      `If it has to be so:   accessible: { axe, except: [${f.violations.map(({ rule }) => `'${rule}'`).join(', ')}] }`,
    ],
  }),
  'SIM-PAGE-SETTING': (f: { asked: string; given: string; wanted: string }): Report => ({
    head: `${f.asked} was given ${f.given}.`,
    there: [`It takes ${f.wanted}.`],
  }),
  'SIM-PAGE-SHARED': (f: { subject: string; other: string; setting: string }): Report => ({
    head: `${f.subject} asks for another "${f.setting}" of the page than ${f.other}, which is up at the same time.`,
    there: ['Subjects that are up at once share a page.'],
    next: [`Take ${f.other} down first:   await other.takeDown()`],
  }),
  'SIM-PAGE-REAL': (f: { asked: string; setting: string }): Report => ({
    head: `${f.asked}: in a real browser a script cannot change ${f.setting}.`,
    next: ['Set it in the driver of the browser or by a style, or run this test in a simulated page.'],
  }),
};
