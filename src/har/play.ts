import { fail, inTurn, later } from '../core/answers';
import { native } from '../core/host';
import { nearest } from '../core/near';
import { parsed } from '../core/parsed';
import { print } from '../core/print';
import type { Routes } from '../stage/options';
import { explain } from './errors';
import { readHar, type HarEntry } from './format';

/** How a session is played. */
export interface PlayOptions {
  /** The origin of the page in the session, whose requests become routes without one; that of the first page otherwise. */
  readonly origin?: string;
  /** True for answers that take as long as they took. */
  readonly paced?: boolean;
}

/** What is recorded of one route. */
interface Recorded {
  readonly at: string;
  readonly entry: HarEntry;
  /** What was sent, as it is compared. */
  readonly sent: string;
}

/**
 * Makes routes of a recorded session: an HTTP archive (HAR 1.2), as browsers write it. What was asked several
 * times is answered in turn; what was sent with a body is answered where the same is sent. Pages, styles, scripts,
 * images and fonts are left out.
 *
 * @param har its text, or what it holds
 * @throws SIM-HAR
 * @see https://w3c.github.io/web-performance/specs/HAR/Overview.html
 * @example
 * const first = await open({ network: { 'GET /api/hives': hives } });
 * await first.run(() => fetch('/api/hives'));
 * const session = await toHar(first.requests);
 * await first.takeDown();
 * const bench = await open({ network: { ...fromHar(session), 'GET /api/hives/:hiveId': fail(404) } });
 * const response = await bench.run(() => fetch('/api/hives'));
 * expect(await response.json()).toEqual(hives);
 */
export function fromHar(har: string | object, options: PlayOptions = {}): Routes {
  const entries = readHar(har);
  const own = options.origin ?? originOf(entries);
  const recorded = new Map<string, Recorded[]>();
  entries.forEach((entry, at) => {
    if (!isData(entry)) return;
    const route = routeOf(entry, own);
    const known = recorded.get(route) ?? [];
    known.push({ at: `log.entries[${at}]`, entry, sent: sentIn(entry) });
    recorded.set(route, known);
  });
  const routes = [...recorded].map(([route, all]) => [route, answerOf(route, all, options.paced === true)]);
  return Object.fromEntries(routes) as Routes;
}

/** The origin of the first page of a session; of the first request where it has none. */
function originOf(entries: readonly HarEntry[]): string | undefined {
  const page = entries.find(({ response }) => /\bhtml\b/.test(mimeOf(response))) ?? entries[0];
  return page && new URL(page.request.url).origin;
}

const mimeOf = ({ content }: HarEntry['response']): string => content?.mimeType ?? '';

/** True for what a component asks for, not the page itself. */
export function isData(entry: HarEntry): boolean {
  const { _resourceType: kind } = entry as HarEntry & { readonly _resourceType?: string };
  if (!/^https?:/.test(entry.request.url) || !/^[A-Z]+$/.test(entry.request.method)) return false;
  if (typeof kind === 'string' && !/^(xhr|fetch|eventsource|other)$/.test(kind)) return false;
  return !isAsset(entry);
}

const isAsset = ({ response }: HarEntry): boolean =>
  /^(text\/(html|css|javascript)|application\/(javascript|x-javascript|wasm)|image\/|font\/|audio\/|video\/)/.test(
    mimeOf(response),
  );

const special = /[:*{}()\\?+]/g;

/** A request as a route is written. */
export function routeOf({ request }: HarEntry, own: string | undefined): string {
  const { origin, pathname, search } = new URL(request.url);
  const literal = pathname.replace(special, '\\$&');
  const query = [...new URLSearchParams(search)].map(
    ([key, value]) => `${encodeURIComponent(key)}=${encodeURIComponent(value).replace(/[*()]/g, '\\$&')}`,
  );
  const path = `${literal}${query.length > 0 ? `?${query.join('&')}` : ''}`;
  return `${request.method} ${origin === own ? '' : origin}${path}`;
}

const comparable = (value: unknown): string => JSON.stringify(value, inOrder) ?? '';
const inOrder = (_: string, value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([one], [other]) => (one < other ? -1 : 1)))
    : value;

/** What was sent, so that the same is found again. Of an operation of GraphQL, its name and variables. */
function sentOf(body: unknown): string {
  if (body === undefined || body === '') return '';
  const { query, operationName, variables } = (body ?? {}) as Record<string, unknown>;
  if (typeof query === 'string' && (operationName !== undefined || variables !== undefined))
    return comparable({ operationName, variables });
  return comparable(body);
}
const sentIn = ({ request }: HarEntry): string => sentOf(parsed(request.postData?.text));

function answerOf(route: string, all: readonly Recorded[], isPaced: boolean): unknown {
  const bySent = new Map<string, unknown>();
  for (const sent of new Set(all.map((one) => one.sent))) {
    const responses = all.filter((one) => one.sent === sent).map((one) => responseOf(route, one, isPaced));
    bySent.set(sent, inTurn(...(responses as [unknown, ...unknown[]])));
  }
  if (bySent.size === 1 && bySent.has('')) return bySent.get('');
  return async (request: Request) => {
    const text = await request.text();
    const sent = sentOf(text === '' ? undefined : parsed(text));
    if (bySent.has(sent)) return bySent.get(sent);
    const recorded = [...bySent.keys()].map((one) => one || 'nothing');
    const near = nearest(sent, recorded);
    throw explain('SIM-HAR-BODY', { route, sent: print(parsed(text), 80), recorded, nearest: near });
  };
}

const left = /^(content-(encoding|length)|transfer-encoding|connection|keep-alive|alt-svc|date)$/i;

function responseOf(route: string, { entry, at }: Recorded, isPaced: boolean): unknown {
  const { response, time } = entry;
  const paced = (answer: unknown) => (isPaced && time > 0 ? later(time, answer) : answer);
  // A browser writes 0 where the connection broke.
  if (response.status < 200 || response.status > 599) return paced(fail());
  return paced(() => {
    const hasNone = [204, 205, 304].includes(response.status);
    const body = hasNone ? null : contentOf(response);
    if (body === undefined) throw explain('SIM-HAR-CONTENT', { route, at: `${at}.response.content` });
    const headers = new (native('Headers'))();
    for (const { name, value } of response.headers ?? [])
      if (!name.startsWith(':') && !left.test(name)) append(headers, name, value);
    if (!headers.has('content-type') && mimeOf(response)) headers.set('content-type', mimeOf(response));
    const { status, statusText } = response;
    const phrase = typeof statusText === 'string' && /^[\t\x20-\x7e]*$/.test(statusText) ? statusText : '';
    return new (native('Response'))(body, { status, statusText: phrase, headers });
  });
}

// A session from elsewhere may hold what no header can.
function append(headers: Headers, name: string, value: string): void {
  try {
    headers.append(name, value);
  } catch {
    // It is left out.
  }
}

/** What was sent back; undefined where the session does not have it. */
export function contentOf({
  content,
  bodySize,
}: HarEntry['response']): string | Uint8Array<ArrayBuffer> | undefined {
  const { text, encoding, size = 0 } = content ?? {};
  if (text === undefined || text === null) return size > 0 || bodySize > 0 ? undefined : '';
  if (encoding !== 'base64') return text;
  try {
    return Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
  } catch {
    return undefined;
  }
}
