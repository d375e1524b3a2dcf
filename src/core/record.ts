import { explain } from './errors';
import { calledFrom } from './errors/called-from';
import { isPromise } from './is-promise';
import { ownerOfCall } from './ownership';
import { readPageTime } from './page-time';
import { print } from './print';
import { recorders, recordings, type Hears, type Recorder } from './recordings';
import { printScore } from './score';

/* eslint-disable @typescript-eslint/no-explicit-any -- what emits is recognised by its members */

/** Anything that emits values: an Observable, an async iterable, a store, a signal or a ref. */
export type Emitting<T> =
  | { subscribe(listener: any, ...rest: any[]): any }
  | AsyncIterable<T>
  | ((...args: never[]) => T)
  | { readonly value: T }
  | EventTarget
  | { on(event: string, listener: (...args: any[]) => void): any };

/** What a source emits. */
export type EmittedBy<S> =
  S extends AsyncIterable<infer T>
    ? T
    : S extends { subscribe(listener: infer L, ...rest: any[]): any; getState?(): infer State }
      ? unknown extends State
        ? ValueOf<L>
        : State
      : S extends (...args: never[]) => infer T
        ? T
        : S extends { readonly value: infer T }
          ? T
          : any;

type ValueOf<L> =
  NonNullable<L> extends (value: infer T) => any
    ? T
    : NonNullable<L> extends { next?: ((value: infer T) => void) | undefined }
      ? T
      : L extends infer One
        ? One extends { next?: (value: infer T) => void }
          ? T
          : One extends (value: infer T) => any
            ? T
            : never
        : any;
/* eslint-enable @typescript-eslint/no-explicit-any */

/** What was emitted, so far. */
export interface Recording<T> {
  readonly values: readonly T[];
  /** When each value was emitted, in milliseconds since the recording began, on the page's clock. */
  readonly times: readonly number[];
  readonly first: T | undefined;
  readonly last: T | undefined;
  /** What it failed with. */
  readonly error: unknown;
  /** True once it has ended or failed. */
  readonly ended: boolean;
  /** Ends the recording. It ends by itself with the test. */
  stop(): void;
  /** When what was emitted: `300ms 31.2; 600ms 31.4; 1s end`. `stream().play()` reads the same. */
  toString(): string;
}

/**
 * Records what something emits: an Observable, an EventTarget or event emitter (with the name of the event), an
 * async iterable, a store, a signal or a ref. What always has a value (a store, a signal, a ref) begins with it.
 * It works with and without a subject, and ends with the test.
 *
 * @param source what emits
 * @param event the name of the event, for an EventTarget or an event emitter
 * @throws SIM-RECORD-SOURCE for what does not emit
 * @example
 * const readings = stream<number>();
 * const recording = record(readings);
 * await readings.emit(31.2);
 * expect(recording.values).toEqual([31.2]);
 */
export function record<S extends Emitting<unknown>>(source: S, event?: string): Recording<EmittedBy<S>> {
  const recording = new Kept();
  const hears: Hears = {
    value: (value) => recording.add(value),
    error: (reason) => recording.close(reason),
    end: () => recording.close(),
  };
  const ways = [...recorders, ...standard];
  const stop =
    typeof source === 'object' || typeof source === 'function'
      ? firstOf(ways, (way) => way(source, hears, event))
      : undefined;
  if (!stop)
    throw explain(
      'SIM-RECORD-SOURCE',
      { source: print(source), needsEvent: isEmitter(source) },
      { calledAt: calledFrom('record', record) },
    );
  recording.stop = () => {
    recordings.delete(recording.stop);
    stop();
  };
  recordings.add(recording.stop);
  ownerOfCall()?.sandbox.onTakeDown(recording.stop);
  return recording as unknown as Recording<EmittedBy<S>>;
}

function firstOf<T, R>(list: readonly T[], find: (one: T) => R | undefined): R | undefined {
  for (const one of list) {
    const found = find(one);
    if (found !== undefined) return found;
  }
  return undefined;
}

