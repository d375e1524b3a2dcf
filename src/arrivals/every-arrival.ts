import { directing } from '../core/director';
import { asPart } from '../core/errors';
import { isError } from '../core/is-error';
import { print, printThrown } from '../core/print';
import { startTimer } from '../core/host';
import { allUp, shared } from '../core/shared';
import { takeDown } from '../core/take-down';
import { explain, refuse } from './errors';
import { bestPlans, countOrders, following, natural, nextAfter } from './plans';
import { codeOf, readCode, Run, type Choice, type Plan, type Steps } from './run';
import { differencesOf, tellStory } from './story';

/** How the orders of arrival are tried. */
export interface ArrivalOptions {
  /** True to try each answer before and after the next step of the test, too, and not only among those that wait together. */
  readonly acrossSteps?: boolean;
  /** How many orders are tried at most: 200 unless said otherwise. */
  readonly most?: number;
  /** True to fail where there are more orders than that. */
  readonly complete?: boolean;
  /** Only this order: the code that a failure names. */
  readonly order?: string;
  /** Where random orders begin, where there are more than may be tried: 1 unless said otherwise. */
  readonly seed?: number;
  /** How long one run may take, in milliseconds: 5,000 unless said otherwise. */
  readonly within?: number;
}

/** Which orders were tried. */
export interface Arrivals {
  readonly tried: number;
  /** How many there are, as far as that is known. */
  readonly of: number;
  /** True where all were tried. */
  readonly complete: boolean;
}

interface Played {
  readonly run: Run;
  readonly failure: unknown;
  readonly failed: boolean;
  /** What happened to the subject, where it failed. */
  readonly chronicle: string | undefined;
  readonly asked: readonly string[];
}

/** @throws SIM-ARRIVAL and its kin, and what the scenario throws in the natural order */
export async function tryArrivals(
  scenario: () => unknown,
  options: ArrivalOptions,
  calledAt: Error,
): Promise<Arrivals> {
  checkCall(scenario, options, calledAt);
  const { order, most = 200, seed = 1 } = options;
  const play = player(scenario, options, calledAt);
  const first = await play(natural, undefined);
  if (first.failed && order === undefined) throw first.failure;
  const steps: Steps | undefined = options.acrossSteps
    ? { looked: first.run.looked, last: first.run.last }
    : undefined;
  const search = new Search(play, steps, calledAt);
  if (order !== undefined) {
    const choices = readCode(order);
    if (!choices)
      refuse(
        'SIM-ARRIVAL-GIVEN',
        { given: `the order ${print(order)}`, why: 'it is no code of one' },
        { calledAt },
      );
    await search.only(choices!);
    return { tried: 1, of: 1, complete: false };
  }
  const begun = steps ? await search.try(natural) : search.keep(first);
  const of = countOrders(begun.run.choices);
  if (of > most && options.complete) refuse('SIM-ARRIVAL-LIMIT', { most, of }, { calledAt });
  if (of <= most) return search.all(begun.run.choices, most);
  return search.some(begun.run, most, of, seed);
}

/** Tries one order after the other, until one fails. */
class Search {
  readonly #tried = new Set<string>();
  #of: number | undefined;

  constructor(
    private readonly play: (plan: Plan, steps: Steps | undefined) => Promise<Played>,
    private readonly steps: Steps | undefined,
    private readonly calledAt: Error,
  ) {}

  keep(played: Played): Played {
    this.#tried.add(played.run.code);
    return played;
  }

  /** @throws what is wrong with the order */
  async try(plan: Plan): Promise<Played> {
    const played = this.keep(await this.play(plan, this.steps));
    if (played.failed) await this.#explain(played);
    return played;
  }

