import type { ChronicleLog } from '../core/chronicle';
import type { Environment } from '../core/environment';
import { joinComplaints, tellCauses } from '../core/errors';
import { isExplained } from '../core/errors/called-from';
import { readClock } from '../core/host';
import { runAs } from '../core/ownership';
import { print, printThrown } from '../core/print';
import { printCall } from '../core/spy';
import { pageTime } from '../core/page-time';
import { Network } from '../network/network';
import { PageHistory } from '../page/history';
import { whatThePageLacks } from '../page/lacking';
import type { Pending } from '../page/errors';
import type { StubShown, View } from '../page/query';
import type { PlacedSwaps } from '../seam/place';
import type { Adapter, Mounted } from './adapter';
import { Outside } from './claims';
import { fitting } from './declared';
import { explain, refuse } from './errors';
import { giveBackContainer, markContainer, takeContainer } from './containers';
import { comeToRest, type Resting } from './rest';
import type { StubSet } from './stubs';

interface Setting {
  readonly adapter: Adapter;
  readonly name: string;
  readonly routes: Readonly<Record<string, unknown>>;
  readonly stubs: StubSet;
  readonly swaps: PlacedSwaps;
}

/** Everything around one subject: where it is rendered, who answers it, what happened to it. */
export class Stage implements Resting {
  readonly chronicle: ChronicleLog;
  readonly container: HTMLElement;
  readonly history: PageHistory;
  readonly network: Network;
  readonly adapter: Adapter;
  mounted: Mounted | undefined;
  renders = 0;
  /** What the test is doing, for an error that comes of it. */
  #gesture = 'rendered the subject';
  readonly #watch = watchRenders(() => ({
    subject: this.setting.name,
    turns: mostRenders,
    busy: `rendered ${this.setting.name}`,
  }));

  constructor(
    readonly environment: Environment,
    readonly setting: Setting,
  ) {
    const { routes, name, swaps, adapter } = setting;
    const { sandbox, chronicle } = environment;
    this.adapter = adapter;
    this.chronicle = chronicle;
    environment.name = name;
    environment.running = () => adapter.running(this.container);
    environment.atRest = () => this.atRest();
    environment.onUncaught = (error) => {
      if (!adapter.willReport?.(this.container)) this.onListenerThrew(error);
    };
    swaps.owner.isRunning = () => environment.running() !== undefined;
    const { body } = document;
    const own = adapter.takeContainer?.();
    this.container = own ?? takeContainer(name);
    if (own) markContainer(own, name);
    this.#outside = new Outside(environment, body, (element) => adapter.owns?.(this.container, element));
    this.network = new Network(routes, environment);
    this.history = new PageHistory(this.container, body, () => this.#roots());
    // Recorded until the subject is off the page, so that its moments can be read after take-down.
    sandbox.onTakeDown(() => this.history.stop());
    body.appendChild(this.container);
    sandbox.onTakeDown(() => {
      this.container.remove();
      if (!own) giveBackContainer(this.container, environment);
    });
    sandbox.checks.push(() => this.network.complaint());
    // Runs right after the subject was unmounted.
    sandbox.onTakeDown(() => this.refuseLeaks());
    sandbox.onTakeDown(() => {
      chronicle.add('unmounted', name);
      return this.mounted?.unmount();
    });
  }

  /** Refuses what is left after the subject was unmounted; put here when its options are read. */
  refuseLeaks: () => void = () => undefined;

  /** To be called before each turn of coming to rest. */
  readonly onTurn = (): void => this.#watch.reset();

  /** To be called after each rendering that reached the page. */
  readonly onRendered = (sure = true): void => {
    if (this.environment.state !== 'up' || (!sure && !this.history.changed)) return;
    this.renders++;
    this.#watch.count();
    const moment = this.history.mark();
    this.chronicle.add('rendered', this.setting.name, { detail: () => this.history.changesAt(moment) });
  };

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
    const fields = { gesture: this.#gesture, threw, subject: name };
    this.onThrown(explain('SIM-HANDLER-THREW', fields, told));
  };

  readonly onTold = (output: string, args: readonly unknown[]): void => {
    this.chronicle.add('emitted', this.setting.name, { detail: printCall(output, args) });
  };

  /** The same promise, given up when the subject renders without end. @throws SIM-REST-NEVER */
  watched<T>(work: Promise<T>): Promise<T> {
    this.#watch.reset();
    return this.#watch.unlessEndless(work);
  }

  /** Runs something a test does to the subject, then brings the page to rest. @throws what came of it */
  async act(gesture: string, work: () => unknown): Promise<void> {
    this.#gesture = gesture;
    this.environment.gate.stepsRunning++;
    try {
      await runAs(this.environment, work);
      await this.atRest();
    } finally {
      this.environment.gate.stepsRunning--;
      this.#gesture = 'waited';
    }
  }

  /** Runs work that moves the clock. */
  async moving(work: () => Promise<void>): Promise<void> {
    this.#gesture = 'moved the clock';
    this.environment.gate.stepsRunning++;
    pageTime.clock?.refill();
    try {
      await work();
    } finally {
      this.environment.gate.stepsRunning--;
      this.#gesture = 'waited';
    }
  }

  /** True while something is under way that a turn would take further. */
  get isBusy(): boolean {
    const { gate, work } = this.environment;
    const isPending = this.adapter.isPending?.(this.container) === true;
    return isPending || !gate.isEmpty || work.isActive || pageTime.clock?.isDue === true;
  }

  /** Resolves at rest. @throws what was thrown meanwhile, all of it, once */
  async atRest(): Promise<void> {
    await this.watched(runAs(this.environment, () => comeToRest(this)));
    const failures = this.environment.takeFailures();
    this.#thrown = undefined;
    if (failures.length > 0) throw joinComplaints(failures);
  }

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

  /** What a search looks at: the subject's place, and what it has put elsewhere on the page. */
  view(): View {
    const { stubs, adapter } = this.setting;
    return {
      roots: this.#roots(),
      stubs: () => this.#stubsShown(),
      nameOf: (component) =>
        typeof component === 'string' ? component : (adapter.nameOf(component) ?? print(component)),
      partsOf: (component) => {
        const record = stubs.find(component);
        if (record) return record.inPageOrder().flatMap((instance) => instance.element() ?? []);
        return (this.mounted?.instancesOf(fitting(adapter, component)) ?? []).flatMap(
          ({ element }) => element ?? [],
        );
      },
    };
  }

  #stubsShown(): StubShown[] {
    return this.setting.stubs.records.flatMap((record) => {
      const elements = record.instances.flatMap((instance) => instance.element() ?? []);
      const { name, listed, how } = record;
      // If the test gave the stub a rendering of its own, its inside is rendered.
      if (elements.length === 0 || how.render !== undefined) return [];
      const instead = listed ? `take ${name} out of "stub"` : `keep: [${name}]`;
      return [{ name, elements, instead }];
    });
  }

  #pending(): Pending[] {
    const { work } = this.environment;
    const { clock } = pageTime;
    const open = work.open
      .filter(({ held, due }) => held || due !== undefined)
      .map(({ label, held, due }) => ({ label, due: held ? undefined : due! - readClock() }));
    const scheduled = clock?.scheduled.map(({ label, at }) => ({ label, due: at - clock.now() })) ?? [];
    return [...open, ...scheduled].filter(({ due }) => due === undefined || due > 0);
  }

  // The last answer, if no rendering followed it.
  #still(): readonly string[] {
    const answered = this.chronicle.lastWithout('answered', 'rendered');
    if (!answered) return [];
    const hint = this.adapter.stillHint?.() ?? [];
    return hint.length > 0
      ? [`${answered.what} was answered, and nothing was rendered after that.`, ...hint]
      : [];
  }

  readonly #outside: Outside;

  #roots(): Element[] {
    return [this.container, ...this.#outside.roots()];
  }

  /** What a message tells beside its own matter. */
  background(calledAt?: Error) {
    return {
      calledAt,
      chronicle: this.chronicle,
      pending: () => this.#pending(),
      still: () => this.#still(),
      goBack: (look: (frame: Element) => boolean) => void this.history.goBack(({ frame }) => look(frame)),
    };
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
    count: () => {
      if (++renders !== mostRenders) return;
      for (const giveUp of waiting) giveUp(explain('SIM-REST-NEVER', fields()));
    },
  };
}
