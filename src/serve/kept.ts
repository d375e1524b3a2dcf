import { makeProblem } from './messages';

type Item = Record<string, unknown>;

/** What happened to the items of one address. */
interface Collection {
  readonly added: Item[];
  /** What an item was changed to, or undefined for one that was taken away, by its id. */
  readonly changed: Map<string, Item | undefined>;
}

const isItem = (value: unknown): value is Item => Object.prototype.toString.call(value) === '[object Object]';
const idOf = (item: Item): string | undefined => {
  const id = item['id'] ?? item['_id'] ?? item['uuid'] ?? item['key'];
  return typeof id === 'string' || typeof id === 'number' ? String(id) : undefined;
};
export const isJson = (response: Response) => /\bjson\b/.test(response.headers.get('content-type') ?? '');

/** A request that was answered. */
export interface Exchange {
  readonly method: string;
  readonly url: URL;
  readonly body: unknown;
  /** The type of what was sent. */
  readonly type: string;
  readonly response: Response;
  /** True where the answer was made from a contract, so that what was sent stands in for it. */
  readonly isGenerated: boolean;
}

/**
 * What was posted, for as long as the server runs. An address that lists items gets those that were posted
 * to it, an item has what was put or patched, and one that was deleted is gone.
 */
export class Kept {
  readonly #collections = new Map<string, Collection>();
  /** What was put at an address, where that is no item of a list. */
  readonly #files = new Map<string, { readonly body: BodyInit; readonly type: string }>();

  /** How much is kept. */
  get size(): number {
    const collections = [...this.#collections.values()];
    return collections.reduce((sum, one) => sum + one.added.length + one.changed.size, this.#files.size);
  }

  clear(): void {
    this.#collections.clear();
    this.#files.clear();
  }

  /** What is kept whole, of what no route may know: a file that was put, an item that was posted. */
  find({ method, url: href }: Request): Response | undefined {
    if (method !== 'GET' && method !== 'HEAD') return undefined;
    const { pathname } = new URL(href);
    const file = this.#files.get(pathname);
    if (file) return new Response(file.body, { headers: { 'content-type': file.type } });
    const one = this.#itemOf(pathname);
    return one === 'gone' ? makeGone(pathname) : one?.isWhole ? makeJson(one.item) : undefined;
  }

  /** Keeps what was sent, and answers with what is kept. */
  async apply(exchange: Exchange): Promise<Response> {
    const { method, response } = exchange;
    if (method === 'GET' || method === 'HEAD') return this.#shown(exchange);
    if (!response.ok) return this.#laterMade(exchange) ?? response;
    if (method === 'POST') return this.#post(exchange);
    if (method === 'PUT' || method === 'PATCH') return this.#change(exchange);
    if (method === 'DELETE') this.#at(exchange.url, ({ changed }, id) => changed.set(id, undefined));
    return response;
  }

  async #post(exchange: Exchange): Promise<Response> {
    const { url, body, response } = exchange;
    if (!isItem(body)) return response;
    const answered = await readItem(response);
    const item: Item = exchange.isGenerated ? { ...answered, ...body } : { ...body, ...answered };
    // Made from a contract, each would have the id of the first.
    if (exchange.isGenerated && answered && !('id' in body) && typeof answered['id'] === 'string')
      item['id'] = this.#freeId(url.pathname, answered['id']);
    this.#collection(url.pathname).added.push(item);
    if (!exchange.isGenerated || !answered) return response;
    return withBody(response, Object.fromEntries(Object.keys(answered).map((key) => [key, item[key]])));
  }

  #freeId(path: string, like: string): string {
    const { added } = this.#collection(path);
    const taken = (id: string) => added.some((item) => item['id'] === id);
    const stem = like.replace(/\d+$/, '');
    for (let number = 101; ; number++) if (!taken(`${stem}${number}`)) return `${stem}${number}`;
  }

