import type { SimulacraError } from './error';
/** An error that remembers where the user called `below`, without what lies beneath that call. */
export function calledFrom(what: string, below: (...args: never[]) => unknown): Error {
  const error = new Error(what);
  (Error as { captureStackTrace?: (error: Error, below: unknown) => void }).captureStackTrace?.(error, below);
  return error;
}

/** True for a failure that is worded already. */
export const isExplained = (error: unknown): error is SimulacraError =>
  error instanceof Error && error.name === 'SimulacraError';
