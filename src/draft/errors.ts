import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

/** Failures of drafting tests. */
export const registry = {
  'SIM-DRAFT-RUNNER': (f: { why: string; install?: string }): Report => ({
    head: `A draft cannot be run in this project: ${f.why}.`,
    there: ['A draft is run until it passes, by the Jest of the project itself.'],
    next: f.install
      ? [`Install it:   npm install --save-dev ${f.install}`]
      : ['Correct it, and draft again.'],
  }),
  'SIM-DRAFT-EXISTS': (f: { file: string }): Report => ({
    head: `${f.file} is there already, and no draft has written it.`,
    there: ['Nothing was written over it.'],
    next: ['Print the draft:   simulacra draft … --print', 'or write over it:   simulacra draft … --force'],
  }),
  'SIM-DRAFT-EXPORT': (f: { component: string; file: string }): Report => ({
    head: `${f.component} is not exported by ${f.file}, so no test can import it.`,
    next: ['Export it, or draft a component that uses it.'],
  }),
  'SIM-DRAFT-BARE': (f: { component: string; file: string; by: readonly string[] }): Report => ({
    head: `${f.component} in ${f.file} has no template and no render function, so it shows nothing.`,
    there: ['It holds options for other components.'],
    next: [
      f.by.length > 0
        ? `Draft one that is made of it:   ${list(f.by, 3)}`
        : 'Give it a template, or draft another component.',
    ],
  }),
  'SIM-DRAFT-OPTION': (f: {
    option: string;
    given: string;
    wanted: string;
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.option} was given "${f.given}".`,
    nearest: f.nearest,
    next: [`It takes ${f.wanted}.`],
  }),
  'SIM-DRAFT-WRITE': (f: { file: string; why: string }): Report => ({
    head: `${f.file} cannot be written: ${f.why}.`,
    next: ['Print the draft instead:   simulacra draft … --print'],
  }),
  'SIM-DRAFT-FOLDER': (f: { asked: string }): Report => ({
    head: `"${f.asked}" is a folder.`,
    next: [`Draft all components in it:   simulacra draft --all ${f.asked}`],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
