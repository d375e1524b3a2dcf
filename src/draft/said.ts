import type { Outcome } from './outcome';
import type { Draft } from './model';
import type { Observation } from './run/observed';

export type Made = Pick<Outcome, 'text' | 'hasPassed' | 'tests' | 'done' | 'left' | 'rounds'>;

/** What can be said of a component: the cases of the draft. */
export interface Said {
  readonly draft: Draft;
  readonly observed: Observation;
  readonly left: readonly string[];
}

export interface Unsaid {
  readonly draft: Draft;
  readonly failed: readonly string[];
  /** True where nothing that is given can help: it ends its process, or takes all of its time. */
  readonly isHopeless?: boolean;
}

/** True where something is said that does not only come from what was put inside of it. */
export const isTelling = ({ draft }: Said): boolean =>
  draft.cases.some(({ checks }) => checks.some(({ isPutIn }) => isPutIn !== true));

/** The richest first, as it shows most; and the plain one. */
export const ends = (up: readonly Said[]): readonly Said[] => [
  ...new Set([...up.slice(-1), ...up.slice(0, 1)]),
];
