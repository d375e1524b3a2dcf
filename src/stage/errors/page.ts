import type { Report } from '../../core/errors/error';

/** Failures of what the page is like. */
export const page = {
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
