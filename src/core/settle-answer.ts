import { isArranged, type Failure } from './answers';
import { passGate } from './gate';
import { startTimer } from './host';

/** What an answer came to in the end. */
export type Settled =
  | { readonly outcome: 'value'; readonly value: unknown }
  | { readonly outcome: 'failure'; readonly failure: Failure };

/**
 * Follows an answer (held, late, in turn, a function of the question) until it is a value or a
 * failure. `ask` calls an answer that is a function.
 */
export async function settleAnswer(
  answer: unknown,
  ask: (answer: (...args: never[]) => unknown) => unknown,
): Promise<Settled> {
  let current = answer;
  for (;;) {
    current = typeof current === 'function' ? await ask(current as () => unknown) : await current;
    if (typeof current === 'function') continue;
    if (!isArranged(current)) {
      await passGate();
      return { outcome: 'value', value: current };
    }
    switch (current.simulacra) {
      case 'hold':
        current = await current.wait();
        break;
      case 'later':
        await waitFor(current.delay);
        current = current.answer;
        break;
      case 'inTurn':
        current = current.next();
        break;
      case 'fail':
        await passGate();
        return { outcome: 'failure', failure: current };
      default:
        return current satisfies never;
    }
  }
}

const waitFor = (milliseconds: number) =>
  new Promise<void>((resolve) => void startTimer(milliseconds, resolve));

/** The error a function double rejects with. */
export function errorOf({ reason, problem }: Failure): unknown {
  if (reason instanceof Error) return reason;
  if (typeof reason === 'object' && reason !== null) return reason;
  const error = new Error(
    typeof reason === 'string' ? reason : (problem?.title ?? `Failed with ${reason ?? 'no reason'}`),
  );
  return typeof reason === 'number' ? Object.assign(error, { status: reason, ...problem }) : error;
}
