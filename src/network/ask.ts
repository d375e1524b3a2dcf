import type { Environment } from '../core/environment';
import { ownerOfCall } from '../core/ownership';
import type { Sent } from './asked';
import { networkOf } from './network';
import { refuseNobody } from './nobody';
import { printAddress } from './print-address';

/** A request under way: whose it is, and what comes of it. */
export interface Asking {
  readonly owner: Environment | undefined;
  readonly response: Promise<Response>;
}

/** Asks the subject that a call belongs to. Where there is none, the request fails and the test hears of it. */
export function ask(request: Request, sent: Sent): Asking {
  const url = new URL(request.url);
  const owner = ownerOfCall((environment) => environment.answers(request.method, url));
  const network = owner && networkOf(owner);
  if (!network || owner.state === 'down')
    return {
      owner,
      response: refused(() => refuseNobody(`${request.method} ${printAddress(url)}`, sent.carrier, owner)),
    };
  return { owner, response: network.answer(request, sent) };
}

async function refused(refuse: () => never): Promise<never> {
  return refuse();
}
