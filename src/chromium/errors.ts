import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';

/** Failures of test files that run in a browser. */
export const registry = {
  'SIM-FILE-EMPTY': (f: { file: string }): Report => ({
    head: `${f.file} has no test.`,
    next: ["A test file calls it() at least once:   it('shows the hives', async () => { … })"],
  }),
  'SIM-FILE-SETUP': (f: { file: string; why: string }): Report => ({
    head: `${f.file}, which is loaded before each test file, cannot be loaded into a page: ${f.why}.`,
    next: [
      'A page loads standard modules (import, export). Write it as one, or leave it out of this project.',
    ],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
