import type { Environment } from './environment';

/** What can be scheduled on a clock. */
export type DueKind = 'timeout' | 'interval' | 'frame' | 'idle' | 'signal' | 'answer';

/** What to schedule. */
export interface Schedule {
  readonly kind: DueKind;
  /** `setTimeout 300 ms`, `GET /api/hives`. */
  readonly label: string;
  /** Milliseconds from now. */
  readonly delay: number;
  /** Milliseconds between one time and the next, for what repeats. */
  readonly every?: number | undefined;
  readonly run: () => void;
  /** The subject and the component it belongs to, where that is known. */
  readonly owner?: Environment | undefined;
  readonly from?: string | undefined;
  /** Where the call was made; read only for a message. */
  readonly calledAt?: Error | undefined;
}

/** Something that is scheduled. */
export class Scheduled implements Schedule {
  readonly kind: DueKind;
  readonly label: string;
  readonly delay: number;
  readonly every: number | undefined;
  readonly run: () => void;
  readonly owner: Environment | undefined;
  readonly from: string | undefined;
  readonly calledAt: Error | undefined;
  isOver = false;

  constructor(
    what: Schedule,
    /** When it is due, on the clock's {@link VirtualClock.now}. */
    public at: number,
    public order: number,
    /** How many timers started each other before this one, each while the one before it ran. */
    readonly level: number,
  ) {
    // Field by field, because spreading is slow here.
    this.kind = what.kind;
    this.label = what.label;
    this.delay = what.delay;
    this.every = what.every;
    this.run = what.run;
    this.owner = what.owner;
    this.from = what.from;
    this.calledAt = what.calledAt;
  }
}

/** A clock that stands still until a test moves it. It runs what is scheduled in the order of time. */
export class VirtualClock {
  #now: number;
  readonly #start: number;
  readonly #heap: Scheduled[] = [];
  #order = 0;
  #running: Scheduled | undefined;
  /** How many timers have run. */
  ran = 0;
  /** How many more places of calls may be remembered until the next {@link refill}. */
  #places = mostPlaces;
  /** The steps that move the clock, one after the other. */
  line: Promise<unknown> = Promise.resolve();

  constructor(
    /** What the page's own clock read when this one took over, in milliseconds. */
    start: number,
    /** The date at that moment, in milliseconds since 1970. */
    readonly epoch: number,
    /** The time zone it was asked for with. */
    readonly zone: string | undefined,
  ) {
    this.#start = this.#now = start;
  }

  /** Milliseconds on a clock that never goes back. */
  now(): number {
    return this.#now;
  }

  /** Milliseconds since 1970. */
  date(): number {
    return this.epoch + (this.#now - this.#start);
  }

  /** How many timers have started each other up to the one that runs now. */
  get level(): number {
    return this.#running ? this.#running.level + 1 : 0;
  }

  /** True where the next call may be remembered with its place. A stack takes longer than a timer. */
  takePlace(): boolean {
    return --this.#places >= 0;
  }

  /** Allows for the places of more calls. */
  refill(): void {
    this.#places = mostPlaces;
  }

  schedule(what: Schedule): Scheduled {
    const at = this.#now + Math.max(0, what.delay);
    const scheduled = new Scheduled(what, at, this.#order++, this.level);
    this.#push(scheduled);
    return scheduled;
  }

  /** The milliseconds to the next frame. All that is asked for before it runs in the same one. */
  get toFrame(): number {
    const past = (this.#now - this.#start) % frame;
    return frame - past;
  }

  cancel(scheduled: Scheduled): void {
    scheduled.isOver = true;
  }

  /** What is due next. */
  get next(): Scheduled | undefined {
    while (this.#heap[0]?.isOver) this.#pop();
    return this.#heap[0];
  }

  /** True where something is due now. */
  get isDue(): boolean {
    const { next } = this;
    return next !== undefined && next.at <= this.#now;
  }

  /** Everything that is scheduled, in the order of time. */
  get scheduled(): Scheduled[] {
    return this.#heap.filter(({ isOver }) => !isOver).sort(inOrder);
  }

  /** Moves on to a moment. Nothing is run; moments that have passed are left alone. */
  moveTo(at: number): void {
    if (at > this.#now) this.#now = at;
  }

  /** Runs what is due next, at the moment it is due. */
  runNext(): void {
    const { next } = this;
    if (!next) return;
    this.moveTo(next.at);
    this.#pop();
    if (next.every === undefined) next.isOver = true;
    else {
      next.at += next.every;
      next.order = this.#order++;
      this.#push(next);
    }
    this.ran++;
    this.#running = next;
    try {
      next.run();
    } finally {
      this.#running = undefined;
    }
  }

  // A binary heap: a test may wait through very many timers.
  #push(scheduled: Scheduled): void {
    const heap = this.#heap;
    let at = heap.push(scheduled) - 1;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (inOrder(heap[parent]!, scheduled) <= 0) break;
      heap[at] = heap[parent]!;
      at = parent;
    }
    heap[at] = scheduled;
  }

  #pop(): void {
    const heap = this.#heap;
    const last = heap.pop();
    if (!last || heap.length === 0) return;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= heap.length) break;
      if (child + 1 < heap.length && inOrder(heap[child + 1]!, heap[child]!) < 0) child++;
      if (inOrder(last, heap[child]!) <= 0) break;
      heap[at] = heap[child]!;
      at = child;
    }
    heap[at] = last;
  }
}

const inOrder = (a: Scheduled, b: Scheduled): number => a.at - b.at || a.order - b.order;

const mostPlaces = 1000;
const frame = 16;
