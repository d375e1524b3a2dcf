import type { SimulacraError } from './error';

interface Capturing {
  stackTraceLimit?: number;
  captureStackTrace?(error: Error, below: unknown): void;
}

// Enough to be out of a team's own helpers; each frame that is kept costs time in every call.
const frames = 5;

/** An error that remembers where the user called `below`, without what lies beneath that call. */
export function calledFrom(what: string, below: (...args: never[]) => unknown, depth = frames): Error {
  const capturing = Error as Capturing;
  if (!capturing.captureStackTrace) return new Error(what);
  const limit = capturing.stackTraceLimit;
  // It is never thrown, and the constructor would capture a stack of its own.
  const error = Object.create(Error.prototype) as Error;
  error.message = what;
  capturing.stackTraceLimit = depth;
  capturing.captureStackTrace(error, below);
  capturing.stackTraceLimit = limit;
  return error;
}

/** True for a failure that is worded already. */
export const isExplained = (error: unknown): error is SimulacraError =>
  error instanceof Error && error.name === 'SimulacraError';
