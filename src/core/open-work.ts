import { readClock } from './host';
import type { Made } from './left';
import type { DueKind } from './virtual-clock';

/** What kinds of work can be under way. */
export type WorkKind = 'request' | 'body' | 'timer' | 'import' | 'channel' | 'framework';

/** Work that has begun and not ended yet. */
export interface OpenItem {
  readonly kind: WorkKind;
  /** `GET /api/hives`, `setTimeout 300 ms`. */
  readonly label: string;
  /** When it is due, on the clock of {@link readClock}; undefined for what ends by itself. */
  readonly due: number | undefined;
  /** True where nothing but the test can end it: an answer that is held. */
  readonly held: boolean;
  /** What a timer is. */
  readonly what?: DueKind;
  /** Who made a timer of the page. */
  readonly made?: Made | undefined;
  /** True for a timer that is due at once. */
  readonly isImmediate?: boolean;
}

// Timers this short count as due immediately: platforms raise 0 to 1 ms.
const immediately = 1;
// A timer that is overdue by this much was cancelled in a way we could not see.
const lost = 1000;

/** Everything a subject has under way. Rest is decided from it. */
export class OpenWork {
  #items: Set<OpenItem> | undefined;
  #timers: Set<OpenItem> | undefined;
  /** How many items are neither held nor timers. */
  #active = 0;
  /** Grows whenever work begins or ends. */
  changes = 0;
  /** Told of every beginning and end, while somebody waits for one. */
  onChange: (() => void) | undefined;

  /** Takes down that work has begun. @returns how to say that it has ended; it may be called twice */
  begin(kind: WorkKind, label: string, { held = false }: { readonly held?: boolean } = {}): () => void {
    const item: OpenItem = { kind, label, due: undefined, held };
    (this.#items ??= new Set()).add(item);
    this.changes++;
    if (!held) this.#active++;
    this.onChange?.();
    return () => {
      if (!this.#items?.delete(item)) return;
      this.changes++;
      if (!held) this.#active--;
      this.onChange?.();
    };
  }

  /** Does work, which counts as under way until it is done. */
  async during<T>(kind: WorkKind, label: string, work: () => Promise<T>): Promise<T> {
    const end = this.begin(kind, label);
    try {
      return await work();
    } finally {
      end();
    }
  }

  /** Takes down a timer. @param delay milliseconds @returns how to say that it has run or was cleared */
  beginTimer(what: DueKind, label: string, delay: number, made?: Made): () => void {
    const isImmediate = delay <= immediately;
    const due = readClock() + Math.max(0, delay);
    const item: OpenItem = { kind: 'timer', label, due, held: false, isImmediate, what, made };
    (this.#timers ??= new Set()).add(item);
    if (isImmediate) this.changes++;
    this.onChange?.();
    return () => {
      if (!this.#timers?.delete(item)) return;
      if (isImmediate) this.changes++;
      this.onChange?.();
    };
  }

  /** How many promises that the test's own code gave as answers are pending: they settle at a time nobody knows. */
  promised = 0;

  /** Everything that is open, timers last. */
  get open(): readonly OpenItem[] {
    return [...(this.#items ?? []), ...(this.#timers ?? [])];
  }

  /** True while something is under way that neither the test nor a later moment has to set off. */
  get isActive(): boolean {
    return this.#active > 0;
  }

  /** The work that is under way, for a message. */
  get active(): readonly OpenItem[] {
    return [...(this.#items ?? [])].filter(({ held }) => !held);
  }

  /** The timers that have not run yet, the next first. Those that were cancelled unseen are left out. */
  get timers(): OpenItem[] {
    const found = readClock() - lost;
    return [...(this.#timers ?? [])].filter(({ due }) => due! > found).sort((a, b) => a.due! - b.due!);
  }

  /** The timers that are due at once, or were due by a moment, and have not run yet. */
  timersDue(by: number): OpenItem[] {
    if (!this.#timers?.size) return [];
    const found = readClock() - lost;
    return [...this.#timers].filter(({ due, isImmediate }) => (isImmediate || due! <= by) && due! > found);
  }
}
