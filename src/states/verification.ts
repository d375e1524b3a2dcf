import type { Chronicle } from '../core/chronicle';
import type { States } from './declare';
import { readStates, type StateSet } from './sets';
import { explain } from './errors';
import { declarationOf, locateAtState } from './place';
import { oftenerIn, onlyIn, type Signs } from './see';
import { readSignsOf, verifyState, type More, type Verified } from './verify';

/** What is to be found out. */
export interface VerifyOptions {
  /** The names of the states to bring about, where not all are. */
  readonly only?: readonly string[] | undefined;
  /** True for the outline of each state. */
  readonly outlines?: boolean;
}

/** What was found of one declared state. */
export interface StateReport {
  readonly name: string;
  /** True where it shows what it declares. */
  readonly holds: boolean;
  readonly failure: Error | undefined;
  /** What it declares, as code: `role('status', 'Loading hives')`, `3 × part(HiveCard)`. */
  readonly declares: readonly string[];
  /** What happened on the way; undefined where it failed. */
  readonly chronicle: Chronicle | undefined;
  /** The rendered tree; empty where it failed, or outlines were not asked for. */
  readonly outline: string;
  /** From the call of `isolate` to rest, in milliseconds. */
  readonly milliseconds: number;
}

/** What was found of the declared states of a component. */
export interface StatesReport {
  readonly component: string;
  readonly states: readonly StateReport[];
  /** How many ordered pairs of states were compared, and told apart. */
  readonly pairs: { readonly compared: number; readonly apart: number };
  /** What is wrong with the declarations as a whole: states that cannot be told apart, what none has use for. */
  readonly failures: readonly Error[];
}

/** The declared states of one component, as they come about one by one. */
export class Verification {
  readonly set: StateSet;
  readonly #seen = new Map<string, Verified>();
  readonly #failed = new Set<string>();

  /** @param asked the call, for messages @throws SIM-STATES-GIVEN */
  constructor(given: unknown, asked: string) {
    this.set = readStates(given, asked);
  }

  get names(): readonly string[] {
    return this.set.states.map(({ name }) => name);
  }

  /** Brings one state about. @throws what is wrong with it, at the line it is declared on */
  async verify(name: string, more?: More): Promise<Verified> {
    const state = this.set.states.find((one) => one.name === name)!;
    try {
      const seen = await verifyState(this.set, state, more);
      this.#seen.set(name, seen);
      return seen;
    } catch (failure) {
      this.#failed.add(name);
      throw locateAtState(failure, name, this.set.declaredAt);
    }
  }

  /** Brings about what has not come about yet. @throws what is wrong with it */
  async #verifyOthers(): Promise<void> {
    for (const name of this.names)
      if (!this.#seen.has(name) && !this.#failed.has(name)) await this.verify(name);
  }

