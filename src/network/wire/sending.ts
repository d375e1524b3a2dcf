import { native } from '../../core/host';
import { baseAddress, requestClass } from '../globals';
import { fail } from './answer';
import { isToken } from './headers';
import type { Asking } from '../ask';
import type { Encoded } from './bodies';

/** What one `send` has under way. */
export interface Sending {
  readonly asking: Asking;
  readonly abort: AbortController;
  /** How many bytes are sent. */
  readonly size: number;
  readonly tellsUpload: boolean;
  readonly startedAt: number;
  isUploaded: boolean;
  callOffTimeout: (() => void) | undefined;
}

interface Opened {
  readonly method: string;
  readonly headers: readonly (readonly [name: string, value: string])[];
  readonly signal: AbortSignal;
  readonly hasCredentials: boolean;
}

const known = ['DELETE', 'GET', 'HEAD', 'OPTIONS', 'POST', 'PUT'];

/** @see https://xhr.spec.whatwg.org/#the-open()-method */
export function readOpened(method: string, url: string): { readonly method: string; readonly url: URL } {
  if (!isToken(method)) fail('SyntaxError', `"${method}" is no HTTP method`);
  const upper = method.toUpperCase();
  if (/^(CONNECT|TRACE|TRACK)$/.test(upper)) fail('SecurityError', `A page may not send ${upper}`);
  if (!URL.canParse(url, baseAddress())) fail('SyntaxError', `"${url}" is no URL`);
  return { method: known.includes(upper) ? upper : method, url: new URL(url, baseAddress()) };
}

/** The value of a header, as it is sent. @see https://xhr.spec.whatwg.org/#the-setrequestheader()-method */
export function readHeader(name: string, value: string): string {
  if (/[^\0-\xff]/.test(value))
    throw new TypeError('Failed to set a header: its value holds what no byte can');
  const text = value.replace(/^[\t\n\r ]+|[\t\n\r ]+$/g, '');
  if (!isToken(name)) fail('SyntaxError', `"${name}" is no name of a header`);
  if (/[\0\n\r]/.test(text)) fail('SyntaxError', `The value of ${name} cannot be sent`);
  return text;
}

/** The request that an XMLHttpRequest sends. @see https://xhr.spec.whatwg.org/#the-send()-method */
export function makeRequest(url: URL, encoded: Encoded | undefined, opened: Opened): Request {
  const { method, signal } = opened;
  const headers = new (native('Headers'))();
  for (const [name, value] of opened.headers) headers.append(name, value);
  const given = headers.get('content-type');
  if (encoded?.type && given === null) headers.set('content-type', encoded.type);
  // Text is sent as UTF-8, whatever was said.
  else if (encoded?.isText && given !== null)
    headers.set('content-type', given.replace(/(;\s*charset=)"?(?!utf-8)[^;"]+"?/i, '$1UTF-8'));
  if (!headers.has('accept')) headers.set('accept', '*/*');
  return new (requestClass())(url.href, {
    ...{ method, headers, signal },
    credentials: opened.hasCredentials ? 'include' : 'same-origin',
    ...(encoded && { body: encoded.body, duplex: 'half' }),
  } as RequestInit);
}
