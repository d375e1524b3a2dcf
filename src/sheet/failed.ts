import { withoutHistory } from '../core/errors';
import { isError } from '../core/is-error';
import type { Failed } from './model';

/** A failure as data. */
export function failedOf(failure: unknown): Failed {
  if (!isError(failure)) return { code: undefined, message: String(failure) };
  const { code } = failure as { code?: string };
  return { code, message: withoutHistory(failure.message) };
}
