import type { Failure } from './answers';
import { fail } from './answers';
import type { Environment } from './environment';
import { refuse } from './errors';
import { calledFrom } from './errors/called-from';
import { Memory } from './memory';
import { restOfAll } from './rest-of-all';
import { shared } from './shared';

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
  /** Used by the doubles: what was answered to a subject, once it is. */
  wait(environment: object | undefined): Promise<unknown>;
}

/** What a held answer remembers for one subject. */
interface State {
  readonly answer: Promise<{ readonly value: unknown }>;
  settle(answer: { readonly value: unknown }): void;
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
  const memory = new Memory<State>((outside) => {
    let settle: State['settle'] = () => {};
    const answer = new Promise<{ readonly value: unknown }>((resolve) => (settle = resolve));
    // A release before the subject existed counts for it too.
    if (outside?.given) settle(outside.given);
    return { answer, settle, given: outside?.given };
  });
  let asked = { test: shared.test, times: 0 };
  const timesAsked = () => (asked.test === shared.test ? asked.times : 0);
  const give = async (by: string, value: unknown, calledAt: Error) => {
    const states = memory.live();
    const open = states.filter(({ given }) => !given);
    if (open.length === 0)
      refuse('SIM-HOLD-TWICE', { asked: by, before: `${states[0]!.given!.by}()` }, { calledAt });
    for (const state of open) {
      state.given = { value, by };
      // Wrapped, because an answer that is a promise must not be awaited here.
      state.settle({ value });
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
    wait: async (environment) => {
      asked = { test: shared.test, times: timesAsked() + 1 };
      return (await memory.of(environment as Environment | undefined).answer).value;
    },
  };
  return held;
}
