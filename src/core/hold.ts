import type { Failure } from './answers';
import { fail } from './answers';
import { nextTurn } from './host';
import { shared } from './shared';

/** An answer that is not given until the test says so: the loading state, for as long as it takes. */
export interface Held<T> {
  readonly simulacra: 'hold';
  /** How often it was asked for so far. */
  readonly asked: number;
  /** Gives the answer to everyone who asked and who will ask; resolves when the page is at rest. */
  release(value: T): Promise<void>;
  /** Fails everyone who asked and who will ask; resolves when the page is at rest. */
  fail(reason?: unknown, problem?: Failure['problem']): Promise<void>;
  /** Used by the doubles: what was answered, once it is. */
  wait(): Promise<unknown>;
}

/**
 * The loading state: an answer that waits for `.release(value)` or `.fail(reason)`. A test may end
 * while an answer is held.
 *
 * @example
 * const answer = hold<Hive[]>();
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': answer } });
 * expect(board).toShow(role('status', 'Loading hives'));
 * await answer.release(hives);
 * expect(board).toShow(text('Anemone'));
 */
export function hold<T = unknown>(): Held<T> {
  let settle: (answer: unknown) => void;
  let asked = 0;
  const answer = new Promise<unknown>((resolve) => (settle = resolve));
  const give = async (value: unknown) => {
    // Wrapped: an answer that is itself a promise must not be awaited here.
    settle({ value });
    await (shared.rest?.() ?? nextTurn());
  };
  return {
    simulacra: 'hold',
    get asked() {
      return asked;
    },
    release: give,
    fail: (reason, problem) => give(fail(reason, problem)),
    wait: async () => {
      asked++;
      return ((await answer) as { value: unknown }).value;
    },
  };
}
