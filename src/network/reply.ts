import type { Failure } from '../core/answers';
import { explain, type Carrier } from './errors';
import { native } from '../core/host';
import { print } from '../core/print';
import type { Environment } from '../core/environment';
import { bytesOf, isBlob, isBytes, readBlob } from './carried';
import { isResponse } from './globals';
import { madeOf } from './exchanges';
import { isContract } from './from-schema';
import { goesOn, makeStreamed } from './reply-bodies';

interface Asked {
  readonly route: string;
  readonly carrier: Carrier;
  readonly request: Request;
  readonly params: Readonly<Record<string, string>>;
  readonly environment: Environment;
}

/** The Response that an answer's value stands for. @throws SIM-ROUTE-ANSWER */
export function makeResponse(value: unknown, asked: Asked): Response | Promise<Response> {
  if (isResponse(value)) return madeOf(value.clone(), value);
  if (goesOn(value)) return makeStreamed(value, asked);
  if (isContract(value)) {
    const why = 'fromSchema() answers operations of GraphQL, and this request sends none';
    throw explain('SIM-ROUTE-ANSWER', { route: asked.route, why });
  }
  if (isBlob(value) || isBytes(value)) return fileResponse(value, asked.request);
  if (asked.carrier === 'EventSource' && value !== undefined) {
    const why = `an EventSource reads a stream of events, which ${print(value, 40)} is not`;
    throw explain('SIM-ROUTE-ANSWER', { route: asked.route, why, isLive: true });
  }
  return jsonResponse(value, asked.route);
}

/** A file, or the part of it that was asked for. @see https://www.rfc-editor.org/rfc/rfc9110#name-range */
async function fileResponse(
  value: Blob | ArrayBuffer | ArrayBufferView,
  request: Request,
): Promise<Response> {
  const bytes = isBlob(value) ? await readBlob(value) : bytesOf(value);
  const type = (isBlob(value) && value.type) || 'application/octet-stream';
  const size = bytes.byteLength;
  const headers = { 'content-type': type, 'accept-ranges': 'bytes' };
  const [, from = '', to = ''] = /^bytes=(\d*)-(\d*)$/.exec(request.headers.get('range') ?? '') ?? [];
  const send = (part: Uint8Array<ArrayBuffer>, init: ResponseInit & { headers: object }) =>
    madeOf(
      new (native('Response'))(part, {
        ...init,
        headers: { ...init.headers, 'content-length': `${part.byteLength}` },
      }),
      part,
    );
  if (from === '' && to === '') return send(bytes, { status: 200, statusText: 'OK', headers });
  const first = from === '' ? Math.max(0, size - Number(to)) : Number(from);
  const last = from === '' || to === '' ? size - 1 : Math.min(Number(to), size - 1);
  if (first > last)
    return send(new Uint8Array(), {
      status: 416,
      statusText: 'Range Not Satisfiable',
      headers: { 'content-range': `bytes */${size}` },
    });
  return send(bytes.slice(first, last + 1), {
    status: 206,
    statusText: 'Partial Content',
    headers: { ...headers, 'content-range': `bytes ${first}-${last}/${size}` },
  });
}

function jsonResponse(value: unknown, route: string): Response {
  if (value === undefined) return new (native('Response'))(null, { status: 204, statusText: 'No Content' });
  const why = whyUnsendable(value);
  if (why) throw explain('SIM-ROUTE-ANSWER', { route, why });
  const text = toJson(value, route);
  const headers = { 'content-type': 'application/json' };
  return madeOf(new (native('Response'))(text, { status: 200, statusText: 'OK', headers }), text);
}

/** Why an answer cannot be sent; undefined for one that can. */
export function whyUnsendable(value: unknown): string | undefined {
  if (typeof value === 'bigint' || typeof value === 'symbol' || typeof value === 'function')
    return `JSON cannot hold ${print(value)}`;
  if (typeof value !== 'object' || value === null) return undefined;
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
export function makeFailedResponse({ reason, problem }: Failure): Response | undefined {
  if (typeof reason !== 'number') return undefined;
  const title = phrases[reason] ?? (reason < 500 ? 'Client Error' : 'Server Error');
  const body = JSON.stringify({ type: 'about:blank', title, status: reason, ...problem });
  const headers = { 'content-type': 'application/problem+json' };
  return madeOf(new (native('Response'))(body, { status: reason, statusText: title, headers }), body);
}

/** A constructed Response has no URL; a received one has. */
export const arriveFrom = (url: string, response: Response, hops = 0): Response => {
  Object.defineProperty(response, 'url', { value: url.replace(/#.*$/, '') });
  return hops === 0 ? response : Object.defineProperty(response, 'redirected', { value: true });
};

/** The phrase that goes with a status; empty for one that is seldom met. */
export const phraseOf = (status: number): string => phrases[status] ?? '';

/** Reason phrases of the statuses front ends meet. @see https://www.rfc-editor.org/rfc/rfc9110 */
const phrases: Record<number, string> = {
  200: 'OK',
  201: 'Created',
  202: 'Accepted',
  204: 'No Content',
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
