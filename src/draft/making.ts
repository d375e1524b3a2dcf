import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { type Seen, chooseCases } from './choose';
import { candidatesFor, isToldByStates, titleVaried, varied, variedDraft, variedWhole } from './explore';
import type { DraftOptions } from './outcome';
import { swapLive } from './live';
import type { Case, Draft } from './model';
import { type Known, planDraft } from './plan';
import { bare, Raising } from './raising';
import { leaned, richerDrafts, seeingMarkup, watching, withoutUntold } from './richer';
import type { Observation } from './run/observed';
import type { DraftRunner, Tried } from './run/runner';
import { type Made, type Said, type Unsaid, ends, isTelling } from './said';
import { Trial } from './trial';
import { firstLines, nothingTrue, whyNot, wordsOf } from './words';
import { headOf } from './write/fields';
import { formatWith } from './write/format';
import { type Writing, printStates, printTests } from './write/print';
import { isDrafted, signed, updated } from './write/update';

/** One draft on its way: brought up, brought into its states, written, and run as it is written. */
export class Making {
  readonly #trial: Trial;
  readonly #raising: Raising;

  constructor(
    known: Known,
    readonly runner: DraftRunner,
    readonly writing: Writing,
    readonly options: DraftOptions,
  ) {
    this.#trial = new Trial(runner, writing, options.progress, options.stopped);
    this.#raising = new Raising(known, this.#trial);
  }

  get known(): Known {
    return this.#raising.known;
  }

  async make(): Promise<Made> {
    const first = await this.#say(planDraft(this.known));
    if (!('failed' in first) && isTelling(first)) return this.#settle(first);
    if ('failed' in first && first.isHopeless) return this.#failed(first.draft, first.failed);
    const up = 'failed' in first ? [] : [first];
    for (const richer of richerDrafts(this.known, first.draft)) {
      if (this.#trial.rounds >= mostOfAll) break;
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
      const said = watched && (await this.#sayAny(first.draft, watched));
      if (said) return this.#settle(said);
    }
    const [richest] = ends(up);
    const seen = richest && (await this.#sayAny(first.draft, seeingMarkup(richest.draft)));
    if (seen) return this.#settle(seen);
    return this.#failed(
      first.draft,
      'failed' in first ? first.failed : nothingTrue(first.observed, first.draft.framework),
    );
  }

  async #sayAny(first: Draft, draft: Draft): Promise<Said | undefined> {
    const said = await this.#say(draft);
    return 'failed' in said || said.draft.cases.length === 0 ? undefined : this.#lean(first, said);
  }

  /** Without what was given in vain. */
  async #lean(first: Draft, said: Said): Promise<Said> {
    const lean = leaned(first, said);
    const again = lean && (await this.#say(lean));
    return again && !('failed' in again) && again.draft.cases.length > 0 ? again : said;
  }

  /** Brings it up, and finds what is true of each of its states. */
  async #say(planned: Draft): Promise<Said | Unsaid> {
    let base = await this.#raising.raise(planned);
    if ('failed' in base) return base;
    // What comes from a channel that nobody sends on is not there.
    const swapped = base.observed.signs.length === 0 ? swapLive(this.known, base.draft) : undefined;
    if (swapped) base = await this.#raising.raise(swapped);
    if ('failed' in base) return base;
    const { seen, left } = await this.#explore(base.draft, base.observed);
    return { draft: { ...base.draft, cases: chooseCases(base.draft, seen) }, observed: base.observed, left };
  }

  /** Brings it into all states that may differ. */
  async #explore(
    draft: Draft,
    observed: Observation,
  ): Promise<{ seen: readonly Seen[]; left: readonly string[] }> {
    let candidates = candidatesFor(this.known, draft, observed.routes);
    const isOneRun = isToldByStates(draft);
    const tryThem = () => {
      const more = isOneRun ? candidates.map((one) => variedWhole(draft, one)) : [];
      return this.#trial.try({ ...draft, cases: [...candidates, ...more] });
    };
    let plain = await tryThem();
    // A state that ends the process, or takes all of its time, is none for those that were to come after it.
    for (let rest = mostEnded; rest > 0 && plain.failed?.during !== undefined; rest--) {
      const { during } = plain.failed;
      candidates = candidates.filter(({ title }) => title !== during && titleVaried(title) !== during);
      plain = await tryThem();
    }
    const other = isOneRun
      ? plain
      : await this.#trial.try({ ...variedDraft(draft), cases: candidates.map(varied) });
    const left: string[] = [];
    const seen = candidates.flatMap((candidate): Seen[] => {
      const found = plain.seen.get(candidate.title);
      const changed = other.seen.get(titleVaried(candidate.title));
      const hasPassed = plain.tests.find(({ title }) => title === candidate.title)?.hasPassed === true;
      if (!found?.isOver || found.signs.length === 0 || !hasPassed) {
        const why = whyNot(candidate, found, plain);
        if (why) left.push(why);
        return [];
      }
      const isSure = changed?.isOver === true && changed.threw === undefined;
      return [{ candidate, observed: found, varied: isSure ? changed : undefined }];
    });
    return { seen, left };
  }

  /** Runs it as it is to be written, without what no check shows where it can; leaves out what does not hold. */
  async #settle({ draft: first, left }: Said): Promise<Made> {
    const lean = withoutUntold(this.known, first);
    if (lean && hasPassed(await this.#trial.try(lean))) return this.#finish(lean, left);
    let draft = first;
    for (let round = 0; round < 5; round++) {
      const tried = await this.#trial.try(draft);
      if (hasPassed(tried)) return this.#finish(draft, left);
      const failed = tried.tests.filter((one) => !one.hasPassed);
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

  #finish(draft: Draft, left: readonly string[]): Promise<Made> {
    return this.options.isStates ? this.#declared(draft, left) : this.#written(draft, left);
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
      ...{ done: draft.done, left: [...left, ...problems], rounds: this.#trial.rounds },
    };
  }

  /** What fails in a file as a person has left it. */
  async #wrongIn(text: string): Promise<readonly string[]> {
    if (this.options.isStates) return this.#wrongStates(text);
    const { probe } = this.runner;
    const tried = await this.#trial.run([...headOf(probe), text].join('\n'));
    if (tried.failed) return [firstLines(tried.failed.message)];
    return tried.tests
      .filter(({ hasPassed }) => !hasPassed)
      .map(({ title, message }) => `"${title}" fails: ${firstLines(message)}`);
  }

  /** What is wrong with declared states, by the tests that are made of them. */
  async #wrongStates(text: string): Promise<readonly string[]> {
    const file = this.#trial.besides('states');
    const source = `// @ts-nocheck\nimport { testStates } from 'simulacra/jest';\nimport states from './${basename(file).replace(/\.[jt]sx?$/, '')}';\n\ntestStates(states);\n`;
    try {
      writeFileSync(file, text);
      const tried = await this.#trial.run(source);
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
    return { text, hasPassed: false, tests: [], done: draft.done, left, rounds: this.#trial.rounds };
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
}

/** How many states may end the process that tries them. */
const mostEnded = 3;

/** Runs after which nothing richer is tried. */
const mostOfAll = 40;

const hasPassed = ({ failed, tests }: Tried): boolean =>
  failed === undefined && tests.length > 0 && tests.every((one) => one.hasPassed);

/** A case without what did not hold in it. */
function weakened({ follow, ...one }: Case): readonly Case[] {
  if (follow) return [one];
  return one.checks.length > 1 ? [{ ...one, checks: one.checks.slice(0, -1) }] : [];
}
