import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { type Seen, chooseCases } from './choose';
import { candidatesFor, varied, variedDraft } from './explore';
import type { DraftOptions } from './outcome';
import { type Guess, type Impasse, aboutOf, failuresOf } from './impasse';
import { swapLive } from './live';
import { loadedFirst } from './loading';
import { mend } from './mend/index';
import type { Case, Draft } from './model';
import { type Known, planDraft, timeValue } from './plan';
import { leaned, richerDrafts, watching } from './richer';
import type { Observation } from './run/observed';
import type { DraftRunner, Failed, Tried } from './run/runner';
import { type Made, type Said, type Unsaid, ends, isTelling } from './said';
import { firstLines, nothingTrue, whyNot, wordsOf } from './words';
import { headOf } from './write/fields';
import { formatWith } from './write/format';
import { type Writing, printStates, printTests } from './write/print';
import { isDrafted, signed, updated } from './write/update';

/** One draft on its way: brought up, brought into its states, written, and run as it is written. */
export class Making {
  readonly #done: string[] = [];
  #rounds = 0;

  constructor(
    readonly known: Known,
    readonly runner: DraftRunner,
    readonly writing: Writing,
    readonly options: DraftOptions,
  ) {}

  async make(): Promise<Made> {
    const first = await this.#say(planDraft(this.known));
    if (!('failed' in first) && isTelling(first)) return this.#settle(first);
    const up = 'failed' in first ? [] : [first];
    for (const richer of richerDrafts(this.known, first.draft)) {
      if (this.#rounds >= mostOfAll) break;
      const said = await this.#say(richer);
      if ('failed' in said) continue;
      if (isTelling(said)) return this.#settle(await this.#lean(first.draft, said));
      up.push(said);
    }
    // What is only put inside of it is shown at least.
    const shown = up.find(({ draft }) => draft.cases.length > 0);
    if (shown) return this.#settle(shown);
    for (const { draft, observed } of ends(up)) {
      const watched = observed.isEmpty ? undefined : watching(this.known, draft);
      const said = watched && (await this.#say(watched));
      if (said && !('failed' in said) && said.draft.cases.length > 0)
        return this.#settle(await this.#lean(first.draft, said));
    }
    return this.#failed(first.draft, 'failed' in first ? first.failed : nothingTrue(first.observed));
  }

  /** Without what was given in vain. */
  async #lean(first: Draft, said: Said): Promise<Said> {
    const lean = leaned(first, said);
    const again = lean && (await this.#say(lean));
    return again && !('failed' in again) && again.draft.cases.length > 0 ? again : said;
  }

  /** Brings it up, and finds what is true of each of its states. */
  async #say(planned: Draft): Promise<Said | Unsaid> {
    let base = await this.#bringUp(planned);
    if ('failed' in base) return base;
    // What comes from a channel that nobody sends on is not there.
    const swapped = base.observed.isEmpty ? swapLive(this.known, base.draft) : undefined;
    if (swapped) base = await this.#bringUp(swapped);
    if ('failed' in base) return base;
    const { seen, left } = await this.#explore(base.draft, base.observed);
    return { draft: { ...base.draft, cases: chooseCases(base.draft, seen) }, observed: base.observed, left };
  }

  /** Runs it, and adds what a failure tells is missing, until it comes up. */
  async #bringUp(first: Draft): Promise<{ draft: Draft; observed: Observation } | Unsaid> {
    let draft = first;
    const guessed = new Set<string>();
    const guesses: Guess[] = [];
    for (const begun = this.#rounds; ;) {
      const tried = await this.#try({ ...draft, cases: [bare] });
      const observed = tried.seen.get(bare.title);
      const isUp =
        observed?.isOver === true &&
        observed.threw === undefined &&
        tried.tests.every(({ hasPassed }) => hasPassed);
      if (isUp && tried.failed === undefined) return { draft: this.#pruned(draft, observed), observed };
      let at: Impasse = { failures: failuresOf(observed), failed: wordsOf(tried, observed) };
      if (process.env['DRAFT_DEBUG'])
        console.error(
          'DEBUG',
          JSON.stringify(at.failures.map(({ code, fields }) => ({ code, fields }))).slice(0, 3000),
          at.failed,
          guesses.map(({ done }) => done),
        );
      // What has not helped is taken back, and so is what has only led to something else.
      if (guesses.at(-1)?.about === aboutOf(at)) ({ draft } = this.#takeBack(guesses.pop()!));
      let mended = mend(this.known, draft, at.failures, guessed);
      const other = mended.done.length > 0 ? undefined : this.#otherwise(draft, tried.failed);
      while (!other && mended.done.length === 0 && guesses.length > 0) {
        const back = this.#takeBack(guesses.pop()!);
        ({ draft, at } = back);
        mended = mend(this.known, draft, at.failures, guessed);
      }
      if ((!other && mended.done.length === 0) || this.#rounds - begun >= mostRounds)
        return { draft, failed: (guesses[0]?.at ?? at).failed };
      if (mended.isGuess) {
        guesses.push({ draft, at, about: aboutOf(at), done: mended.done });
        for (const one of mended.done) guessed.add(one);
      }
      this.#done.push(...mended.done);
      draft = other ?? mended.draft;
    }
  }

  #takeBack(guess: Guess): Guess {
    for (const one of guess.done) this.#done.splice(this.#done.lastIndexOf(one), 1);
    return guess;
  }

  /** Other ways for what failed without a failure of ours: another order of loading, another time. */
  #otherwise(draft: Draft, failed: Failed | undefined): Draft | undefined {
    if (failed?.kind === 'file' && /before initialization/.test(failed.message))
      return loadedFirst(this.known, draft);
    // What never comes to rest may do so on a clock that stands still.
    if (failed?.kind !== 'slow' || draft.given.more.has('time')) return undefined;
    const more = new Map([...draft.given.more, ['time', timeValue] as const]);
    return { ...draft, given: { ...draft.given, more } };
  }

  /** Without routes that nobody asked for. */
  #pruned(draft: Draft, { routes }: Observation): Draft {
    const network = new Map([...draft.given.network].filter(([route]) => routes.includes(route)));
    return { ...draft, given: { ...draft.given, network } };
  }

