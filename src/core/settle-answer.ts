import { isError } from './is-error';
import { isPromise } from './is-promise';
import { isArranged, takeTurn, type Failure } from './answers';
import type { Environment } from './environment';
import { nextTurn, readClock, startTimer } from './host';
import { pageTime } from './page-time';

/** What an answer came to in the end. */
export type Settled =
  | { readonly outcome: 'value'; readonly value: unknown }
  | { readonly outcome: 'failure'; readonly failure: Failure };

/** Who is answered. */
export interface Asker {
  /** The subject that asked; undefined outside of every subject. */
  readonly environment: Environment | undefined;
  /** What was asked, for messages: `GET /api/hives`, `log()`. */
  readonly label: string;
  /** The component that asked, where that is known. */
  readonly from?: string | undefined;
  /** Tells that nobody wants the answer any more. */
  readonly signal?: AbortSignal | undefined;
  /** Told how much of the request's body was sent, as a part of 1. */
  readonly onUpload?: ((part: number) => void) | undefined;
  /** Calls an answer that is a function. */
  call(answer: (...args: never[]) => unknown): unknown;
}

/**
 * Resolves an answer (held, late, in turn, a function of the request) to a value or a failure, which then
 * waits at the gate of the subject that asked.
 */
export async function settleAnswer(answer: unknown, asker: Asker): Promise<Settled> {
  const { environment, label } = asker;
  let current = answer;
  for (;;) {
    current = typeof current === 'function' ? asker.call(current as () => unknown) : current;
    // Await only what has to be awaited: each further turn delays rendering.
    if (isPromise(current)) current = await promised(current, environment);
    if (typeof current === 'function') continue;
    if (!isArranged(current)) {
      await passGate(asker);
      return { outcome: 'value', value: current };
    }
    switch (current.simulacra) {
      case 'hold': {
        const end = environment?.work.begin('request', label, { held: true });
        current = await current.wait(environment, asker);
        end?.();
        break;
      }
      case 'later':
        await passTime(current.delay, asker);
        current = current.answer;
        break;
      case 'inTurn':
        current = takeTurn(current, environment);
        break;
      case 'fail':
        await passGate(asker);
        return { outcome: 'failure', failure: current };
      default:
        return current satisfies never;
    }
  }
}

async function promised(
  answer: PromiseLike<unknown>,
  environment: Environment | undefined,
): Promise<unknown> {
  if (!environment) return answer;
  environment.work.promised++;
  try {
    return await answer;
  } finally {
    environment.work.promised--;
    environment.work.onChange?.();
  }
}

const passGate = ({ environment, label, signal }: Asker) =>
  environment?.gate.pass(label, signal) ?? nextTurn();

async function passTime(delay: number, { environment, label }: Asker): Promise<void> {
  // A virtual clock keeps a list of its own.
  const end = pageTime.clock ? undefined : environment?.work.beginTimer('answer', label, delay);
  const now = environment?.clock.now ?? readClock;
  const until = now() + delay;
  let left = delay;
  // A platform's timer may fire a millisecond early. A fraction of a microsecond is one of counting.
  do {
    await new Promise<void>((resolve) => {
      if (environment) environment.clock.after(left, resolve, label);
      else startTimer(left, resolve);
    });
    left = Math.ceil(until - now() - 1e-3);
  } while (left > 0);
  end?.();
}

/** The error a function double rejects with. */
export function errorOf({ reason, problem }: Failure): unknown {
  if (isError(reason)) return reason;
  if (typeof reason === 'object' && reason !== null) return reason;
  const error = new Error(
    typeof reason === 'string' ? reason : (problem?.title ?? `Failed with ${reason ?? 'no reason'}`),
  );
  return typeof reason === 'number' ? Object.assign(error, { status: reason, ...problem }) : error;
}
