import { refusing, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { count, list } from '../core/print';

/** Failures of surveying components. */
export const registry = {
  'SIM-SURVEY-MISSING': (f: { asked: string; nearest: readonly string[]; root: string }): Report => ({
    head: `There is no file, folder or component "${f.asked}".`,
    there: [`Files and names are looked for from ${f.root}.`],
    nearest: f.nearest[0] && `simulacra survey ${f.nearest[0]}`,
    next: f.nearest.length > 1 ? [`Also near:   ${f.nearest.slice(1).join('   ')}`] : [],
  }),
  'SIM-SURVEY-NONE': (f: {
    file: string;
    exports: readonly string[];
    importers: readonly string[];
  }): Report => ({
    head: `No component was found in ${f.file}.`,
    there: [f.exports.length > 0 ? `It exports ${list(f.exports, 8)}.` : 'It exports nothing.'],
    next:
      f.importers.length > 0
        ? [`Take a component that uses it:   simulacra survey ${f.importers[0]}`]
        : ['Name a file with a component, or a folder to see all of them.'],
  }),
  'SIM-SURVEY-WHICH': (f: { asked: string; choices: readonly string[] }): Report => ({
    head: `"${f.asked}" stands for ${count(f.choices.length, 'component')}.`,
    there: f.choices.map((choice) => `simulacra survey ${choice}`),
    next: ['Name one of them.'],
  }),
  'SIM-SURVEY-UNREAD': (f: { file: string; line: number; why: string }): Report => ({
    head: `${f.file} cannot be read: ${f.why}.`,
    there: f.line > 1 ? [`At ${f.file}:${f.line}.`] : [],
    next: ['Correct it, or survey another file.'],
  }),
  'SIM-SURVEY-SINCE': (f: { ref: string; why: string }): Report => ({
    head: `What was there at "${f.ref}" cannot be read: ${f.why}.`,
    next: ['Name a commit, a tag or a branch of the repository:   simulacra survey src --since main'],
  }),
  'SIM-SURVEY-WRITE': (f: { file: string; why: string }): Report => ({
    head: `${f.file} cannot be written: ${f.why}.`,
    next: ['Name a file in a folder that is there and may be written to.'],
  }),
};

export const refuse: Refuse<typeof registry> = refusing(registry);
