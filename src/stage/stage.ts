import { callListeners, printCall } from '../core/spy';
import { ChronicleLog } from '../core/chronicle';
import { isExplained } from '../core/errors';
import { explain, refuse } from './errors';
import { print } from '../core/print';
import { Sandbox } from '../core/sandbox';
import { shared } from '../core/shared';
import { connect } from '../network/fetch';
import { Network } from '../network/network';
import { PageHistory } from '../page/history';
import { subjectMark, type View } from '../page/query';
import type { Adapter, Mounted } from './adapter';
import { listenToConsole } from './console';
import { comeToRest } from './rest';
import type { StubSet } from './stubs';
import type { PlacedSwaps } from '../seam/place';

interface Setting {
  readonly adapter: Adapter;
  readonly name: string;
  readonly routes: Readonly<Record<string, unknown>>;
  readonly stubs: StubSet;
  readonly swaps: PlacedSwaps;
}

/** Everything around one subject: where it is rendered, who answers it, what happened to it. */
export class Stage {
  readonly sandbox = new Sandbox();
  readonly chronicle = new ChronicleLog();
  readonly container: HTMLElement;
  readonly history: PageHistory;
  readonly network: Network;
  mounted: Mounted | undefined;
  /** What was thrown out of the subject and not told to the test yet. */
  readonly #thrown: Error[] = [];
  /** What the test is doing, for an error that comes of it. */
  #gesture = 'rendered the subject';
  #down = false;
  readonly #watch = watchRenders(() => ({
    subject: this.setting.name,
    turns: mostRenders,
    busy: `rendered ${this.setting.name}`,
  }));

  constructor(readonly setting: Setting) {
    const { routes, name, swaps } = setting;
    this.sandbox.onTakeDown(() => swaps.takeAway());
    swaps.owner.isRunning = () => this.#running() !== undefined;
    this.container = makeContainer(name);
    this.network = new Network(routes, { name, chronicle: this.chronicle, running: this.#running });
    this.history = new PageHistory(
      this.container,
      (child) => child === this.container || isOutside(this.container, child),
    );
    // Watched until it is off the page again, so that its moments can be told after the take-down.
    this.sandbox.onTakeDown(() => this.history.stop());
    document.body.appendChild(this.container);
    this.sandbox.onTakeDown(() => this.container.remove());
    this.sandbox.onTakeDown(connect(this.network));
    this.sandbox.onTakeDown(listenToConsole(this.chronicle));
    this.#listenToCalls();
    this.#listenToErrors();
    this.sandbox.checks.push(() => this.#refuseUnmatched());
    this.sandbox.onTakeDown(() => {
      this.#down = true;
      this.chronicle.add('unmounted', name);
      return this.mounted?.unmount();
    });
  }

  readonly #running = () => this.setting.adapter.running(this.container);

  /** To be called after each rendering that reached the page. */
  readonly onRendered = (sure = true): void => {
    if (this.#down || (!sure && !this.history.changed)) return;
    this.#watch.count();
    const moment = this.history.mark();
    this.chronicle.add('rendered', this.setting.name, { detail: () => this.history.news(moment) });
  };

  readonly onThrown = (error: Error): void => {
    this.chronicle.add('threw', this.setting.name, { detail: error.message.split('\n')[0]! });
    this.#thrown.push(error);
  };

  /** Words what a listener threw, by what the test was doing. */
  readonly onListenerThrew = (error: unknown): void => {
    if (isExplained(error)) return this.onThrown(error);
    const threw = error instanceof Error ? `${error.name}: ${error.message}` : print(error);
    const fields = { gesture: this.#gesture, threw, subject: this.setting.name };
    this.onThrown(explain('SIM-HANDLER-THREW', fields, { cause: error, chronicle: this.chronicle }));
  };

  readonly onTold = (output: string, args: readonly unknown[]): void => {
    this.chronicle.add('emitted', this.setting.name, { detail: () => printCall(output, args) });
  };

  #listenToCalls(): void {
    const listen = (name: string, args: readonly unknown[]) => {
      this.chronicle.add('called', name, { detail: printCall('', args), from: this.#running() });
    };
    callListeners.add(listen);
    this.sandbox.onTakeDown(() => callListeners.delete(listen));
  }

  // Errors of event handlers reach nothing but the window's own event for them.
  #listenToErrors(): void {
    const listen = (event: ErrorEvent) => {
      event.preventDefault();
      const { error } = event as { error: unknown };
      if (this.#thrown.some((known) => known === error || known.cause === error)) return;
      if (this.setting.adapter.willReport?.(this.container)) return;
      this.onListenerThrew(error ?? event.message);
    };
    window.addEventListener('error', listen);
    this.sandbox.onTakeDown(() => window.removeEventListener('error', listen));
  }

  #refuseUnmatched(): void {
    const complaint = this.network.complaint();
    if (complaint) throw complaint;
  }

  /** The same promise, given up when the subject renders without end. @throws SIM-REST-NEVER */
  watched<T>(work: Promise<T>): Promise<T> {
    this.#watch.reset();
    return Promise.race([work, this.#watch.endless]);
  }

  /** Runs something a test does to the subject, then brings the page to rest. @throws what came of it */
  async act(gesture: string, work: () => unknown): Promise<void> {
    this.#gesture = gesture;
    await work();
    await this.atRest();
  }

  /** Resolves at rest. @throws what was thrown meanwhile, once */
  async atRest(): Promise<void> {
    const busy = () => {
      const last = this.chronicle.entries.at(-1);
      return last ? `${last.kind} ${last.what}` : 'nothing that could be seen';
    };
    await this.watched(
      comeToRest(this.setting.adapter, { name: this.setting.name, busy, onTurn: this.#watch.reset }),
    );
    const thrown = this.#thrown[0];
    if (!thrown) return;
    this.#thrown.length = 0;
    this.sandbox.explained = true;
    throw thrown;
  }

  /** @throws SIM-SUBJECT-GONE after the take-down */
  refuseGone(asked: string, calledAt: Error): void {
    if (this.#down) refuse('SIM-SUBJECT-GONE', { subject: this.setting.name, asked }, { calledAt });
  }

  /** What a search looks at: the subject's place, and what it has put elsewhere on the page. */
  view(): View {
    const { stubs, adapter } = this.setting;
    return {
      roots: [this.container, ...outsideOf(this.container)],
      nameOf: (component) =>
        typeof component === 'string' ? component : (adapter.nameOf(component) ?? print(component)),
      partsOf: (component) => {
        const record = stubs.find(component);
        if (record) return record.inPageOrder().flatMap((instance) => instance.element() ?? []);
        return (this.mounted?.instancesOf(component) ?? []).flatMap(({ element }) => element ?? []);
      },
    };
  }

  /** What a message tells beside its own matter. */
  background(calledAt?: Error) {
    return {
      calledAt,
      chronicle: this.chronicle,
      unanswered: this.network.unmatched.map(({ asked }) => asked),
      earlier: () => this.history.frames().reverse(),
    };
  }
}

const mostRenders = 1000;

/**
 * A component that sets its own state in a promise renders without end, and the framework's scope
 * goes on as long as it does: only counting tells.
 */
function watchRenders(fields: () => { subject: string; turns: number; busy: string }) {
  let renders = 0;
  let giveUp: (reason: unknown) => void = () => undefined;
  const endless = new Promise<never>((_, reject) => (giveUp = reject));
  endless.catch(() => undefined);
  return {
    endless,
    reset: () => void (renders = 0),
    count: () => {
      if (++renders === mostRenders) giveUp(explain('SIM-REST-NEVER', fields()));
    },
  };
}

// What the page held before a subject came belongs to the test, and no subject is looked for in it.
const before = new WeakMap<Element, ReadonlySet<Element>>();

function makeContainer(name: string): HTMLElement {
  const container = document.createElement('div');
  const there = new Set<Element>();
  // By hand: a live collection is slow to list in a simulated page.
  for (let at = document.body.firstElementChild; at; at = at.nextElementSibling) there.add(at);
  before.set(container, there);
  container.setAttribute(subjectMark, name);
  return container;
}

const outsideOf = (container: HTMLElement): Element[] =>
  [...document.body.children].filter((element) => element !== container && isOutside(container, element));

const isOutside = (container: HTMLElement, element: Element): boolean =>
  !element.hasAttribute(subjectMark) && !before.get(container)?.has(element);

/** The stages that are up in this process. */
export const stages = (shared.rooms['stages'] ??= new Set()) as Set<Stage>;
