import { fail } from './answers';
import { noteMade } from './left';
import { Memory } from './memory';
import { ownerOfCall } from './ownership';
import { directed } from './director';
import { restOfAll } from './rest-of-all';
import { readScore } from './score';
import { errorOf } from './settle-answer';
import { asObservable, asTarget } from './observable';

/**
 * A source of many values: readings, alerts, progress. Iterate over it with `for await`, or subscribe to it as
 * to an Observable. It does not replay: a listener misses what was emitted before it subscribed. Each subject
 * subscribes afresh.
 */
export interface Stream<T> extends AsyncIterable<T> {
  readonly simulacra: 'stream';
  /** How many listen now. */
  readonly listeners: number;
  /** Calls all listeners; resolves when the page is at rest. @throws what a listener threw, after all were called */
  emit(value: T): Promise<void>;
  /** Ends for everyone who listens or will listen; resolves when the page is at rest. */
  end(): Promise<void>;
  /** Fails for everyone who listens or will listen; resolves when the page is at rest. */
  fail(reason?: unknown): Promise<void>;
  /**
   * Emits what a score says, on the page's clock: moments and values, as `String(record(…))` prints them.
   *
   * @param score `300ms 31.2; 600ms 31.4; 1s end`
   * @throws SIM-SCORE
   */
  play(score: string): void;
  /** Listens, as to an Observable. @see https://github.com/tc39/proposal-observable */
  subscribe(
    listener?: Partial<Listener<T>> | ((value: T) => void) | null,
    error?: ((reason: unknown) => void) | null,
    complete?: (() => void) | null,
  ): { unsubscribe(): void };
  /** Applies operators of an Observable library, as its own Observables do. */
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- the operators of whatever library
  pipe(...operators: ((source: any) => any)[]): any;
  /** Listens as to an EventTarget: the event has the value as its `data`. @see https://dom.spec.whatwg.org/#interface-eventtarget */
  addEventListener(type: string, listener: EventListenerOrEventListenerObject | null): void;
  removeEventListener(type: string, listener: EventListenerOrEventListenerObject | null): void;
}

/** What hears a stream. */
export interface Listener<T> {
  /** True for a listener that ends with something a message names already: a socket, a response. */
  readonly isPart?: boolean;
  next?(value: T): void;
  error?(reason: unknown): void;
  complete?(): void;
}

type Word<T> = (listener: Listener<T>) => void;

/** What a stream remembers for one subject. */
interface State<T> {
  readonly listeners: Set<Listener<T>>;
  /** How it ended. */
  last: Word<T> | undefined;
}

/**
 * An answer that emits many values: every listener receives each value when the test emits it.
 *
 * @example
 * const readings = stream<number>();
 * const heard: number[] = [];
 * readings.subscribe((kilograms) => heard.push(kilograms));
 * await readings.emit(31.2);
 * expect(heard).toEqual([31.2]);
 */
export function stream<T>(): Stream<T> {
  // A listener of the test itself hears values whichever subjects are up. Each subject starts afresh.
  const memory = new Memory<State<T>>((outside) => ({ listeners: new Set(), last: outside?.last }));
  const states = () => new Set([memory.of(undefined), ...memory.live()]);
  const tellNow = (word: Word<T>, isLast: boolean): void => {
    const thrown: unknown[] = [];
    for (const state of states()) {
      if (state.last) continue;
      if (isLast) state.last = word;
      for (const listener of [...state.listeners]) {
        try {
          word(listener);
        } catch (error) {
          thrown.push(error);
        }
      }
      if (isLast) state.listeners.clear();
    }
    if (thrown.length > 0) throw thrown[0];
  };
  const tell = (word: Word<T>, isLast: boolean) =>
    directed('a value of a stream', async () => {
      try {
        tellNow(word, isLast);
      } finally {
        await restOfAll();
      }
    });
  const failing = (reason: unknown): Word<T> => {
    const error = errorOf(fail(reason));
    return (listener) => listener.error?.(error);
  };
  const ending: Word<T> = (listener) => listener.complete?.();
  const double: Stream<T> = {
    simulacra: 'stream',
    get listeners() {
      return [...states()].reduce((sum, { listeners }) => sum + listeners.size, 0);
    },
    emit: (value) => tell((listener) => listener.next?.(value), false),
    end: () => tell(ending, true),
    fail: (reason) => tell(failing(reason), true),
    play: (score) => {
      const { notes, end } = readScore(score, double.play);
      // The page's own timers, so that a virtual clock moves them.
      for (const { at, value } of notes)
        setTimeout(() => tellNow((listener) => listener.next?.(value as T), false), at);
      if (end) setTimeout(() => tellNow(end.failed ? failing(end.reason) : ending, true), end.at);
    },
    subscribe: (given, error, complete) =>
      subscribe(memory.of(ownerOfCall()), listenerOf(given, error, complete)),
    ...asObservable(() => double),
    ...asTarget((listener) => double.subscribe(listener)),
    [Symbol.asyncIterator]: () => iterate(double),
  };
  // Observable libraries recognize each other by one of these members.
  const observable = (Symbol as { observable?: symbol }).observable ?? '@@observable';
  return Object.defineProperty(double, observable, { value: () => double });
}

const listenerOf = <T>(
  given: Partial<Listener<T>> | ((value: T) => void) | null | undefined,
  error: ((reason: unknown) => void) | null | undefined,
  complete: (() => void) | null | undefined,
): Listener<T> =>
  typeof given === 'object' && given !== null
    ? given
    : { ...(given && { next: given }), ...(error && { error }), ...(complete && { complete }) };

function subscribe<T>({ listeners, last }: State<T>, listener: Listener<T>) {
  if (last) last(listener);
  else listeners.add(listener);
  const end =
    last || listener.isPart
      ? undefined
      : noteMade('a subscription to a stream', subscribe, () => !listeners.has(listener));
  const unsubscribe = () => {
    listeners.delete(listener);
    end?.();
  };
  // A listener of an Observable library says that it is done by what is added to it.
  const { add } = listener as { add?: (work: () => void) => void };
  if (typeof add === 'function') add.call(listener, unsubscribe);
  return { unsubscribe };
}

/** One iteration: what was emitted waits until it is asked for, and who asks waits until it is emitted. */
function iterate<T>(double: Stream<T>): AsyncIterableIterator<T> {
  type Result = IteratorResult<T>;
  const heard: (() => Promise<Result>)[] = [];
  const asking: ((result: Promise<Result>) => void)[] = [];
  let over = false;
  const done = () => Promise.resolve<Result>({ value: undefined, done: true });
  const hear = (what: () => Promise<Result>, isLast = false) => {
    if (over) return;
    const waiting = asking.shift();
    if (waiting) waiting(what());
    else heard.push(what);
    if (isLast) close();
  };
  const close = () => {
    over = true;
    unsubscribe();
    for (const answer of asking.splice(0)) answer(done());
  };
  let unsubscribe: () => void = () => undefined;
  const subscription = double.subscribe({
    next: (value) => hear(() => Promise.resolve({ value, done: false })),
    error: (reason) => hear(() => Promise.reject(reason as Error), true),
    complete: () => hear(done, true),
  });
  unsubscribe = () => subscription.unsubscribe();
  if (over) unsubscribe();
  return {
    next() {
      const ready = heard.shift();
      if (ready) return ready();
      return over ? done() : new Promise<Result>((resolve) => asking.push(resolve));
    },
    return() {
      heard.length = 0;
      close();
      return done();
    },
    [Symbol.asyncIterator]() {
      return this;
    },
  };
}