class Kept implements Recording<unknown> {
  readonly values: unknown[] = [];
  readonly times: number[] = [];
  readonly #start = readPageTime();
  #end: number | undefined;
  error: unknown = undefined;
  ended = false;
  #failed = false;
  stop: () => void = () => undefined;

  get first(): unknown {
    return this.values[0];
  }

  get last(): unknown {
    return this.values.at(-1);
  }

  add(value: unknown): void {
    if (this.ended) return;
    this.values.push(value);
    this.times.push(Math.round(readPageTime() - this.#start));
  }

  close(...reason: [unknown?]): void {
    if (this.ended) return;
    this.ended = true;
    this.#end = Math.round(readPageTime() - this.#start);
    this.#failed = reason.length > 0;
    [this.error] = reason;
  }

  toString(): string {
    const end =
      this.#end === undefined ? undefined : { at: this.#end, failed: this.#failed, reason: this.error };
    return printScore(
      this.values.map((value, at) => ({ at: this.times[at]!, value })),
      end,
    );
  }
}

const has = (source: object, member: string): boolean =>
  typeof (source as Record<string, unknown>)[member] === 'function';

const isEmitter = (source: unknown): boolean =>
  typeof source === 'object' && source !== null && (has(source, 'addEventListener') || has(source, 'on'));

type Member = (...args: unknown[]) => unknown;
const call = (source: object, member: string, ...args: unknown[]): unknown =>
  (source as Record<string, Member>)[member]!(...args);

/** What the standards and the trade at large have. */
const standard: readonly Recorder[] = [
  // An event of an EventTarget. https://dom.spec.whatwg.org/#interface-eventtarget
  (source, { value }, event) => {
    if (event === undefined || !has(source, 'addEventListener')) return undefined;
    call(source, 'addEventListener', event, value);
    return () => void call(source, 'removeEventListener', event, value);
  },
  // An event of an emitter.
  (source, { value }, event) => {
    if (event === undefined || !has(source, 'on')) return undefined;
    const listener = (...args: unknown[]) => value(args.length > 1 ? args : args[0]);
    const off = call(source, 'on', event, listener);
    return () => {
      if (has(source, 'off')) call(source, 'off', event, listener);
      else if (typeof off === 'function') (off as () => void)();
    };
  },
  // A store says that it changed, and we read its value.
  (source, { value }) => {
    if (!has(source, 'getState') || !has(source, 'subscribe')) return undefined;
    value(call(source, 'getState'));
    return stopOf(call(source, 'subscribe', () => value(call(source, 'getState'))));
  },
  // What leads to an Observable. https://github.com/tc39/proposal-observable
  (source, { value, error, end }) => {
    const key = (Symbol as { observable?: symbol }).observable ?? '@@observable';
    const lead = (source as Record<PropertyKey, unknown>)[key];
    const observable = typeof lead === 'function' ? (lead.call(source) as object) : source;
    if (!has(observable, 'subscribe')) return undefined;
    // Some take an object of listeners, some (an EventEmitter of old, a signal of other making) a function.
    const listener = Object.assign((one: unknown) => value(one), { next: value, error, complete: end });
    return stopOf(call(observable, 'subscribe', listener, error, end));
  },
  (source, hears) => {
    if (!(Symbol.asyncIterator in source)) return undefined;
    const iterator = (source as AsyncIterable<unknown>)[Symbol.asyncIterator]();
    void iterate(iterator, hears);
    return () => {
      const over: unknown = iterator.return?.();
      if (isPromise(over)) over.then(undefined, () => undefined);
    };
  },
];

function stopOf(subscription: unknown): () => void {
  if (typeof subscription === 'function') return subscription as () => void;
  const { unsubscribe } = (subscription ?? {}) as { unsubscribe?: () => void };
  return () => void unsubscribe?.call(subscription);
}

async function iterate(iterator: AsyncIterator<unknown>, { value, error, end }: Hears): Promise<void> {
  try {
    for (let next = await iterator.next(); !next.done; next = await iterator.next()) value(next.value);
    end();
  } catch (reason) {
    error(reason);
  }
}
