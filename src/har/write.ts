import { exchangeOf, type Content, type Exchange } from '../network/exchanges';
import type { AskedRequest } from '../network/asked';
import { bytesOf } from '../network/carried';
import { isOperationKind } from '../network/operations';
import type { Har, HarEntry, HarField } from './format';

/**
 * Writes what a subject asked, and what it was answered, as a recorded session: an HTTP archive (HAR 1.2). What
 * goes on without an end (sockets, events) has no content in it; what is not answered yet is left out.
 *
 * @param requests `subject.requests`
 * @see https://w3c.github.io/web-performance/specs/HAR/Overview.html
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': hives } });
 * const { log } = await toHar(board.requests);
 * expect(log.entries.map(({ request }) => request.url)).toEqual(['http://localhost/api/hives?yard=north']);
 */
export async function toHar(requests: Iterable<AskedRequest>): Promise<Har> {
  const answered = [...requests].flatMap((asked) => {
    const exchange = exchangeOf(asked);
    return exchange ? [{ asked, exchange }] : [];
  });
  const entries = await Promise.all(answered.map(({ asked, exchange }) => makeEntry(asked, exchange)));
  return { log: { version: '1.2', creator: { name: 'simulacra', version: '1' }, entries } };
}

async function makeEntry(asked: AskedRequest, exchange: Exchange): Promise<HarEntry> {
  const { status, headers, took, answeredAt, content } = exchange;
  const type = headers.find(([name]) => name === 'content-type')?.[1] ?? '';
  const read = await readContent(content, type);
  const isOperation = isOperationKind(asked.method);
  const url = new URL(asked.url);
  const location = headers.find(([name]) => name === 'location')?.[1] ?? '';
  return {
    startedDateTime: new Date(answeredAt - took).toISOString(),
    time: took,
    request: {
      method: isOperation ? 'POST' : asked.method,
      url: asked.url,
      httpVersion: 'HTTP/1.1',
      cookies: [],
      headers: fieldsOf(Object.entries(asked.headers)),
      queryString: fieldsOf([...url.searchParams]),
      ...postDataOf(asked, exchange),
      headersSize: -1,
      bodySize: -1,
    },
    response: {
      ...{ status, statusText: '', httpVersion: 'HTTP/1.1', cookies: [] },
      headers: fieldsOf(headers),
      content: {
        size: read?.size ?? 0,
        mimeType: type,
        ...(read && { text: read.text, ...(read.encoding && { encoding: read.encoding }) }),
      },
      ...{ redirectURL: location, headersSize: -1, bodySize: read?.size ?? -1 },
    },
    cache: {},
    timings: { send: 0, wait: took, receive: 0 },
  };
}

const fieldsOf = (entries: readonly (readonly [string, string])[]): HarField[] =>
  entries.map(([name, value]) => ({ name, value }));

function postDataOf(asked: AskedRequest, { operation }: Exchange): Pick<HarEntry['request'], 'postData'> {
  const mimeType = asked.headers['content-type'] ?? '';
  if (operation) {
    const { name, query, variables } = operation;
    return {
      postData: {
        mimeType: mimeType || 'application/json',
        text: JSON.stringify({ operationName: name, query, variables }),
      },
    };
  }
  const { body } = asked;
  if (body === undefined) return {};
  const isText = typeof body === 'string' || /\bjson\b/.test(mimeType) || isPlain(body);
  const text = typeof body === 'string' ? body : isText ? JSON.stringify(body) : undefined;
  return { postData: { mimeType, ...(text !== undefined && { text }) } };
}

const isPlain = (value: unknown): boolean =>
  Array.isArray(value) ||
  typeof value !== 'object' ||
  Object.prototype.toString.call(value) === '[object Object]';

interface Read {
  readonly text: string;
  readonly encoding?: 'base64';
  /** Bytes. */
  readonly size: number;
}

async function readContent(content: Content | undefined, type: string): Promise<Read | undefined> {
  if (content === undefined) return undefined;
  if (typeof content === 'string') return { text: content, size: new TextEncoder().encode(content).length };
  const bytes = bytesOf(ArrayBuffer.isView(content) ? content : await content.clone().arrayBuffer());
  if (/^text\/|\b(json|xml|javascript)\b|x-www-form-urlencoded/.test(type) || bytes.length === 0)
    return { text: new TextDecoder().decode(bytes), size: bytes.length };
  const letters = Array.from(bytes, (byte) => String.fromCharCode(byte)).join('');
  return { text: btoa(letters), encoding: 'base64', size: bytes.length };
}
