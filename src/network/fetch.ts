import { ownerOfCall } from '../core/ownership';
import { bodyOf, requestClass } from './globals';
import { networkOf } from './network';
import { refuseNobody } from './nobody';
import { printAddress } from './print-address';

/** The Fetch standard's `fetch`, answered by the subject a call belongs to. @see https://fetch.spec.whatwg.org */
export async function fetchDouble(input: RequestInfo | URL, init: RequestInit = {}): Promise<Response> {
  const request = new (requestClass())(input, init);
  if (request.signal.aborted) throw request.signal.reason;
  const url = new URL(request.url);
  const owner = ownerOfCall((environment) => environment.answers(request.method, url));
  const network = owner && networkOf(owner);
  if (!network || owner.state === 'down')
    return refuseNobody(`${request.method} ${printAddress(url)}`, 'fetch', owner);
  return Promise.race([network.answer(request, bodyOf(request)), abortOf(request.signal)]);
}

function abortOf(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
  });
}
