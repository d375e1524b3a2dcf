import type { Failure } from '../core/answers';
import { explain } from './errors';
import { native } from '../core/host';
import { print } from '../core/print';
import { isResponse } from './globals';

/** The Response that an answer's value stands for. @throws SIM-ROUTE-ANSWER */
export function makeResponse(value: unknown, route: string, url: string): Response {
  return arriveFrom(url, isResponse(value) ? value.clone() : jsonResponse(value, route));
}

function jsonResponse(value: unknown, route: string): Response {
  if (value === undefined) return new (native('Response'))(null, { status: 204, statusText: 'No Content' });
  const why = whyUnsendable(value);
  if (why) throw explain('SIM-ROUTE-ANSWER', { route, why });
  const text = toJson(value, route);
  const headers = { 'content-type': 'application/json' };
  return new (native('Response'))(text, { status: 200, statusText: 'OK', headers });
}

/** Why an answer cannot be sent; undefined for one that can. */
export function whyUnsendable(value: unknown): string | undefined {
  if (typeof value === 'bigint' || typeof value === 'symbol' || typeof value === 'function')
    return `JSON cannot hold ${print(value)}`;
  if (typeof value !== 'object' || value === null) return undefined;
  if ('simulacra' in value && value.simulacra === 'stream') return 'a stream() answers no request of fetch';
  const kind = Object.prototype.toString.call(value).slice(8, -1);
  if (/^(Map|Set|WeakMap|WeakSet|Promise)$/.test(kind))
    return `JSON has nothing for a ${kind}, which would arrive as {}`;
  return undefined;
}

function toJson(value: unknown, route: string): string {
  try {
    return JSON.stringify(value);
  } catch (cause) {
    const why = `JSON cannot hold it (${(cause as Error).message.split('\n')[0]})`;
    throw explain('SIM-ROUTE-ANSWER', { route, why }, { cause });
  }
}

/**
 * The Response of a failure that has a status, with problem details in its body. Undefined for a broken
 * connection.
 *
 * @see https://www.rfc-editor.org/rfc/rfc9457
 */
export function makeFailedResponse({ reason, problem }: Failure, url: string): Response | undefined {
  if (typeof reason !== 'number') return undefined;
  const title = phrases[reason] ?? (reason < 500 ? 'Client Error' : 'Server Error');
  const body = JSON.stringify({ type: 'about:blank', title, status: reason, ...problem });
  const headers = { 'content-type': 'application/problem+json' };
  return arriveFrom(url, new (native('Response'))(body, { status: reason, statusText: title, headers }));
}

// A constructed Response has no URL; a received one has.
const arriveFrom = (url: string, response: Response): Response =>
  Object.defineProperty(response, 'url', { value: url });

/** Reason phrases of the statuses front ends meet. @see https://www.rfc-editor.org/rfc/rfc9110 */
const phrases: Record<number, string> = {
  400: 'Bad Request',
  401: 'Unauthorized',
  402: 'Payment Required',
  403: 'Forbidden',
  404: 'Not Found',
  405: 'Method Not Allowed',
  408: 'Request Timeout',
  409: 'Conflict',
  410: 'Gone',
  412: 'Precondition Failed',
  413: 'Content Too Large',
  415: 'Unsupported Media Type',
  422: 'Unprocessable Content',
  429: 'Too Many Requests',
  500: 'Internal Server Error',
  501: 'Not Implemented',
  502: 'Bad Gateway',
  503: 'Service Unavailable',
  504: 'Gateway Timeout',
};
