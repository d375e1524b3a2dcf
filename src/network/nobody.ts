import type { Environment } from '../core/environment';
import { explain } from '../core/errors';
import { shared } from '../core/shared';

/** The platform's own error for this, so that code under test treats it as it does in a browser. */
export const brokenConnection = (cause?: unknown): TypeError =>
  new TypeError('Failed to fetch', cause === undefined ? {} : { cause });

/**
 * Refuses a call that belongs to no subject, and reports it to the running test.
 *
 * @param asked method and address, as messages have them
 * @param owner the subject it is a late call of, where that is known
 * @throws TypeError as fetch does without a network
 */
export function refuseNobody(asked: string, carrier: string, owner: Environment | undefined): never {
  throw brokenConnection(reportNobody(asked, carrier, owner));
}

/** The same without failing. */
export function reportNobody(asked: string, carrier: string, owner: Environment | undefined): Error {
  const error = explain('SIM-CALL-NOBODY', { asked, carrier, last: owner?.name ?? shared.last });
  shared.strays.push(error);
  return error;
}
