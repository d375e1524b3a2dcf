import { native } from '../core/host';
import { shared } from '../core/shared';
import { makeRequestClass, replaceGlobal } from './globals';
import type { Network } from './network';

// One list for the process: two subjects may be up at once, and there is only one global fetch.
const open = (shared.rooms['networks'] ??= { networks: [], restore: [] }) as {
  networks: Network[];
  restore: (() => void)[];
};

/** Lets a network answer the global `fetch`; the returned function ends it. */
export function connect(network: Network): () => void {
  if (open.networks.length === 0) open.restore = install();
  open.networks.unshift(network);
  return () => {
    open.networks = open.networks.filter((other) => other !== network);
    if (open.networks.length === 0) for (const restore of open.restore.splice(0).reverse()) restore();
  };
}

// The page's window may have none of the Fetch classes, or some of its own that do not fit together.
function install(): (() => void)[] {
  return [
    replaceGlobal('Request', () => requestClass()),
    replaceGlobal('Response', () => native('Response')),
    replaceGlobal('Headers', () => native('Headers')),
    replaceGlobal('fetch', () => fetchDouble),
  ];
}

// Node loads its Fetch classes when they are first touched, which a test without requests need not wait for.
let known: typeof Request | undefined;
const requestClass = () => (known ??= makeRequestClass());

/** The Fetch standard's `fetch`, answered by the open networks. @see https://fetch.spec.whatwg.org */
async function fetchDouble(input: RequestInfo | URL, init: RequestInit = {}): Promise<Response> {
  const request = new (requestClass())(input, init);
  if (request.signal.aborted) throw request.signal.reason;
  const url = new URL(request.url);
  const network =
    open.networks.find(({ owner }) => owner.running() !== undefined) ??
    open.networks.find((candidate) => candidate.find(request.method, url)) ??
    open.networks[0]!;
  return Promise.race([network.answer(request, readBody(init.body)), abortOf(request.signal)]);
}

function abortOf(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
  });
}

function readBody(body: unknown): unknown {
  if (body === null || body === undefined) return undefined;
  if (typeof body !== 'string') return body;
  try {
    return JSON.parse(body) as unknown;
  } catch {
    return body;
  }
}
