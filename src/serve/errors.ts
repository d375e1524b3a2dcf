import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

/** Failures of what is served. */
export const registry = {
  'SIM-SERVE-FILE': (f: { file: string; why: string; nearest?: string | undefined }): Report => ({
    head: `${f.file} cannot be served: ${f.why}.`,
    nearest: f.nearest,
    next: [
      'A file holds routes (a module whose default export they are, or a function that makes them), an OpenAPI document (.yaml, .json), a schema of GraphQL (.graphql, .json), or a recorded session (.har).',
    ],
  }),
  'SIM-SERVE-STATE': (f: {
    given: string;
    states: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `"${f.given}" is no state of a route.`,
    there: [`The states are ${list(f.states)}.`],
    nearest: f.nearest,
    next: ["For all routes:   held     For one:   'GET /api/hives=failing 404', 'GET /api/hives=slow 5s'"],
  }),
  'SIM-SERVE-PORT': (f: { host: string; port: number; why: string }): Report => ({
    head: `Nothing can listen on port ${f.port} of ${f.host}: ${f.why}.`,
    next: ['Take another one:   --port 4101     or one that is free:   --port 0'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
