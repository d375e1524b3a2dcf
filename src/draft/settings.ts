import { nearest } from '../core/near';
import { print } from '../core/print';
import { refuse } from './errors';

/** How components are drafted: what `simulacra.config.ts` says under `draft`, and what a call says more. */
export interface DraftSettings {
  /** True for declared states in place of tests. */
  readonly states?: boolean;
  /** How long one run of a draft may take, in seconds; 30 unless given. */
  readonly within?: number;
  /** How much memory the process that runs it may take, in MB; 1024 unless given. */
  readonly memory?: number;
  /** How many components of a folder are drafted at once; one less than there are cores unless given. */
  readonly processes?: number;
}

const isCount = (value: unknown): boolean => typeof value === 'number' && Number.isFinite(value) && value > 0;
const tests: {
  readonly [K in keyof Required<DraftSettings>]: readonly [is: (value: unknown) => boolean, wanted: string];
} = {
  states: [(value) => typeof value === 'boolean', 'true or false'],
  within: [isCount, 'a number above 0'],
  memory: [isCount, 'a number above 0'],
  processes: [isCount, 'a number above 0'],
};

/**
 * Reads what a configuration says, and what a call says more.
 *
 * @throws SIM-DRAFT-OPTION
 */
export function readSettings(configured: DraftSettings | undefined, called: DraftSettings): DraftSettings {
  check(configured ?? {}, (option) => `draft.${option} in simulacra.config`);
  check(called, (option) => `--${option}`);
  return { ...configured, ...called };
}

function check(given: DraftSettings, nameOf: (option: string) => string): void {
  for (const [option, value] of Object.entries(given)) {
    const test = tests[option as keyof DraftSettings] as (typeof tests)['states'] | undefined;
    if (!test) {
      const names = Object.keys(tests);
      const near = nearest(option, names);
      refuse('SIM-DRAFT-OPTION', {
        option: 'draft in simulacra.config',
        given: option,
        wanted: names.join(', '),
        nearest: near,
      });
    }
    const [is, wanted] = test;
    if (!is(value))
      refuse('SIM-DRAFT-OPTION', {
        option: nameOf(option),
        given: typeof value === 'string' ? value : print(value, 60),
        wanted,
      });
  }
}