  /** What is found of the states as a whole, once all that are wanted have come about. */
  async findWhole(): Promise<Pick<StatesReport, 'pairs' | 'failures'>> {
    const compared = this.#seen.size * (this.#seen.size - 1);
    const unused = this.#complainOfUnused();
    return {
      pairs: { compared, apart: compared - this.#alike().length },
      failures: [...(await this.#complainOfAlike()), ...(unused ? [unused] : [])],
    };
  }

  /** The pairs of states in which all that the first declares holds in the second, too. */
  #alike(): (readonly [state: Verified, other: Verified])[] {
    const all = [...this.#seen.values()];
    return all.flatMap((one) =>
      all.filter(({ alsoHold }) => alsoHold.has(one.state.name)).map((other) => [one, other] as const),
    );
  }

  /** @throws SIM-STATE-ALIKE, SIM-STATE-APART */
  async tellApart(): Promise<void> {
    await this.#verifyOthers();
    const [failure] = await this.#complainOfAlike();
    if (failure) throw failure;
  }

  /** @throws SIM-STATE-UNUSED */
  async useAll(): Promise<void> {
    await this.#verifyOthers();
    const failure = this.#complainOfUnused();
    if (failure) throw failure;
  }

  async #complainOfAlike(): Promise<Error[]> {
    const { component, declaredAt } = this.set;
    const isMeant = (one: Verified, other: Verified) => one.state.looksLike.includes(other.state.name);
    const alike = this.#alike();
    const confused = alike.filter(([one, other]) => !isMeant(one, other) && !isMeant(other, one));
    const [first] = confused;
    const pairs = await this.#compare(confused);
    const failures: Error[] = [];
    if (first) {
      const calledAt = declarationOf(first[0].state.name, declaredAt);
      failures.push(explain('SIM-STATE-ALIKE', { component, pairs }, { calledAt }));
    }
    for (const one of this.#seen.values()) {
      const others = one.state.looksLike.filter((name) => {
        const other = this.#seen.get(name);
        return other && !alike.some((pair) => pair.includes(one) && pair.includes(other));
      });
      if (others.length === 0) continue;
      const calledAt = declarationOf(one.state.name, declaredAt);
      failures.push(explain('SIM-STATE-APART', { component, state: one.state.name, others }, { calledAt }));
    }
    return failures;
  }

  /** What each of a pair that cannot be told apart has for itself. Two that look the same are listed once. */
  async #compare(confused: readonly (readonly [Verified, Verified])[]) {
    const { set } = this;
    const signs = new Map<string, Signs>();
    for (const { state } of new Set(confused.flat())) signs.set(state.name, await readSignsOf(set, state));
    return confused
      .map(([one, other]) => ({ state: one.state.name, other: other.state.name }))
      .map(({ state, other }) => {
        const [own, others] = [signs.get(state)!, signs.get(other)!];
        const told = {
          own: onlyIn(own, others),
          counts: oftenerIn(own, others),
          others: onlyIn(others, own),
        };
        return { state, other, ...told, isSame: own.outline === others.outline };
      })
      .filter(
        ({ state, other, isSame }, at, all) =>
          !isSame || !all.slice(0, at).some((before) => before.state === other && before.other === state),
      );
  }

  /** What no state has use for; undefined where some could not be looked at. */
  #complainOfUnused(): Error | undefined {
    const all = [...this.#seen.values()];
    if (all.length < this.set.states.length) return undefined;
    const unused = (['routes', 'stubs', 'provided'] as const).flatMap((kind) => {
      const names = new Set(all.flatMap(({ used }) => [...used[kind].keys()]));
      return [...names]
        .filter((name) => !all.some(({ used }) => used[kind].get(name)))
        .map((name) => worded[kind](name));
    });
    if (unused.length === 0) return undefined;
    const { component, declaredAt } = this.set;
    const fields = { component, unused, states: all.length };
    return explain('SIM-STATE-UNUSED', fields, { calledAt: declaredAt });
  }
}

const worded = {
  routes: (route: string) => `network: '${route}' was never asked for.`,
  stubs: (name: string) => `stub: ${name} was never rendered.`,
  provided: (token: string) => `provide: ${token} was never read.`,
};

/** @throws SIM-STATES-GIVEN */
export async function verifyStates(
  given: States,
  { only, outlines = false }: VerifyOptions = {},
): Promise<StatesReport> {
  const verification = new Verification(given, 'verifyStates()');
  const states: StateReport[] = [];
  for (const name of verification.names.filter((one) => only?.includes(one) ?? true)) {
    const report = await verification.verify(name, { isOutlined: outlines }).then(
      ({ declares, outline, chronicle, milliseconds }) => ({
        ...{ name, holds: true, failure: undefined, declares, outline, chronicle, milliseconds },
      }),
      (failure: Error) => ({
        ...{ name, holds: false, failure, declares: [], outline: '', chronicle: undefined, milliseconds: 0 },
      }),
    );
    states.push(report);
  }
  return {
    component: verification.set.component,
    states,
    ...(await verification.findWhole()),
  };
}