  /** Brings it into all states that may differ. */
  async #explore(
    draft: Draft,
    observed: Observation,
  ): Promise<{ seen: readonly Seen[]; left: readonly string[] }> {
    const candidates = candidatesFor(this.known, draft, observed.routes);
    const [plain, other] = [
      await this.#try({ ...draft, cases: candidates }),
      await this.#try({ ...variedDraft(draft), cases: candidates.map(varied) }),
    ];
    const left: string[] = [];
    const seen = candidates.flatMap((candidate): Seen[] => {
      const found = plain.seen.get(candidate.title);
      const changed = other.seen.get(`varied: ${candidate.title}`);
      const hasPassed = plain.tests.find(({ title }) => title === candidate.title)?.hasPassed === true;
      if (!found?.isOver || found.isEmpty || !hasPassed) {
        const why = whyNot(candidate, found, plain);
        if (why) left.push(why);
        return [];
      }
      const isSure = changed?.isOver === true && changed.threw === undefined;
      return [{ candidate, observed: found, varied: isSure ? changed : undefined }];
    });
    return { seen, left };
  }

  /** Writes it as it is to be, runs that, and leaves out what does not hold. */
  async #settle({ draft: first, left }: Said): Promise<Made> {
    let draft = first;
    for (let round = 0; round < 5; round++) {
      const tried = await this.#try(draft);
      const failed = tried.tests.filter(({ hasPassed }) => !hasPassed);
      if (tried.failed === undefined && failed.length === 0 && tried.tests.length > 0)
        return this.options.isStates ? this.#declared(draft, left) : this.#written(draft, left);
      const titles = new Set(failed.map(({ title }) => title));
      const cases = draft.cases.flatMap((one) => (titles.has(one.title) ? weakened(one) : [one]));
      if (cases.length === 0 || tried.failed !== undefined)
        return this.#failed(
          draft,
          wordsOf(
            tried,
            [...tried.seen.values()].find(({ threw }) => threw),
          ),
        );
      draft = { ...draft, cases };
    }
    return this.#failed(draft, ['It could not be brought to pass twice in the same way.']);
  }

  /** Leaves out the states that fail as declared ones. */
  async #declared(draft: Draft, left: readonly string[]): Promise<Made> {
    const cases = draft.cases.flatMap((one) => {
      const checks = one.checks.filter(({ holds }) => !holds);
      return checks.length > 0 ? [{ ...one, checks }] : [];
    });
    if (cases.length === 0)
      return this.#failed(draft, ['What it shows cannot be declared as a state: write tests.']);
    const wrong = await this.#wrongStates(await this.#print({ ...draft, cases }));
    const kept = cases.filter(({ key }) => !wrong.some((one) => one.startsWith(`"${key}"`)));
    if (wrong.length === 0) return this.#written({ ...draft, cases }, left);
    if (kept.length === 0 || kept.length === cases.length) return this.#failed(draft, wrong);
    return this.#declared({ ...draft, cases: kept }, left);
  }

  async #written(draft: Draft, left: readonly string[]): Promise<Made> {
    const fresh = await this.#print(draft);
    const { target } = this.writing;
    const older = existsSync(target) ? readFileSync(target, 'utf8') : '';
    const isUpdate = !this.options.isForced && isDrafted(older);
    const text = isUpdate ? await formatWith(this.writing, updated(older, fresh)) : signed(fresh);
    const problems = [...this.#typesOf(text), ...(isUpdate ? await this.#wrongIn(text) : [])];
    return {
      ...{ text, hasPassed: problems.length === 0, tests: draft.cases.map(({ title }) => title) },
      ...{ done: this.#done, left: [...left, ...problems], rounds: this.#rounds },
    };
  }

  /** What fails in a file as a person has left it. */
  async #wrongIn(text: string): Promise<readonly string[]> {
    if (this.options.isStates) return this.#wrongStates(text);
    const { probe } = this.runner;
    const tried = await this.#run([...headOf(probe), text].join('\n'));
    if (tried.failed) return [firstLines(tried.failed.message)];
    return tried.tests
      .filter(({ hasPassed }) => !hasPassed)
      .map(({ title, message }) => `"${title}" fails: ${firstLines(message)}`);
  }

  /** What is wrong with declared states, by the tests that are made of them. */
  async #wrongStates(text: string): Promise<readonly string[]> {
    const { target } = this.writing;
    const file = besides(target, 'states');
    const source = `// @ts-nocheck\nimport { testStates } from 'simulacra/jest';\nimport states from './${basename(file).replace(/\.[jt]sx?$/, '')}';\n\ntestStates(states);\n`;
    try {
      writeFileSync(file, text);
      const tried = await this.#run(source);
      if (tried.failed) return [firstLines(tried.failed.message)];
      return tried.tests
        .filter(({ hasPassed }) => !hasPassed)
        .map(({ title, message }) => `"${title}": ${firstLines(message)}`);
    } finally {
      rmSync(file, { force: true });
    }
  }

  async #failed(draft: Draft, left: readonly string[]) {
    const text = await this.#print({ ...draft, cases: [{ ...bare, title: 'is rendered' }] });
    return { text, hasPassed: false, tests: [], done: this.#done, left, rounds: this.#rounds };
  }

  async #print(draft: Draft): Promise<string> {
    const print = this.options.isStates ? printStates : printTests;
    return formatWith(this.writing, print(draft, this.writing));
  }

  #typesOf(text: string): readonly string[] {
    const { types } = this.known;
    if (!types || /\.jsx?$/.test(this.writing.target)) return [];
    types.place(this.writing.target, text);
    const problems = types
      .problems(this.writing.target)
      .filter(
        ({ why }) =>
          !/^Cannot find name '(describe|it|test|expect)'|Property 'toShow' does not exist/.test(why),
      );
    types.take(this.writing.target);
    return problems.slice(0, 3).map(({ line, why }) => `Line ${line} does not check: ${why.split('\n')[0]}`);
  }

  #try(draft: Draft): Promise<Tried> {
    return this.#run(printTests(draft, { ...this.writing, probe: this.runner.probe }));
  }

  async #run(source: string): Promise<Tried> {
    this.#rounds++;
    this.options.progress(`run ${this.#rounds}`);
    const file = besides(this.writing.target, 'test');
    try {
      writeFileSync(file, source);
      return await this.runner.try(file);
    } finally {
      rmSync(file, { force: true });
    }
  }
}

/** A file that is there while a draft is tried. */
const besides = (target: string, kind: string): string =>
  join(dirname(target), basename(target).replace(/\.(test|states)\./, `.draft-${process.pid}.${kind}.`));

const mostRounds = 14;
/** Runs after which nothing richer is tried. */
const mostOfAll = 40;

const bare: Case = {
  key: 'given',
  title: 'comes up',
  given: { props: new Map(), network: new Map(), more: new Map() },
  checks: [],
};

/** A case without what did not hold in it. */
function weakened({ follow, ...one }: Case): readonly Case[] {
  if (follow) return [one];
  return one.checks.length > 1 ? [{ ...one, checks: one.checks.slice(0, -1) }] : [];
}
