import type { ChronicleLog } from '../core/chronicle';
import { directing } from '../core/director';
import type { Environment } from '../core/environment';
import { joinComplaints, tellCauses } from '../core/errors';
import { isExplained } from '../core/errors/called-from';
import { runAs } from '../core/ownership';
import { printThrown } from '../core/print';
import { pageTime } from '../core/page-time';
import { Network } from '../network/network';
import { whatThePageLacks } from '../page/lacking';
import type { Adapter } from './adapter';
import { explain, refuse } from './errors';
import { comeToRest, type Resting } from './rest';

/** What is needed of whoever renders, to bring it to rest. */
export type Pace = Pick<Adapter, 'settle' | 'settleNow' | 'pass' | 'isPending' | 'willReport'>;

interface Setting {
  readonly adapter: Pace;
  readonly name: string;
  readonly routes: Readonly<Record<string, unknown>>;
}

/** Everything around what is tested, whether it renders or not: who answers it, its time, what happened to it. */
export class Ground implements Resting {
  readonly chronicle: ChronicleLog;
  readonly network: Network;
  readonly container: Element | undefined = undefined;
  renders = 0;
  /** What the test is doing, for an error that comes of it. */
  gesture = 'rendered the subject';
  readonly #watch = watchRenders(() => ({
    subject: this.setting.name,
    turns: mostRenders,
    busy: `rendered ${this.setting.name}`,
  }));

  constructor(
    readonly environment: Environment,
    readonly setting: Setting,
  ) {
    this.chronicle = environment.chronicle;
    environment.name = setting.name;
    environment.atRest = () => this.atRest();
    this.network = new Network(setting.routes, environment);
    environment.sandbox.checks.push(() => this.network.complaint());
  }

  get adapter(): Pace {
    return this.setting.adapter;
  }

  /** Refuses what is left after the subject was unmounted; put here when its options are read. */
  refuseLeaks: () => void = () => undefined;

  /** To be called before each turn of coming to rest. */
  readonly onTurn = (): void => this.#watch.reset();

  /**
   * Counts a rendering.
   *
   * @returns true where there are too many
   * @throws SIM-REST-NEVER then, in the step that waits
   */
  protected countRendering(): boolean {
    this.renders++;
    return this.#watch.count();
  }

  readonly onThrown = (error: Error): void => {
    // A framework may report the same error twice: itself, and through the window.
    if (this.#isKnown(error)) return;
    this.chronicle.add('threw', this.setting.name, { detail: error.message.split('\n')[0]! });
    this.environment.fail(error);
  };

  /** What was thrown since failures were taken last, and what caused it. */
  #thrown: Set<unknown> | undefined;
  #isKnown(error: Error): boolean {
    const thrown = (this.#thrown ??= new Set());
    const known = thrown.has(error) || (error.cause !== undefined && thrown.has(error.cause));
    thrown.add(error).add(error.cause);
    return known;
  }

  /** Words what a listener threw, by what the test was doing. */
  readonly onListenerThrew = (error: unknown): void => {
    if (isExplained(error)) return this.onThrown(error);
    const cause = (error as { cause?: unknown } | null)?.cause;
    if (isExplained(cause)) return this.onThrown(cause);
    const threw = printThrown(error);
    const feature = whatThePageLacks(error);
    const told = { cause: error, chronicle: this.chronicle };
    const { name } = this.setting;
    if (feature)
      return this.onThrown(explain('SIM-PAGE-LACKS', { subject: name, thrower: name, feature, threw }, told));
    const fields = { gesture: this.gesture, threw, subject: name };
    this.onThrown(explain('SIM-HANDLER-THREW', fields, told));
  };

  /** The same promise, given up when the subject renders without end. @throws SIM-REST-NEVER */
  watched<T>(work: Promise<T>): Promise<T> {
    this.#watch.reset();
    return this.#watch.unlessEndless(work);
  }

  /** Runs something a test does to the subject, then brings the page to rest. @throws what came of it */
  async act<T>(gesture: string, work: () => T | Promise<T>): Promise<T> {
    this.gesture = gesture;
    this.environment.gate.stepsRunning++;
    try {
      const result = await runAs(this.environment, work);
      await this.atRest();
      return result;
    } finally {
      this.environment.gate.stepsRunning--;
      this.gesture = 'waited';
    }
  }

  /** Brings the page to rest before something is done to the subject. */
  async restBefore(): Promise<void> {
    if (!directing.current?.restsBefore) await this.atRest();
  }

  /** Runs work that moves the clock. */
  async moving(work: () => Promise<void>): Promise<void> {
    this.gesture = 'moved the clock';
    this.environment.gate.stepsRunning++;
    pageTime.clock?.refill();
    try {
      await work();
    } finally {
      this.environment.gate.stepsRunning--;
      this.gesture = 'waited';
    }
  }

  /** True while something is under way that a turn would take further. */
  get isBusy(): boolean {
    const { gate, work } = this.environment;
    const isPending = this.container !== undefined && this.adapter.isPending?.(this.container) === true;
    const isArriving = !gate.isEmpty && !directing.current;
    return isPending || isArriving || work.isActive || pageTime.clock?.isDue === true;
  }

  /** Resolves at rest. @throws what was thrown meanwhile, all of it, once */
  async atRest(): Promise<void> {
    await this.watched(runAs(this.environment, () => comeToRest(this)));
    const failures = this.environment.takeFailures();
    this.#thrown = undefined;
    if (failures.length > 0) throw joinComplaints(failures);
    await this.checkState?.();
  }

  /** Checks what is shown at rest; put here when its options are read. */
  checkState: (() => Promise<void>) | undefined;

  /**
   * Adds to a failure what the end of the test would complain about and what is likely to be the cause: an
   * unanswered request, or a stub or swap that was never used.
   */
  withCauses<T>(failure: T): T {
    if (isExplained(failure)) tellCauses(failure, this.environment.takeCauses());
    return failure;
  }

  /** @throws SIM-SUBJECT-GONE after the take-down */
  refuseGone(asked: string | (() => string), calledAt: Error): void {
    if (this.environment.state === 'up') return;
    const told = typeof asked === 'string' ? asked : asked();
    refuse('SIM-SUBJECT-GONE', { subject: this.setting.name, asked: told }, { calledAt });
  }

  /** What a message says beside its own matter. */
  background(calledAt?: Error): object {
    return { calledAt, chronicle: this.chronicle };
  }
}

const mostRenders = 1000;

/**
 * A component that sets its own state in a promise renders forever, and the framework's scope never ends.
 * Only counting the renderings detects it.
 */
function watchRenders(fields: () => { subject: string; turns: number; busy: string }) {
  let renders = 0;
  // Two steps may wait at once.
  const waiting = new Set<(reason: unknown) => void>();
  return {
    unlessEndless: <T>(work: Promise<T>): Promise<T> =>
      new Promise((resolve, reject) => {
        waiting.add(reject);
        const over = () => waiting.delete(reject);
        work.then(resolve, reject).then(over, over);
      }),
    reset: () => void (renders = 0),
    /** @returns true where it is enough */
    count: (): boolean => {
      if (++renders !== mostRenders) return false;
      for (const giveUp of waiting) giveUp(explain('SIM-REST-NEVER', fields()));
      return true;
    },
  };
}
