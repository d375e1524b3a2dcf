import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { parsed } from '../core/parsed';

/** The most that a request may send, and its address may hold, in bytes. */
export const most = { body: 64_000_000, address: 8_192 };

/** Why an address is refused before anything reads it; undefined for one that is fine. */
export function whyRefused(raw: string): readonly [status: number, title: string] | undefined {
  if (raw.length > most.address) return [414, 'URI Too Long'];
  const [path = ''] = raw.split('?');
  const isAbove = /(^|[/\\]|%2f|%5c)(\.|%2e){2}($|[/\\]|%2f|%5c)/i.test(path);
  return isAbove || /\0|%00/.test(path) || !canDecode(path) || !URL.canParse(raw, 'http://localhost')
    ? [400, 'Bad Request']
    : undefined;
}

function canDecode(text: string): boolean {
  try {
    decodeURIComponent(text);
    return true;
  } catch {
    return false;
  }
}

/** What a request sends. @returns undefined for more than is allowed @throws where the client has gone */
export async function readBody(asked: IncomingMessage): Promise<Uint8Array<ArrayBuffer> | undefined> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of asked) {
    size += (part as Buffer).length;
    if (size > most.body) return undefined;
    parts.push(part as Buffer);
  }
  return new Uint8Array(Buffer.concat(parts));
}

/** What was sent, as routes and contracts compare it: parsed where it is JSON, text as text. */
export function parseBody(bytes: Uint8Array, type: string): unknown {
  if (bytes.length === 0) return undefined;
  const isText = type === '' || /^text\/|\bjson\b|\bxml\b|x-www-form-urlencoded/i.test(type);
  if (!isText) return bytes;
  const text = new TextDecoder().decode(bytes);
  return /^text\//i.test(type) && !/^text\/plain/i.test(type) ? text : parsed(text);
}

/** A request that arrived, as the Fetch standard has it. @throws TypeError for one that a page cannot send */
export function makeRequest(
  asked: IncomingMessage,
  body: Uint8Array<ArrayBuffer>,
  signal: AbortSignal,
): Request {
  const { method = 'GET', url = '/', headers } = asked;
  const given = new Headers();
  for (const [name, value] of Object.entries(headers))
    if (value !== undefined) given.append(name, Array.isArray(value) ? value.join(', ') : value);
  return new Request(addressOf(url, headers.host), {
    ...{ method, headers: given, signal },
    ...(!/^(GET|HEAD)$/.test(method) && body.length > 0 && { body }),
  });
}

/** The address that was asked for. */
export const addressOf = (url: string, host = 'localhost'): URL => {
  // A path that begins with two slashes is no host.
  const path = url.startsWith('/') ? `/${url.replace(/^\/+/, '')}` : url;
  return new URL(path, URL.canParse(`http://${host}`) ? `http://${host}` : 'http://localhost');
};

/** Sends a response, as fast as the client takes it. */
export async function sendResponse(response: Response, sending: ServerResponse): Promise<void> {
  const { status, statusText, headers, body } = response;
  for (const [name, value] of headers) if (name !== 'set-cookie') sending.setHeader(name, value);
  const cookies = headers.getSetCookie();
  if (cookies.length > 0) sending.setHeader('set-cookie', cookies);
  sending.writeHead(status, statusText);
  // A client waits for the head of a response whose body may take its time.
  sending.flushHeaders();
  if (!body) return void sending.end();
  const reader = body.getReader();
  sending.on('close', () => void reader.cancel().catch(() => undefined));
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    if (!sending.write(value))
      await new Promise((resolve) => sending.once('drain', resolve).once('close', resolve));
  }
  sending.end();
}

/** Answers what has not become a request, and ends its connection. */
export function refuseWith(socket: Duplex, status: string): void {
  if (socket.writable) socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
  else socket.destroy();
}

/** True for a page of this machine. */
export const isLocal = (origin: string): boolean =>
  URL.canParse(origin) && /^(localhost|.*\.localhost|127(\.\d+){3}|\[::1\])$/.test(new URL(origin).hostname);

/** What a page of this machine, on whatever port, needs to read a response. @see https://fetch.spec.whatwg.org/#http-cors-protocol */
export function allowOrigin(asked: IncomingMessage, headers: Headers): void {
  const { origin } = asked.headers;
  if (!origin || !isLocal(origin) || headers.has('access-control-allow-origin')) return;
  headers.set('access-control-allow-origin', origin);
  headers.set('access-control-allow-credentials', 'true');
  headers.set('access-control-expose-headers', [...headers.keys()].join(', '));
  headers.append('vary', 'Origin');
}

/** The answer to a page that asks what it may send. */
export function answerPreflight(asked: IncomingMessage): Response | undefined {
  const { origin = '', 'access-control-request-method': method } = asked.headers;
  if (asked.method !== 'OPTIONS' || !method || !isLocal(origin)) return undefined;
  const headers = new Headers({
    'access-control-allow-methods': method,
    'access-control-allow-headers': String(asked.headers['access-control-request-headers'] ?? ''),
    'access-control-max-age': '600',
  });
  return new Response(null, { status: 204, statusText: 'No Content', headers });
}

/** Problem details as a response. @see https://www.rfc-editor.org/rfc/rfc9457 */
export function makeProblem(status: number, title: string, detail: string): Response {
  const body = JSON.stringify({ type: 'about:blank', title, status, detail });
  const headers = { 'content-type': 'application/problem+json' };
  return new Response(body, { status, statusText: title, headers });
}
