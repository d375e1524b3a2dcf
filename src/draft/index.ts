import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, extname, join } from 'node:path';
import { survey } from '../survey/index';
import type { Survey } from '../survey/index';
import { findRoot } from '../survey/project';
import { chooseCases, type Seen } from './choose';
import { refuse } from './errors';
import { candidatesFor, varied, variedDraft, type Candidate } from './explore';
import { leaned, richerDrafts } from './richer';
import { mend } from './mend';
import type { Case, Draft } from './model';
import { planDraft, swapFor, timeValue, type Known } from './plan';
import { readRunConfig, type RunConfig } from './run/config';
import { DraftRunner, type Failed, type Limits, type Tried } from './run/runner';
import type { FailureSeen, Observation } from './run/observed';
import { readProps } from './types/props';
import { Types } from './types/service';
import type { Needed, Value } from './value';
import { endingOf, formatWith, styleOf } from './write/format';
import { printStates, printTests, type Writing } from './write/print';

/** How a draft is made. */
export interface DraftOptions {
  /** Declared states in place of tests. */
  readonly isStates: boolean;
  readonly limits: Limits;
  /** The folder of this package's own files. */
  readonly own: string;
  readonly progress: (said: string) => void;
}

/** What became of a draft. */
export interface Outcome {
  readonly component: string;
  readonly source: string;
  /** Where it belongs. */
  readonly target: string;
  readonly text: string;
  readonly hasPassed: boolean;
  readonly tests: readonly string[];
  /** What was added for what had failed, in words. */
  readonly done: readonly string[];
  /** Why it does not pass, or what it could not be brought to say. */
  readonly left: readonly string[];
  readonly rounds: number;
  readonly milliseconds: number;
  readonly config: RunConfig;
}

/** What the drafts of one project share. */
export class Drafting {
  readonly root: string;
  #types: Types | undefined;
  readonly #runners = new Map<string, DraftRunner>();

  constructor(
    readonly from: string,
    readonly options: DraftOptions,
  ) {
    this.root = findRoot(from);
  }

  /** Drafts one component. @throws SIM-SURVEY-…, SIM-DRAFT-… */
  async draft(asked: string): Promise<Outcome> {
    const found = await survey(asked, this.from);
    if ('components' in found) return refuse('SIM-DRAFT-FOLDER', { asked });
    return this.draftSurveyed(found);
  }

  /** @param lane which of several processes runs it */
  async draftSurveyed(found: Survey, lane = 0): Promise<Outcome> {
    const begun = performance.now();
    const component = componentOf(found);
    const framework = found.subject.unit.framework ?? 'react';
    const target = targetOf(found.subject.file, component, framework, this.options.isStates);
    const config = await readRunConfig(this.root, target, framework);
    const runner = this.#runnerFor(config, lane);
    const types = (this.#types ??= Types.of(this.root, found.subject.file));
    const props =
      (types && readProps(types, found.subject.file, component.name, framework)) ?? propsByName(found);
    const known: Known = { survey: found, types, props, component, from: this.from };
    const style = await styleOf(this.root, target);
    const writing: Writing = {
      ...style,
      target,
      ending: endingOf(found, found.subject.file),
      hasGlobals: config.hasGlobals,
    };
    const making = new Making(known, runner, writing, this.options);
    const made = await making.make();
    const source = found.project.nameOf(found.subject.file);
    return {
      ...made,
      component: component.local ?? component.name,
      source,
      target,
      config,
      milliseconds: performance.now() - begun,
    };
  }

  #runnerFor({ config }: RunConfig, lane: number): DraftRunner {
    const key = `${lane} ${config}`;
    const known = this.#runners.get(key);
    if (known) return known;
    const runner = new DraftRunner(this.root, config, this.options.limits, this.options.own);
    this.#runners.set(key, runner);
    return runner;
  }