  async #change(exchange: Exchange): Promise<Response> {
    const { method, url, body, type, response } = exchange;
    if (!isItem(body)) {
      if (body !== undefined) this.#files.set(url.pathname, { body: body as BodyInit, type });
      return response;
    }
    const answered = await readItem(response);
    this.#at(url, (collection, id) => {
      const own = collection.added.findIndex((item) => idOf(item) === id);
      if (own >= 0) collection.added[own] = { ...collection.added[own], ...body };
      else collection.changed.set(id, { ...(method === 'PATCH' && collection.changed.get(id)), ...body });
    });
    return exchange.isGenerated && answered ? withBody(response, { ...answered, ...body }) : response;
  }

  // What was posted may be unknown to the route that answers for one item.
  #laterMade({ method, url, body, response }: Exchange): Response | undefined {
    const [list, id] = splitLast(url.pathname);
    const collection = this.#collections.get(list);
    const at = collection?.added.findIndex((item) => idOf(item) === id) ?? -1;
    if (response.status !== 404 || at < 0) return undefined;
    if (method === 'DELETE') {
      collection!.added.splice(at, 1);
      return new Response(null, { status: 204, statusText: 'No Content' });
    }
    if (!isItem(body)) return undefined;
    return makeJson((collection!.added[at] = { ...collection!.added[at], ...body }));
  }

  async #shown({ url, response }: Exchange): Promise<Response> {
    const one = this.#itemOf(url.pathname);
    if (!one && !this.#collections.has(url.pathname)) return response;
    if (!response.ok || !isJson(response)) return response;
    const value = (await response.clone().json()) as unknown;
    if (one && one !== 'gone' && isItem(value)) return withBody(response, { ...value, ...one.item });
    return Array.isArray(value) ? withBody(response, this.#listed(url, value as unknown[])) : response;
  }

  #itemOf(path: string): { readonly item: Item; readonly isWhole: boolean } | 'gone' | undefined {
    const [list, id] = splitLast(path);
    const { added, changed } = this.#collections.get(list) ?? {};
    const own = added?.findLast((item) => idOf(item) === id);
    if (!changed?.has(id)) return own && { item: own, isWhole: true };
    const item = changed.get(id);
    return item ? { item, isWhole: false } : 'gone';
  }

  /** A list with what was added, changed and taken away, as far as a query asks for it. */
  #listed(url: URL, items: readonly unknown[]): unknown[] {
    const { added, changed } = this.#collection(url.pathname);
    const asIs = items.flatMap((item) => {
      const id = isItem(item) ? idOf(item) : undefined;
      if (id === undefined || !changed.has(id)) return [item];
      const change = changed.get(id);
      return change ? [{ ...(item as Item), ...change }] : [];
    });
    const ids = new Set(asIs.map((item) => (isItem(item) ? idOf(item) : undefined)));
    const isWanted = (item: Item) =>
      [...url.searchParams].every(([key, value]) => !(key in item) || printed(item[key]) === value);
    // A route that is a function may remember what was posted by itself.
    const isThere = (item: Item) =>
      asIs.some(
        (one) =>
          isItem(one) && Object.entries(item).every(([key, value]) => printed(one[key]) === printed(value)),
      );
    const isNew = (item: Item) => {
      const id = idOf(item);
      return id === undefined ? !isThere(item) : !ids.has(id) && !changed.has(id);
    };
    return [...asIs, ...added.filter((item) => isNew(item) && isWanted(item))];
  }

  #at({ pathname }: URL, work: (collection: Collection, id: string) => void): void {
    const [list, id] = splitLast(pathname);
    work(this.#collection(list), id);
  }

  #collection(path: string): Collection {
    const known = this.#collections.get(path);
    if (known) return known;
    const made: Collection = { added: [], changed: new Map() };
    this.#collections.set(path, made);
    return made;
  }
}

const printed = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value));

function splitLast(path: string): readonly [list: string, id: string] {
  const at = path.lastIndexOf('/');
  return [path.slice(0, at), decodeURIComponent(path.slice(at + 1))];
}

async function readItem(response: Response): Promise<Item | undefined> {
  if (!isJson(response)) return undefined;
  const value = (await response
    .clone()
    .json()
    .catch(() => undefined)) as unknown;
  return isItem(value) ? value : undefined;
}

/** The same response with another body. */
export function withBody(response: Response, value: unknown): Response {
  const headers = new Headers(response.headers);
  headers.delete('content-length');
  return new Response(JSON.stringify(value), {
    ...{ status: response.status, statusText: response.statusText, headers },
  });
}

const makeJson = (value: unknown) =>
  new Response(JSON.stringify(value), { headers: { 'content-type': 'application/json' } });

const makeGone = (pathname: string) => makeProblem(404, 'Not Found', `${pathname} was deleted`);
