import type { Environment } from '../core/environment';
import { native } from '../core/host';
import { baseAddress } from './globals';

/** Headers that a page may always see of another origin's response. @see https://fetch.spec.whatwg.org/#cors-safelisted-response-header-name */
const safe = new Set(
  'cache-control content-language content-length content-type expires last-modified pragma'.split(' '),
);

/** The response as a page receives it: without what a browser keeps to itself. */
export function arrive(response: Response, request: Request, environment: Environment): Response {
  const received = conditional(response, request);
  if (typeof document === 'undefined') return received;
  takeCookies(received);
  hideHeaders(received, request);
  const encoding = received.headers.get('content-encoding');
  if (encoding)
    environment.chronicle.add('answered', `${request.method} ${request.url}`, {
      detail: `content-encoding ${encoding} is ignored: the body is taken as it is`,
    });
  return received;
}

/** A response that says what it is a version of is not sent again to someone who has it. @see https://www.rfc-editor.org/rfc/rfc9110#name-if-none-match */
export function conditional(response: Response, request: Request): Response {
  const etag = response.headers.get('etag');
  const wanted = request.headers.get('if-none-match');
  if (!etag || !wanted || response.status !== 200 || !/^(GET|HEAD)$/.test(request.method)) return response;
  const bare = (tag: string) => tag.trim().replace(/^W\//, '');
  if (wanted.trim() !== '*' && !wanted.split(',').some((tag) => bare(tag) === bare(etag))) return response;
  const headers = new (native('Headers'))(response.headers);
  for (const name of ['content-type', 'content-length']) headers.delete(name);
  return new (native('Response'))(null, { status: 304, statusText: 'Not Modified', headers });
}

function takeCookies({ headers }: Response): void {
  const cookies = headers.getSetCookie();
  if (cookies.length === 0) return;
  // A page sees neither the header nor a cookie that is for the server alone.
  for (const cookie of cookies) if (!/;\s*httponly\s*(;|$)/i.test(cookie)) document.cookie = cookie;
  headers.delete('set-cookie');
}

function hideHeaders({ headers }: Response, request: Request): void {
  if (new URL(request.url).origin === new URL(baseAddress()).origin) return;
  const exposed = (headers.get('access-control-expose-headers') ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase());
  if (exposed.includes('*') && request.credentials !== 'include') return;
  for (const name of [...headers.keys()])
    if (!safe.has(name) && !exposed.includes(name)) headers.delete(name);
}

const moved = new Set([301, 302, 303, 307, 308]);

/** Where a response sends the request on to; undefined where it does not. @throws TypeError for an address that is none */
export function addressOfRedirect(response: Response, request: Request): URL | undefined {
  const location = response.headers.get('location');
  if (!moved.has(response.status) || location === null) return undefined;
  const next = new URL(location, request.url);
  if (!next.hash) next.hash = new URL(request.url).hash;
  return next;
}

/** The request that follows a redirect. @see https://fetch.spec.whatwg.org/#http-redirect-fetch */
export function makeRedirected(request: Request, to: URL, status: number, body: unknown): RequestInit {
  const becomesGet =
    (status === 303 && !/^(GET|HEAD)$/.test(request.method)) || (status < 303 && request.method === 'POST');
  const headers = new (native('Headers'))(request.headers);
  if (becomesGet)
    for (const name of [...headers.keys()]) if (name.startsWith('content-')) headers.delete(name);
  if (new URL(request.url).origin !== to.origin) headers.delete('authorization');
  return {
    method: becomesGet ? 'GET' : request.method,
    headers,
    signal: request.signal,
    credentials: request.credentials,
    ...(!becomesGet && body !== undefined && { body: body as BodyInit }),
  };
}

/** What a page sees of a redirect that it does not want to follow. */
export const makeOpaque = (response: Response, url: string): Response =>
  Object.defineProperties(new (native('Response'))(null, { headers: response.headers }), {
    type: { value: 'opaqueredirect' },
    url: { value: url },
    status: { value: 0 },
    statusText: { value: '' },
    ok: { value: false },
    headers: { value: new (native('Headers'))() },
  });
