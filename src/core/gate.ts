import { directing, type Director } from './director';
import { nextTurn } from './host';

/** An answer that is ready and waits to be let through. */
export interface PendingAnswer {
  readonly id: string;
  /** What it answers: `GET /api/hives`, `log()`. */
  readonly label: string;
}

/**
 * If an answer arrived immediately, it would be rendered together with the loading state, which nobody would
 * see. So each answer waits at the gate of its environment, which opens after everything before it was
 * rendered.
 */
export class Gate {
  #waiting: (PendingAnswer & { readonly go: () => void })[] = [];
  #count = 0;
  #closed = false;
  /** How many steps of a test are under way: they open the gate, else it opens by itself. */
  stepsRunning = 0;
  /** How many answers have been let through. */
  passed = 0;
  /** Told before answers are let through. */
  onOpening: (() => void) | undefined;

  /** What waits, oldest first. */
  get pending(): readonly PendingAnswer[] {
    return this.#waiting.map(({ id, label }) => ({ id, label }));
  }

  get isEmpty(): boolean {
    return this.#waiting.length === 0;
  }

  /**
   * Waits until it is let through; after the environment was taken down, for ever.
   *
   * @param signal where orders of arrival are tried, an answer that nobody wants any more is no part of them
   */
  pass(label: string, signal?: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      if (this.#closed) return;
      const one = { id: `${++this.#count}`, label, go: resolve };
      this.#waiting.push(one);
      if (signal && directing.current)
        signal.addEventListener('abort', () => {
          this.#waiting = this.#waiting.filter((other) => other !== one);
        });
      if (this.#waiting.length === 1) void this.#openUnattended();
    });
  }

  /** Lets through what waits; what comes later waits for the next opening. @param ids only these, in this order */
  open(ids?: readonly string[]): void {
    if (this.onOpening && !this.isEmpty) this.onOpening();
    const chosen = ids
      ? ids.flatMap((id) => this.#waiting.filter((one) => one.id === id))
      : this.#waiting.splice(0);
    if (ids) this.#waiting = this.#waiting.filter((one) => !chosen.includes(one));
    this.passed += chosen.length;
    for (const { go } of chosen) go();
  }

  /** Lets nothing through any more. */
  close(): void {
    this.#closed = true;
    this.#waiting = [];
  }

  // Between the steps of a test nothing runs turns, but a timer of the component may send a request.
  async #openUnattended(): Promise<void> {
    await nextTurn();
    await nextTurn();
    if (this.stepsRunning === 0) {
      const { current } = directing;
      if (!current) return this.open();
      const id = this.unattended?.(current);
      if (id !== undefined) this.open([id]);
    }
    if (!this.isEmpty) void this.#openUnattended();
  }

  /** Asks a director what arrives while the test does something else; put here by the environment. */
  unattended: ((director: Director) => string | undefined) | undefined;
}