  close(): void {
    for (const runner of this.#runners.values()) runner.close();
    this.#runners.clear();
  }
}

/** How tests import the component. @throws SIM-DRAFT-EXPORT */
export function componentOf({ subject, project }: Survey): Needed {
  const { file, unit } = subject;
  const exported = project
    .facts(file)
    .exports.find(({ local, specifier }) => local === unit.name && specifier === undefined);
  if (!exported) return refuse('SIM-DRAFT-EXPORT', { component: unit.name, file: project.nameOf(file) });
  return exported.name === 'default'
    ? { name: 'default', local: unit.name, from: file }
    : { name: exported.name, from: file };
}

export function targetOf(
  file: string,
  { name, local }: Needed,
  framework: string,
  isStates: boolean,
): string {
  const stem = basename(file, extname(file));
  const called = local ?? name;
  const isMain =
    stem.replace(/[-_.]/g, '').toLowerCase() === called.toLowerCase() ||
    name === 'default' ||
    framework !== 'react';
  const ending =
    framework === 'react'
      ? /\.[jt]sx?$/.exec(file)?.[0].startsWith('.j')
        ? '.jsx'
        : '.tsx'
      : /lang="ts"|\.ts$/.test(file.endsWith('.vue') ? readFileSync(file, 'utf8') : file)
        ? '.ts'
        : '.js';
  return join(dirname(file), `${isMain ? stem : called}.${isStates ? 'states' : 'test'}${ending}`);
}

const propsByName = ({ subject }: Survey) =>
  (subject.unit.inputs ?? []).map((name) => ({
    name,
    isRequired: false,
    value: { kind: 'text', text: name } as const,
    others: [],
    isCallback: /^on[A-Z]/.test(name),
  }));

const mostRounds = 10;

type Made = Pick<Outcome, 'text' | 'hasPassed' | 'tests' | 'done' | 'left' | 'rounds'>;

/** What can be said of a component: the cases of the draft. */
interface Said {
  readonly draft: Draft;
  readonly observed: Observation;
  readonly left: readonly string[];
}

interface Unsaid {
  readonly draft: Draft;
  readonly failed: readonly string[];
}

/** True where something is said that does not only come from what was put inside of it. */
const isTelling = ({ draft }: Said): boolean =>
  draft.cases.some(({ checks }) => checks.some(({ isPutIn }) => isPutIn !== true));

/** One draft on its way. */
class Making {
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
    if ('failed' in first) return this.#failed(first.draft, first.failed);
    if (isTelling(first)) return this.#settle(first);
    for (const richer of richerDrafts(this.known, first.draft)) {
      const said = await this.#say(richer);
      if ('failed' in said || !isTelling(said)) continue;
      const lean = leaned(first.draft, said);
      const again = lean && (await this.#say(lean));
      return this.#settle(again && !('failed' in again) && isTelling(again) ? again : said);
    }
    if (first.draft.cases.length > 0) return this.#settle(first);
    return this.#failed(first.draft, nothingTrue(first.observed));
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
    let guess:
      { readonly before: Draft; readonly about: string; readonly done: readonly string[] } | undefined;
    for (const begun = this.#rounds; ;) {
      const tried = await this.#try({ ...draft, cases: [bare] });
      const observed = tried.seen.get(bare.title);
      const isUp =
        observed?.isOver === true &&
        observed.threw === undefined &&
        tried.tests.every(({ hasPassed }) => hasPassed);
      if (isUp && tried.failed === undefined) return { draft: this.#pruned(draft, observed), observed };
      const failures = failuresOf(observed);
      const about = aboutOf(failures[0]);
      // What has not helped is taken back.
      if (guess?.about === about) draft = this.#takeBack(guess.before, guess.done);
      guess = undefined;
      const mended = mend(this.known, draft, failures, guessed);
      const again = mended.done.length > 0 ? mended.draft : this.#withTime(draft, tried.failed);
      if (!again || this.#rounds - begun >= mostRounds) return { draft, failed: wordsOf(tried, observed) };
      if (mended.isGuess) {
        guess = { before: draft, about, done: mended.done };
        for (const one of mended.done) guessed.add(one);
      }
      this.#done.push(...mended.done);
      draft = again;
    }
  }

  #takeBack(before: Draft, done: readonly string[]): Draft {
    for (const one of done) this.#done.splice(this.#done.lastIndexOf(one), 1);
    return before;
  }

  /** What never comes to rest may do so on a clock that stands still. */
  #withTime(draft: Draft, failed: Failed | undefined): Draft | undefined {
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
        return this.#written(draft, left);
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

  async #written(draft: Draft, left: readonly string[]) {
    const text = await this.#print(draft);
    const problems = this.#typesOf(text);
    return {
      ...{ text, hasPassed: problems.length === 0, tests: draft.cases.map(({ title }) => title) },
      ...{ done: this.#done, left: [...left, ...problems], rounds: this.#rounds },
    };
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

  async #try(draft: Draft): Promise<Tried> {
    this.#rounds++;
    this.options.progress(`run ${this.#rounds}`);
    const { target } = this.writing;
    const file = join(
      dirname(target),
      `${basename(target).replace(/\.(test|states)\./, `.draft-${process.pid}.test.`)}`,
    );
    try {
      writeFileSync(file, printTests(draft, { ...this.writing, probe: this.runner.probe }));
      return await this.runner.try(file);
    } finally {
      rmSync(file, { force: true });
    }
  }
}

/** A draft in which what listens to a channel is swapped for what it would tell. */
function swapLive(known: Known, draft: Draft): Draft | undefined {
  const isLive = (value: Value) => value.kind === 'code' && value.code.startsWith('channel(');
  const live = [...draft.given.network]
    .filter(([, value]) => isLive(value))
    .map(([route]) => route.replace(/^\w+ /, ''));
  const leaf = known.survey.graph.nodes.find(
    ({ kind, name }) => /^(socket|event stream)$/.test(kind) && live.includes(name.replace(/^\w+ /, '')),
  );
  const found = leaf && swapFor(known, leaf);
  if (!found) return undefined;
  const network = new Map([...draft.given.network].filter(([, value]) => !isLive(value)));
  return {
    ...draft,
    isLoadedLate: true,
    given: { ...draft.given, network, swap: [...draft.given.swap, found.value] },
  };
}

const bare: Case = {
  key: 'given',
  title: 'comes up',
  given: { props: new Map(), network: new Map(), more: new Map() },
  checks: [],
};

const aboutOf = (failure: FailureSeen | undefined): string =>
  failure
    ? `${failure.code} ${failure.thrown?.message ?? String(failure.fields['threw'] ?? failure.message.split('\n')[0])}`
    : '';

const failuresOf = (seen: Observation | undefined): readonly FailureSeen[] => [
  ...(seen?.threw ? [seen.threw] : []),
  ...(seen?.failures ?? []),
];

/** A case without what did not hold in it. */
function weakened({ follow, ...one }: Case): readonly Case[] {
  if (follow) return [one];
  return one.checks.length > 1 ? [{ ...one, checks: one.checks.slice(0, -1) }] : [];
}

function whyNot({ title, kind }: Candidate, seen: Observation | undefined, tried: Tried): string | undefined {
  if (kind === 'prop') return undefined;
  const said = seen?.threw?.message ?? tried.tests.find((one) => one.title === title)?.message;
  if (said === undefined || said === '') return undefined;
  return `"${title}" is not in it: ${firstLines(said)}`;
}

function wordsOf({ failed, tests }: Tried, observed: Observation | undefined): readonly string[] {
  if (failed) return [firstLines(failed.message)];
  const threw = observed?.threw?.message ?? tests.find(({ hasPassed }) => !hasPassed)?.message;
  return [threw === undefined ? 'It came to no end.' : firstLines(threw)];
}

const firstLines = (message: string): string =>
  message.split('\n\n  What happened before:')[0]!.split('\n').slice(0, 12).join('\n').trim();

function nothingTrue({ isEmpty, outline }: Observation): readonly string[] {
  if (isEmpty) return ['It shows nothing, so there is nothing to say of it.'];
  return [
    `All that it shows was made up by the draft, or has no name and no text:\n${outline.split('\n').slice(0, 10).join('\n')}`,
  ];
}

export const isThere = (file: string): boolean => existsSync(file);
