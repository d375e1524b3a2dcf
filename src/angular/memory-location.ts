import { LocationStrategy, type LocationChangeListener } from '@angular/common';
import type { ChronicleLog } from '../core/chronicle';

interface Entry {
  readonly url: string;
  readonly state: unknown;
}

/** Where a subject is and was, kept in memory: the page's own address stays what it is. */
export class MemoryLocation extends LocationStrategy {
  #entries: Entry[];
  #at = 0;
  readonly #listeners: LocationChangeListener[] = [];

  constructor(
    start: string,
    private readonly chronicle: ChronicleLog,
  ) {
    super();
    this.#entries = [{ url: start, state: null }];
  }

  override path(includeHash = false): string {
    const { url } = this.#entries[this.#at]!;
    return includeHash ? url : url.split('#')[0]!;
  }

  override prepareExternalUrl = (internal: string): string => internal || '/';

  override pushState(state: unknown, _: string, url: string, query: string): void {
    this.#entries = [...this.#entries.slice(0, this.#at + 1), { url: join(url, query), state }];
    this.#at++;
    this.chronicle.add('navigated', this.path(true));
  }

  override replaceState(state: unknown, _: string, url: string, query: string): void {
    const next = join(url, query);
    if (next !== this.path(true)) this.chronicle.add('navigated', next);
    this.#entries[this.#at] = { url: next, state };
  }

  override back = (): void => this.historyGo(-1);
  override forward = (): void => this.historyGo(1);

  override historyGo(steps = 0): void {
    const to = this.#at + steps;
    if (!this.#entries[to] || steps === 0) return;
    this.#at = to;
    this.chronicle.add('navigated', this.path(true));
    const event = { type: 'popstate', state: this.getState() };
    for (const listen of this.#listeners) listen(event as never);
  }

  override onPopState(listen: LocationChangeListener): void {
    this.#listeners.push(listen);
  }

  override getBaseHref = (): string => '';
  override getState = (): unknown => this.#entries[this.#at]!.state;
}

const join = (url: string, query: string): string =>
  `${url || '/'}${query && `?${query.replace(/^\?/, '')}`}`;
