import { type Guess, type Impasse, aboutOf, failuresOf } from './impasse';
import { loadedFirst } from './loading';
import { mend } from './mend/index';
import type { Case, Draft } from './model';
import { type Known, timeValue, withDeclared } from './plan';
import type { Observation } from './run/observed';
import type { Failed } from './run/runner';
import type { Unsaid } from './said';
import type { Trial } from './trial';
import { wordsOf } from './words';

/** A state in which nothing is looked for. */
export const bare: Case = {
  key: 'given',
  title: 'comes up',
  given: { props: new Map(), network: new Map(), more: new Map() },
  checks: [],
};

const mostRounds = 14;

/** How often what is loaded for too long is loaded again. */
const mostWaited = 2;

/** Brings a component up: runs it, and adds what a failure says is missing. */
export class Raising {
  #waited = 0;

  constructor(
    /** More of it is known when it has run. */
    public known: Known,
    readonly trial: Trial,
  ) {}

  async raise(first: Draft): Promise<{ draft: Draft; observed: Observation } | Unsaid> {
    let draft = first;
    const guessed = new Set<string>();
    const guesses: Guess[] = [];
    for (const begun = this.trial.rounds; ;) {
      const tried = await this.trial.try({ ...draft, cases: [bare] });
      const observed = tried.seen.get(bare.title);
      this.known = withDeclared(this.known, observed?.declared);
      const isUp =
        observed?.isOver === true &&
        observed.threw === undefined &&
        tried.tests.every(({ hasPassed }) => hasPassed);
      if (isUp && tried.failed === undefined) return { draft: pruned(draft, observed), observed };
      let at: Impasse = { failures: failuresOf(observed), failed: wordsOf(tried, observed) };
      // What has not helped is taken back, and so is what has only led to something else.
      if (guesses.at(-1)?.about === aboutOf(at)) ({ draft } = guesses.pop()!);
      let mended = mend(this.known, draft, at.failures, guessed);
      const other = mended.done.length > 0 ? undefined : this.#otherwise(draft, tried.failed);
      while (!other && mended.done.length === 0 && guesses.length > 0) {
        ({ draft, at } = guesses.pop()!);
        mended = mend(this.known, draft, at.failures, guessed);
      }
      if ((!other && mended.done.length === 0) || this.trial.rounds - begun >= mostRounds)
        return {
          ...{ draft, failed: (guesses[0]?.at ?? at).failed },
          isHopeless: /^(gone|slow)$/.test(tried.failed?.kind ?? ''),
        };
      if (mended.isGuess) {
        guesses.push({ draft, at, about: aboutOf(at) });
        for (const one of mended.done) guessed.add(one);
      }
      draft = other ?? mended.draft;
    }
  }

  /** Other ways for what failed without a failure of ours: another order of loading, another time. */
  #otherwise(draft: Draft, failed: Failed | undefined): Draft | undefined {
    if (failed?.kind === 'file') return loadedFirst(this.known, draft);
    // No test has begun: it was loading, and what was compiled by then is kept.
    if (failed?.kind === 'slow' && failed.during === undefined && this.#waited++ < mostWaited) return draft;
    // What never comes to rest may do so on a clock that stands still.
    if (failed?.kind !== 'slow' || draft.given.more.has('time')) return undefined;
    const more = new Map([...draft.given.more, ['time', timeValue] as const]);
    return { ...draft, given: { ...draft.given, more } };
  }
}

/** Without routes that nobody asked for. */
function pruned(draft: Draft, { routes }: Observation): Draft {
  const network = new Map([...draft.given.network].filter(([route]) => routes.includes(route)));
  return { ...draft, given: { ...draft.given, network } };
}
