import { doubles } from './doubles';
import { SimulacraError, type Report } from './error';
import { isolating } from './isolating';
import { looking } from './looking';
import { network } from './network';

export { SimulacraError };
export type { UnmatchedRequest } from './network';

/** Every code there is, with the wording of its message. The only place that makes errors. */
export const registry = { ...isolating, ...doubles, ...network, ...looking };

/** A stable code: `SIM-` and a word or two. */
export type Code = keyof typeof registry;
type Fields<C extends Code> = Parameters<(typeof registry)[C]>[0];

interface Circumstances {
  readonly cause?: unknown;
  /** What happened before, as text. */
  readonly chronicle?: string | undefined;
  /** An error made where the user called us; its stack is the one worth reading. */
  readonly calledAt?: { readonly stack?: string | undefined } | undefined;
}

/** Words a failure without throwing it. */
export function explain<C extends Code>(code: C, fields: Fields<C>, around: Circumstances = {}): SimulacraError {
  const word = registry[code] as (fields: Fields<C>) => Report;
  const error = new SimulacraError(code, fields, word(fields), around);
  const lines = around.calledAt?.stack?.split('\n').filter((text) => /^\s+at /.test(text));
  if (lines?.length) error.stack = [`${error.name}: ${error.message}`, ...lines].join('\n');
  return error;
}

/** Fails with a coded, worded error. @throws always */
export function refuse<C extends Code>(code: C, fields: Fields<C>, around: Circumstances = {}): never {
  throw explain(code, fields, around);
}

/** An error that remembers where the user called `below`, without what lies beneath that call. */
export function calledFrom(what: string, below: (...args: never[]) => unknown): Error {
  const error = new Error(what);
  (Error as { captureStackTrace?: (error: Error, below: unknown) => void }).captureStackTrace?.(error, below);
  return error;
}

/** True for a failure that is worded already. */
export const isExplained = (error: unknown): error is SimulacraError =>
  error instanceof Error && error.name === 'SimulacraError';

/** One complaint out of several: the first, with the others told in it. */
export function joinComplaints(complaints: readonly unknown[]): unknown {
  const [first, ...others] = complaints;
  if (others.length > 0 && first instanceof Error) {
    const told = others.map((other) => (other instanceof Error ? other.message : String(other)));
    first.message = [first.message, ...told].join('\n\nand also\n\n');
    first.stack = `${first.name}: ${first.message}\n${(first.stack ?? '').split('\n').filter((text) => /^\s+at /.test(text)).join('\n')}`;
  }
  return first;
}
