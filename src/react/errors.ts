import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';

/** Failures of React itself. */
export const registry = {
  'SIM-REACT-EARLY': (f: { version: string }): Report => ({
    head: `react-dom${f.version && ` ${f.version}`} was loaded before simulacra/react, so child components cannot be stubbed.`,
    there: ['Stubs need a bridge that React offers only while it loads.'],
    next: [
      "Import 'simulacra/react' above the component and anything else that loads react-dom,",
      "or load it for every test file:   setupFilesAfterEnv: ['simulacra/jest', 'simulacra/react']",
    ],
  }),
  'SIM-REACT-PRODUCTION': (f: { version: string; mode: string }): Report => ({
    head: `This is a production build of React${f.version && ` ${f.version}`}, which has no bridge for stubs.`,
    there: [`NODE_ENV is "${f.mode}".`],
    next: ['Run the tests with   NODE_ENV=test'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
