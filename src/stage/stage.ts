import type { Environment } from '../core/environment';
import { readClock } from '../core/host';
import { print } from '../core/print';
import { printCall } from '../core/spy';
import { pageTime } from '../core/page-time';
import { PageHistory } from '../page/history';
import type { Pending } from '../page/errors';
import type { StubShown, View } from '../page/query';
import type { PlacedSwaps } from '../seam/place';
import type { Adapter, Mounted } from './adapter';
import { Outside } from './claims';
import { fitting } from './declared';
import { giveBackContainer, markContainer, takeContainer } from './containers';
import { Ground } from './ground';
import type { StubSet } from './stubs';

interface Setting {
  readonly adapter: Adapter;
  readonly name: string;
  readonly routes: Readonly<Record<string, unknown>>;
  readonly stubs: StubSet;
  readonly swaps: PlacedSwaps;
}

/** Everything around one subject: where it is rendered, who answers it, what happened to it. */
export class Stage extends Ground {
  override readonly container: HTMLElement;
  readonly history: PageHistory;
  mounted: Mounted | undefined;

  constructor(
    environment: Environment,
    override readonly setting: Setting,
  ) {
    super(environment, setting);
    const { name, swaps, adapter } = setting;
    const { sandbox } = environment;
    environment.running = () => adapter.running(this.container);
    environment.onUncaught = (error) => {
      if (!adapter.willReport?.(this.container)) this.onListenerThrew(error);
    };
    swaps.owner.isRunning = () => environment.running() !== undefined;
    const { body } = document;
    const own = adapter.takeContainer?.();
    this.container = own ?? takeContainer(name);
    if (own) markContainer(own, name);
    this.#outside = new Outside(environment, body, (element) => adapter.owns?.(this.container, element));
    this.history = new PageHistory(this.container, body, () => this.#roots());
    // Recorded until the subject is off the page, so that its moments can be read after take-down.
    sandbox.onTakeDown(() => this.history.stop());
    // Not by the body's own function, which notes what a subject puts there.
    const { Node } = document.defaultView as Window & typeof globalThis;
    Node.prototype.appendChild.call(body, this.container);
    sandbox.onTakeDown(() => {
      this.container.remove();
      if (!own) giveBackContainer(this.container, environment);
    });
    // Runs right after the subject was unmounted.
    sandbox.onTakeDown(() => this.refuseLeaks());
    sandbox.onTakeDown(() => {
      this.chronicle.add('unmounted', name);
      return this.mounted?.unmount();
    });
  }

  override get adapter(): Adapter {
    return this.setting.adapter;
  }

  /** To be called after each rendering that reached the page. */
  readonly onRendered = (sure = true): void => {
    if (this.environment.state !== 'up' || (!sure && !this.history.changed)) return;
    // The step that waits may not even hear that it was given up.
    if (this.countRendering()) this.mounted?.giveUp?.();
    const moment = this.history.mark();
    this.chronicle.add('rendered', this.setting.name, { detail: () => this.history.changesAt(moment) });
  };

  readonly onTold = (output: string, args: readonly unknown[]): void => {
    this.chronicle.add('emitted', this.setting.name, { detail: printCall(output, args) });
  };

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

  /** What a message says beside its own matter. */
  override background(calledAt?: Error) {
    return {
      calledAt,
      chronicle: this.chronicle,
      pending: () => this.#pending(),
      still: () => this.#still(),
      goBack: (look: (frame: Element) => boolean) => void this.history.goBack(({ frame }) => look(frame)),
    };
  }
}
