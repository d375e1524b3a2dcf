import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

/** Failures of recorded sessions. */
export const registry = {
  'SIM-HAR': (f: { why: string; at: string }): Report => ({
    head: `What was given is no recorded session: ${f.why}.`,
    there: f.at ? [`At ${f.at}`] : [],
    next: [
      'It takes an HTTP archive of version 1.2, as text or what it holds:   { log: { version, entries } }',
    ],
  }),
  'SIM-HAR-BODY': (f: {
    route: string;
    sent: string;
    recorded: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.route} was not recorded with what was sent now: ${f.sent}`,
    there: [`It was recorded with ${list(f.recorded, 5)}.`],
    nearest: f.nearest,
    next: ['Record the session again, or answer it by hand: a route after ...fromHar(…) goes before.'],
  }),
  'SIM-HAR-CONTENT': (f: { route: string; at: string }): Report => ({
    head: `The session has no content for ${f.route}.`,
    there: [`At ${f.at}`],
    next: ['Record it again with the contents of responses, or answer it by hand.'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
