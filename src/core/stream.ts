import { fail } from './answers';
import { nextTurn } from './host';
import { errorOf } from './settle-answer';
import { shared } from './shared';

/**
 * A double of something that goes on: readings, alerts, progress. It can be iterated over with
 * `for await`, and subscribed to as an Observable is; it remembers nothing, so what is emitted before
 * anybody listens is not heard.
 */
export interface Stream<T> extends AsyncIterable<T> {
  readonly simulacra: 'stream';
  /** How many listen now. */
  readonly listeners: number;
  /** Tells everyone who listens; resolves when the page is at rest. */
  emit(value: T): Promise<void>;
  /** Ends for everyone who listens or will listen; resolves when the page is at rest. */
  end(): Promise<void>;
  /** Fails for everyone who listens or will listen; resolves when the page is at rest. */
  fail(reason?: unknown): Promise<void>;
  /** Listens, as to an Observable. @see https://github.com/tc39/proposal-observable */
  subscribe(listener: Listener<T> | ((value: T) => void)): { unsubscribe(): void };
}

/** What hears a stream. */
export interface Listener<T> {
  next?(value: T): void;
  error?(reason: unknown): void;
  complete?(): void;
}

/**
 * An answer that goes on: what listens to it hears each value when the test emits it.
 *
 * @example
 * const readings = stream<number>();
 * const heard: number[] = [];
 * readings.subscribe((kilograms) => heard.push(kilograms));
 * await readings.emit(31.2);
 * expect(heard).toEqual([31.2]);
 */
export function stream<T>(): Stream<T> {
  const listeners = new Set<Listener<T>>();
  let last: ((listener: Listener<T>) => void) | undefined;
  const tell = async (word: (listener: Listener<T>) => void) => {
    for (const listener of [...listeners]) word(listener);
    await (shared.rest?.() ?? nextTurn());
  };
  const finish = (word: (listener: Listener<T>) => void) => {
    last ??= word;
    return tell(word).finally(() => listeners.clear());
  };
  const double: Stream<T> = {
    simulacra: 'stream',
    get listeners() {
      return listeners.size;
    },
    emit: (value) => tell((listener) => last ?? listener.next?.(value)),
    end: () => finish((listener) => listener.complete?.()),
    fail: (reason) => {
      const error = errorOf(fail(reason));
      return finish((listener) => listener.error?.(error));
    },
    subscribe: (given) => {
      const listener = typeof given === 'function' ? { next: given } : given;
      if (last) last(listener);
      else listeners.add(listener);
      return { unsubscribe: () => void listeners.delete(listener) };
    },
    [Symbol.asyncIterator]: () => iterate(double),
  };
  // Libraries of Observables take what says so by one of these.
  const observable = (Symbol as { observable?: symbol }).observable ?? '@@observable';
  return Object.defineProperty(double, observable, { value: () => double });
}

function iterate<T>(double: Stream<T>): AsyncIterableIterator<T> {
  const heard: (() => Promise<IteratorResult<T>>)[] = [];
  let wake: (() => void) | undefined;
  const hear = (what: () => Promise<IteratorResult<T>>) => {
    heard.push(what);
    wake?.();
  };
  const { unsubscribe } = double.subscribe({
    next: (value) => hear(() => Promise.resolve({ value, done: false })),
    error: (reason) => hear(() => Promise.reject(reason as Error)),
    complete: () => hear(() => Promise.resolve({ value: undefined, done: true })),
  });
  return {
    async next() {
      while (heard.length === 0) await new Promise<void>((resolve) => (wake = resolve));
      return heard.shift()!();
    },
    return() {
      unsubscribe();
      return Promise.resolve({ value: undefined, done: true });
    },
    [Symbol.asyncIterator]() {
      return this;
    },
  };
}
