import { locateAt } from '../core/errors';
import type { Ground } from './ground';

/** Does one step of a test. A failure points at the user's line, and says what is likely to have caused it. */
export async function explained<T>(stage: Ground, calledAt: Error, work: () => T | Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (failure) {
    throw stage.withCauses(locateAt(failure, calledAt));
  }
}