  /** Every order, depth first. */
  async all(begun: readonly Choice[], most: number): Promise<Arrivals> {
    this.#of = countOrders(begun);
    let before = begun;
    for (let plan = nextAfter(begun); plan; plan = nextAfter(before)) {
      if (this.#tried.size >= most)
        return { tried: this.#tried.size, of: Math.max(this.#of, this.#tried.size + 1), complete: false };
      const { run } = await this.try(following(plan));
      this.#refuseOther(before, run.choices, plan.length);
      before = run.choices;
    }
    return { tried: this.#tried.size, of: this.#tried.size, complete: true };
  }

  /** The orders that find most, where there are too many for all. */
  async some({ choices }: Run, most: number, of: number, seed: number): Promise<Arrivals> {
    this.#of = of;
    const labels = [...new Set(choices.flatMap((choice) => choice.labels))];
    let left = most * 4;
    for (const plan of bestPlans(labels, seed)) {
      if (this.#tried.size >= most || left-- === 0) break;
      await this.try(plan());
    }
    return { tried: this.#tried.size, of, complete: false };
  }

  /** One order alone. */
  async only(choices: readonly number[]): Promise<void> {
    const played = await this.play(following(choices), this.steps);
    if (played.failed) await this.#explain(played, false);
  }

  /** What was chosen before has to be there to choose again. @throws SIM-ARRIVAL-DIFFERS */
  #refuseOther(before: readonly Choice[], now: readonly Choice[], length: number): void {
    for (let at = 0; at < length; at++) {
      const [one, other] = [before[at]?.labels ?? [], now[at]?.labels ?? []];
      if (one.join('\n') === other.join('\n')) continue;
      const order = codeOf(now.map(({ chosen }) => chosen));
      const fields = { order, at, before: one, now: other, passed: false };
      refuse('SIM-ARRIVAL-DIFFERS', fields, { calledAt: this.calledAt });
    }
  }

  /** @throws always: in the shortest order that fails */
  async #explain(found: Played, isShortened = true): Promise<never> {
    const again = await this.play(following(choicesOf(found)), this.steps);
    this.#refuseOther(found.run.choices, again.run.choices, found.run.choices.length);
    if (!again.failed) {
      const fields = { order: found.run.code, at: 0, before: [], now: [], passed: true };
      refuse('SIM-ARRIVAL-DIFFERS', fields, { calledAt: this.calledAt });
    }
    const { failing, holding } = isShortened
      ? await this.#shorten(again)
      : { failing: again, holding: await this.play(natural, this.steps) };
    const { failure, chronicle, run } = failing;
    const fields = {
      order: run.code,
      differences: differencesOf(run.story, holding.run.story),
      story: tellStory(run.story),
      failure: isError(failure) ? asPart(failure.message) : printThrown(failure),
      holds: holdsWhere(holding, run),
      tried: Math.max(1, this.#tried.size),
      of: Math.max(this.#of ?? 1, this.#tried.size),
      asked: failing.asked,
    };
    const hasFrames = isError(failure) && /\n\s+at /.test(failure.stack ?? '');
    throw explain('SIM-ARRIVAL', fields, {
      calledAt: hasFrames ? failure : this.calledAt,
      ...(chronicle && { chronicle: { toString: () => chronicle } }),
    });
  }

  /** Takes back what differs from the natural order, as long as it fails all the same. */
  async #shorten(found: Played): Promise<{ failing: Played; holding: Played }> {
    let failing = found;
    let holding: Played | undefined;
    for (let at = found.run.choices.length - 1; at >= 0; at--) {
      const choices = choicesOf(failing);
      if (!choices[at]) continue;
      choices[at] = 0;
      const played = await this.play(following(choices), this.steps);
      if (played.failed) failing = played;
      else holding ??= played;
    }
    return { failing, holding: holding ?? (await this.play(natural, this.steps)) };
  }
}

const choicesOf = ({ run }: Played): number[] => run.choices.map(({ chosen }) => chosen);

function holdsWhere(holding: Played, failing: Run): string {
  const differences = differencesOf(holding.run.story, failing.story);
  return differences.length > 0 ? differences.join(', and ') : 'everything arrives as it is asked for';
}

/** Runs the scenario in one order, with subjects of its own. */
function player(scenario: () => unknown, { within = 5000 }: ArrivalOptions, calledAt: Error) {
  return async (plan: Plan, steps: Steps | undefined): Promise<Played> => {
    const run = new Run(plan, steps);
    directing.current = run;
    let failure: unknown;
    let failed = false;
    const fail = (reason: unknown) => {
      if (!failed) failure = reason;
      failed = true;
    };
    const test = shared.test;
    let callOff: () => void = () => undefined;
    const late = new Promise<never>((_, reject) => {
      callOff = startTimer(within, () => {
        const waits = allUp().flatMap(({ gate, work }) => [
          ...gate.pending.map(({ label }) => label),
          ...work.open.map(({ label }) => label),
        ]);
        reject(explain('SIM-ARRIVAL-ENDLESS', { order: run.code, within, waits }, { calledAt }));
      });
    });
    try {
      await Promise.race([(async () => (await scenario(), run.finish()))(), late]);
    } catch (reason) {
      fail(reason);
    }
    callOff();
    // The runner has ended the test meanwhile.
    const isAbandoned = shared.test !== test;
    const up = allUp();
    const asked = failed ? causesIn(up) : [];
    const chronicle = failed && up[0] ? String(up[0].chronicle) : undefined;
    run.end();
    directing.current = undefined;
    if (!isAbandoned) await takeDown().catch(fail);
    if (isAbandoned) throw explain('SIM-ARRIVAL-OVER', { order: run.code }, { calledAt, cause: failure });
    if (isEndless(failure)) throw failure;
    return { run, failure, failed, chronicle, asked };
  };
}

const isEndless = (failure: unknown) =>
  (failure as { code?: unknown } | undefined)?.code === 'SIM-ARRIVAL-ENDLESS';

/** What set off each request. */
const causesIn = (up: ReturnType<typeof allUp>): string[] => [
  ...new Set(
    up
      .flatMap(({ chronicle }) => chronicle.of('asked'))
      .flatMap(({ what, cause }) =>
        cause && cause.kind !== 'mounted' ? [`${what} was asked for after: ${cause.kind} ${cause.what}`] : [],
      ),
  ),
];

function checkCall(scenario: unknown, options: ArrivalOptions, calledAt: Error): void {
  const wrong = (given: string, why: string) => refuse('SIM-ARRIVAL-GIVEN', { given, why }, { calledAt });
  if (typeof scenario !== 'function') wrong(print(scenario, 40), 'it takes a function');
  const known = ['acrossSteps', 'most', 'complete', 'order', 'seed', 'within'];
  for (const key of Object.keys(options))
    if (!known.includes(key)) wrong(`the option "${key}"`, `its options are ${known.join(', ')}`);
  for (const key of ['most', 'within'] as const) {
    const value = options[key];
    if (value !== undefined && !(typeof value === 'number' && value >= 1))
      wrong(`${key}: ${print(value)}`, 'it takes a number from 1');
  }
  if (directing.current) wrong('a call within another one', 'one scenario is tried at a time');
  const subjects = allUp().map(({ name }) => name);
  if (subjects.length > 0) refuse('SIM-ARRIVAL-UP', { subjects }, { calledAt });
}
