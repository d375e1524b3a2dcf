import { refusing, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';

/** Failures of reading source files. */
export const registry = {
  'SIM-PARSER': (f: { needs: string; from: string }): Report => ({
    head: `Reading source files needs the package "${f.needs}", which cannot be loaded from ${f.from}.`,
    there: [
      'Only projects that swap modules or survey components need it, so it is not installed automatically.',
    ],
    next: [`Install it:   npm install --save-dev ${f.needs}`],
  }),
};

export const refuse: Refuse<typeof registry> = refusing(registry);
