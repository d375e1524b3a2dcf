import type { Draft } from './model';
import type { FailureSeen, Observation } from './run/observed';

/** What failed, of a draft that did not come up. */
export interface Impasse {
  readonly failures: readonly FailureSeen[];
  readonly failed: readonly string[];
}

/** A draft before something was tried that may help. */
export interface Guess {
  readonly draft: Draft;
  readonly at: Impasse;
  readonly about: string;
}

/** What two failures have in common that are one. */
export const aboutOf = ({ failures: [failure] }: Impasse): string => {
  if (!failure) return '';
  const { code, fields, thrown, message } = failure;
  const logs = fields['logs'] === undefined ? undefined : JSON.stringify(fields['logs']);
  return `${code} ${thrown?.message ?? logs ?? String(fields['threw'] ?? message.split('\n')[0])}`;
};

export const failuresOf = (seen: Observation | undefined): readonly FailureSeen[] => [
  ...(seen?.threw ? [seen.threw] : []),
  ...(seen?.failures ?? []),
];
