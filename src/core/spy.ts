import { directing } from './director';
import { isPromise } from './is-promise';
import { isArranged, takeTurn, type Arranged, type Failure, type InTurn, type Later } from './answers';
import type { Held } from './hold';
import type { Stream } from './stream';
import { print } from './print';
import { ownerOfCall } from './ownership';
import { errorOf, settleAnswer } from './settle-answer';
import type { Environment } from './environment';

// Parameters must be any: a function type is only assignable to one whose parameters are.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyFunction = (...args: any[]) => any;

/**
 * The answers for a function. `fail`, `hold` and `later` answer with a promise, so the compiler accepts them
 * only if the function returns one.
 */
export type AnswerOf<F extends AnyFunction> = Plain<ReturnType<F>> | CallAnswerOf<F>;

/** The answers that are recognised, when the test runs, as what a function gives. */
export type CallAnswerOf<F extends AnyFunction> =
  F | PromisedAnswer<ReturnType<F>> | StreamAnswer<ReturnType<F>>;

// A function as an answer is always called, so a function cannot be a plain return value.
type Plain<R> = R extends AnyFunction ? never : R;

type StreamAnswer<R> =
  R extends AsyncIterable<infer V> ? Stream<V> : R extends Subscribable<infer V> ? Stream<V> : never;

/** What can be subscribed to, as far as a stream can stand for it. */
interface Subscribable<V> {
  subscribe(listener: (value: V) => void): unknown;
}

type PromisedAnswer<R> = [R] extends [PromiseLike<infer V>]
  ? Failure | Held<V> | Later<R | V | Failure> | InTurn<R | Failure | Held<V> | Later<V> | (() => R)>
  : InTurn<R>;

/** A recording function. */
export type Spy<F extends AnyFunction = AnyFunction> = F & {
  readonly simulacra: 'spy';
  /** The argument lists of all calls, in order: a plain array. */
  readonly calls: Parameters<F>[];
};

/**
 * Makes a function that records its calls and gives an answer.
 *
 * @param answer a value to return, a function to call, or `fail`, `hold`, `later`, `inTurn` if the function returns
 * a promise; undefined by default
 * @param name its name in messages and in the chronicle
 * @returns the function, with `.calls`: a plain array of argument lists
 * @example
 * const open = spy<(hiveId: string) => void>();
 * const card = await isolate(HiveCard, { props: { hive: hives[0], onOpen: open } });
 * await card.click(role('button', 'Open Anemone'));
 * expect(open.calls).toEqual([['h1']]);
 */
export function spy<F extends AnyFunction = AnyFunction>(answer?: AnswerOf<F>, name = 'spy'): Spy<F> {
  const calls: Parameters<F>[] = [];
  const double = function (this: unknown, ...args: Parameters<F>): unknown {
    directing.current?.called(calls);
    calls.push(args);
    const environment = ownerOfCall();
    // Print now, because the arguments may change later.
    environment?.chronicle.add('called', double.name, {
      detail: printCall('', args),
      from: environment.running(),
    });
    const call = { environment, name: double.name, ask: (given: AnyFunction) => given.apply(this, args) };
    return giveAnswer(answer, call);
  };
  Object.defineProperty(double, 'name', { value: name, configurable: true });
  return Object.assign(double, { simulacra: 'spy', calls }) as unknown as Spy<F>;
}

/** True for what {@link spy} returns. */
export const isSpy = (value: unknown): value is Spy =>
  typeof value === 'function' && 'simulacra' in value && value.simulacra === 'spy';

interface Call {
  /** The subject it belongs to. */
  readonly environment: Environment | undefined;
  readonly name: string;
  ask(given: AnyFunction): unknown;
}

const giveAnswer = (answer: unknown, call: Call): unknown =>
  giveResult(typeof answer === 'function' ? call.ask(answer as AnyFunction) : answer, call);

// `inTurn` may hold a plain value for a synchronous function, so it is resolved here, and only asynchronous
// answers become a promise.
function giveResult(result: unknown, call: Call): unknown {
  if (directing.current && isPromise(result)) return passing(result, call);
  if (!isArranged(result)) return result;
  if (result.simulacra === 'inTurn') return giveAnswer(takeTurn(result, call.environment), call);
  return promiseOf(result, call);
}

// Where orders of arrival are tried, what a promise comes to is an answer like any other.
async function passing(result: PromiseLike<unknown>, { environment, name }: Call): Promise<unknown> {
  const [settled] = await Promise.allSettled([result]);
  await environment?.gate.pass(`${name}()`);
  if (settled.status === 'rejected') throw settled.reason;
  return settled.value;
}

async function promiseOf(answer: Arranged, { environment, name, ask }: Call) {
  const settled = await settleAnswer(answer, { environment, label: `${name}()`, call: ask });
  if (settled.outcome === 'failure') throw errorOf(settled.failure);
  return settled.value;
}

/** A call as text: `log("h7", { varroa: 4 })`. */
export const printCall = (name: string, args: readonly unknown[]): string =>
  `${name}(${args.map((arg) => print(arg, 60)).join(', ')})`;
