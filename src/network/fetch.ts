import { ask } from './ask';
import { bodyOf, requestClass } from './globals';

/** The Fetch standard's `fetch`, answered by the subject a call belongs to. @see https://fetch.spec.whatwg.org */
export async function fetchDouble(input: RequestInfo | URL, init: RequestInit = {}): Promise<Response> {
  const request = new (requestClass())(input, init);
  const { signal } = request;
  if (signal.aborted) throw signal.reason;
  const { response } = ask(request, { body: bodyOf(request), carrier: 'fetch', below: fetchDouble });
  return Promise.race([response, abortOf(signal)]);
}

function abortOf(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
  });
}
