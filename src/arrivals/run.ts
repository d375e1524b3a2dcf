import type { Director } from '../core/director';
import type { Environment } from '../core/environment';
import { allUp } from '../core/shared';

/** A moment at which several things could happen next. */
export interface Choice {
  /** What could arrive, in the order in which it became ready. */
  readonly labels: readonly string[];
  /** True where the test could also go on before any of it. */
  readonly mayGoOn: boolean;
  readonly chosen: number;
}

/** Says what happens next: the index of what arrives, or the number of those that could for the test to go on. */
export type Plan = (at: number, labels: readonly string[], mayGoOn: boolean) => number;

/** What the first run of a scenario has shown of its steps. */
export interface Steps {
  /** The steps after which the test has looked at a subject: all has arrived by then. */
  readonly looked: ReadonlySet<number>;
  readonly last: number;
}

/** One thing that happened in a run: a step of the test, an arrival, or a timer. */
export interface Told {
  readonly words: string;
  readonly verb?: 'arrives' | 'is due';
}

/** One run of a scenario, in one order of arrival. */
export class Run implements Director {
  readonly choices: Choice[] = [];
  /** What happened, in words: steps of the test and what arrived, in order. */
  readonly story: Told[] = [];
  readonly looked = new Set<number>();
  /** The number of steps so far, but for one. */
  last = -1;
  #depth = 0;
  /** Whether what waits may, has to, or must not arrive now; else it does at the end of a step that is looked at. */
  #mode: 'before' | 'all' | 'none' | undefined;
  readonly #names = new Map<string, string>();
  readonly #counts = new Map<string, number>();
  readonly #calls = new Map<unknown[], number>();
  isOver = false;

  /** @param steps where answers may arrive after the next step of the test; undefined where they may not */
  constructor(
    private readonly plan: Plan,
    private readonly steps: Steps | undefined,
  ) {}

  get restsBefore(): boolean {
    return this.steps !== undefined;
  }

  next(environment: Environment): string | undefined {
    const { pending } = environment.gate;
    if (pending.length === 0 || this.isOver || this.#mode === 'none') return undefined;
    const mayGoOn = this.#mode === 'before';
    const isParked = this.#mode === undefined && this.steps !== undefined && !this.#isBarrier(this.steps);
    // Between two steps nothing but the answer may be waited for.
    if (isParked && this.#depth > 0) return undefined;
    const labels = pending.map(({ id, label }) => this.#nameOf(environment, id, label));
    const chosen = this.#choose(labels, mayGoOn);
    if (chosen === labels.length) return undefined;
    this.story.push({ words: labels[chosen]!, verb: 'arrives' });
    return pending[chosen]!.id;
  }

  #isBarrier({ looked, last }: Steps): boolean {
    return this.last >= last || looked.has(this.last);
  }

  #choose(labels: readonly string[], mayGoOn: boolean): number {
    const ways = labels.length + (mayGoOn ? 1 : 0);
    if (ways === 1) return 0;
    const wanted = this.plan(this.choices.length, labels, mayGoOn);
    const chosen = Math.min(Math.max(0, wanted), ways - 1);
    this.choices.push({ labels, mayGoOn, chosen });
    return chosen;
  }

  /** The same answer is called the same in every order: by what it answers, and which one of those it is. */
  #nameOf({ name }: Environment, id: string, label: string): string {
    const key = `${name} ${id}`;
    const known = this.#names.get(key);
    if (known) return known;
    const which = (this.#counts.get(label) ?? 0) + 1;
    this.#counts.set(label, which);
    const made = which === 1 ? label : `${label} (${ordinal(which)})`;
    this.#names.set(key, made);
    return made;
  }

  async step<T>(words: string, work: () => T | Promise<T>, isWait = false): Promise<T> {
    this.last++;
    this.#depth++;
    const before = this.#mode;
    try {
      if (this.steps && !isWait) {
        this.#mode = 'before';
        await atRest();
      }
      this.#mode = isWait ? 'all' : before;
      this.story.push({ words });
      return await work();
    } finally {
      this.#mode = before;
      this.#depth--;
    }
  }

  async tick(words: string, isFirst: boolean, run: () => Promise<void>): Promise<void> {
    const before = this.#mode;
    if (!this.steps || before === 'all') return run();
    try {
      const waits = allUp().some(({ gate }) => !gate.isEmpty);
      this.#mode = 'before';
      if (waits && !isFirst) await atRest();
      if (waits) this.story.push({ words, verb: 'is due' });
      // What it asks for may arrive after the next timer, too.
      this.#mode = 'none';
      await run();
    } finally {
      this.#mode = before;
    }
  }

  async until(environment: Environment, isThere: () => boolean): Promise<void> {
    const before = this.#mode;
    while (!environment.gate.isEmpty && !isThere()) {
      const { passed } = environment.gate;
      this.#mode = 'all';
      const id = this.next(environment);
      this.#mode = before;
      if (id === undefined) return;
      environment.gate.open([id]);
      await environment.atRest();
      if (environment.gate.passed === passed) return;
    }
  }

  /** Lets everything arrive that still waits. @throws what comes of it */
  async finish(): Promise<void> {
    this.#mode = 'all';
    await atRest();
  }

  look(): void {
    if (this.#depth === 0) this.looked.add(this.last);
  }

  called(calls: unknown[]): void {
    if (!this.#calls.has(calls)) this.#calls.set(calls, calls.length);
  }

  /** Nothing arrives any more, and spies that outlive the run forget it. */
  end(): void {
    this.isOver = true;
    for (const [calls, length] of this.#calls) calls.length = length;
  }

  /** The order as a code: what was chosen, without what would have been chosen anyway. */
  get code(): string {
    return codeOf(this.choices.map(({ chosen }) => chosen));
  }
}

async function atRest(): Promise<void> {
  for (const environment of allUp()) await environment.atRest();
}

const ordinal = (at: number) =>
  `${at}${['th', 'st', 'nd', 'rd'][at % 10 < 4 && (at % 100) - (at % 10) !== 10 ? at % 10 : 0]}`;

/** Choices as a short text: a letter or digit each; what comes last and is first anyway is left out. */
export function codeOf(choices: readonly number[]): string {
  const last = choices.findLastIndex((chosen) => chosen > 0);
  const told = choices.slice(0, last + 1).map((chosen) => chosen.toString(36));
  return told.length === 0 ? '0' : told.every((one) => one.length === 1) ? told.join('') : told.join('-');
}

/** @returns undefined for what is no code */
export function readCode(code: string): number[] | undefined {
  const parts = code.includes('-') ? code.split('-') : [...code];
  const read = parts.map((one) => parseInt(one, 36));
  return parts.length > 0 && parts.every((one) => /^[0-9a-z]+$/.test(one)) ? read : undefined;
}
