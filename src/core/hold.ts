import type { Failure } from './answers';
import { fail } from './answers';
import type { Environment } from './environment';
import { directed } from './director';
import { refuse } from './errors';
import { calledFrom } from './errors/called-from';
import { Memory } from './memory';
import { restOfAll } from './rest-of-all';
import { shared } from './shared';

/** One request or call that a held answer keeps waiting. */
export interface Waiting<T = unknown> {
  /** What was asked: `GET /api/hives?q=an`, `log()`. */
  readonly asked: string;
  /** The component that asked, where that is known. */
  readonly from: string | undefined;
  /** Answers this one alone; resolves when the page is at rest. @throws SIM-HOLD-TWICE */
  release(value: T): Promise<void>;
  /** Fails this one alone; resolves when the page is at rest. @throws SIM-HOLD-TWICE */
  fail(reason?: unknown, problem?: Failure['problem']): Promise<void>;
  /** Tells how much of what an XMLHttpRequest sends has arrived; resolves when the page is at rest. @param part from 0 to 1 */
  upload(part: number): Promise<void>;
}

/** An answer that is not given until the test says so: the loading state, for as long as it takes. */
export interface Held<T> {
  readonly simulacra: 'hold';
  /** How often it was asked for so far in this test. */
  readonly asked: number;
  /**
   * Answers all pending and later requests and calls of the subjects that are up. Resolves when the page is at
   * rest. @throws SIM-HOLD-TWICE
   */
  release(value: T): Promise<void>;
  /** Fails everyone who asked and who will ask; resolves when the page is at rest. @throws SIM-HOLD-TWICE */
  fail(reason?: unknown, problem?: Failure['problem']): Promise<void>;
  /** What waits for it, oldest first: each can be answered alone, in any order. */
  readonly waiting: readonly Waiting<T>[];
  /** Used by the doubles: what was answered to a subject, once it is. */
  wait(environment: object | undefined, about?: AboutWaiting): Promise<unknown>;
}

/** Who waits for a held answer. */
export interface AboutWaiting {
  readonly label: string;
  readonly from?: string | undefined;
  readonly onUpload?: ((part: number) => void) | undefined;
}

/** One who waits, and how to answer. */
interface Waiter extends AboutWaiting {
  settle(answer: { readonly value: unknown }): void;
}

/** What a held answer remembers for one subject. */
interface State {
  readonly waiting: Set<Waiter>;
  given: { readonly value: unknown; readonly by: string } | undefined;
}

/**
 * An answer that stays pending until you call `.release(value)` or `.fail(reason)`. Use it to test the
 * loading state. A test may end while an answer is pending.
 *
 * @example
 * const answer = hold<Hive[]>();
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': answer } });
 * expect(board).toShow(role('status', 'Loading hives'));
 * await answer.release(hives);
 * expect(board).toShow(text('Anemone'));
 */
export function hold<T = unknown>(): Held<T> {
  // A release before the subject existed counts for it too.
  const memory = new Memory<State>((outside) => ({ waiting: new Set(), given: outside?.given }));
  let asked = { test: shared.test, times: 0 };
  const timesAsked = () => (asked.test === shared.test ? asked.times : 0);
  const give = (by: string, value: unknown, calledAt: Error) =>
    directed(`${by} of a held answer`, () => giveNow(by, value, calledAt));
  const giveNow = async (by: string, value: unknown, calledAt: Error) => {
    const states = memory.live();
    const open = states.filter(({ given }) => !given);
    if (open.length === 0)
      refuse('SIM-HOLD-TWICE', { asked: by, before: `${states[0]!.given!.by}()` }, { calledAt });
    for (const state of open) {
      state.given = { value, by };
      // Wrapped, because an answer that is a promise must not be awaited here.
      for (const { settle } of state.waiting) settle({ value });
      state.waiting.clear();
    }
    await restOfAll();
  };
  const held: Held<T> = {
    simulacra: 'hold',
    get asked() {
      return timesAsked();
    },
    release: (value) => give('release', value, calledFrom('release', held.release)),
    fail: (reason, problem) => give('fail', fail(reason, problem), calledFrom('fail', held.fail)),
    get waiting() {
      return memory
        .live()
        .flatMap((state) => [...state.waiting].map((waiter) => makeWaiting<T>(waiter, state.waiting)));
    },
    wait: async (environment, about = { label: 'a call' }) => {
      asked = { test: shared.test, times: timesAsked() + 1 };
      const state = memory.of(environment as Environment | undefined);
      if (state.given) return state.given.value;
      const answer = await new Promise<{ readonly value: unknown }>((settle) => {
        state.waiting.add({ ...about, settle });
      });
      return answer.value;
    },
  };
  return held;
}

function makeWaiting<T>(waiter: Waiter, waiting: Set<Waiter>): Waiting<T> {
  const give = async (by: string, value: unknown, calledAt: Error) => {
    if (!waiting.delete(waiter)) refuse('SIM-HOLD-TWICE', { asked: by, before: 'an answer' }, { calledAt });
    waiter.settle({ value });
    await restOfAll();
  };
  const one: Waiting<T> = {
    asked: waiter.label,
    from: waiter.from,
    release: (value) => give('release', value, calledFrom('release', one.release)),
    fail: (reason, problem) => give('fail', fail(reason, problem), calledFrom('fail', one.fail)),
    upload: async (part) => {
      waiter.onUpload?.(part);
      await restOfAll();
    },
  };
  return one;
}
