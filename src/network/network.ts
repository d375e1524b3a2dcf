import type { ChronicleLog } from '../core/chronicle';
import { explain, refuse, type UnmatchedRequest } from './errors';
import { nearest } from '../core/near';
import { print } from '../core/print';
import { settleAnswer } from '../core/settle-answer';
import { shared } from '../core/shared';
import { nearestRoute } from './near-route';
import { makeFailedResponse, makeResponse } from './reply';
import { readRoute, type Route } from './routes';

/** A request the subject made. */
export interface AskedRequest {
  readonly method: string;
  readonly url: string;
  /** The route that answered, as the user wrote it; undefined where none did. */
  readonly route: string | undefined;
  readonly params: Record<string, string>;
  /** What was sent: parsed where it is JSON, else as it was given; undefined for none. */
  readonly body: unknown;
  /** The component that asked, where that is known. */
  readonly from: string | undefined;
  /** The status of the answer, once there is one; 0 for a broken connection. */
  status: number | undefined;
}

/** Who a network belongs to. */
export interface NetworkOwner {
  readonly name: string;
  readonly chronicle: ChronicleLog;
  /** The component of this subject that runs now; undefined where that is not known. */
  running(): string | undefined;
}

/** The routes of one subject, and what was asked of them. */
export class Network {
  readonly requests: AskedRequest[] = [];
  readonly unmatched: UnmatchedRequest[] = [];
  readonly #routes: Route[];

  constructor(
    routes: Readonly<Record<string, unknown>>,
    readonly owner: NetworkOwner,
  ) {
    this.#routes = Object.entries(routes)
      .map(([key, answer]) => readRoute(key, answer))
      // Where two weigh the same the later one counts, so that a test's routes go before its team's.
      .reverse()
      .sort((a, b) => b.weight - a.weight);
  }

  /** The route that answers, with the path parameters; undefined where none does. */
  find(method: string, url: URL): { route: Route; params: Record<string, string> } | undefined {
    for (const route of this.#routes) {
      const params = route.match(method, url);
      if (params) return { route, params };
    }
    return undefined;
  }

  /** Answers a request from the routes. @throws TypeError for a broken connection, as fetch does */
  async answer(request: Request, body: unknown): Promise<Response> {
    const url = new URL(request.url);
    const found = this.find(request.method, url);
    const what = `${request.method} ${printAddress(url)}`;
    const { chronicle } = this.owner;
    const from = this.owner.running();
    const route = found?.route;
    const params = found?.params ?? {};
    const asked: AskedRequest = {
      method: request.method,
      url: request.url,
      route: route?.key,
      params,
      body,
      from,
      status: undefined,
    };
    this.requests.push(asked);
    chronicle.add('asked', what, { from, detail: body === undefined ? '' : print(body, 40) });
    request.signal.addEventListener('abort', () => {
      if (asked.status === undefined) chronicle.add('aborted', what);
    });
    if (!route) return this.#breakUnmatched(request.method, url, asked, what);
    const settled = await settleAnswer(route.answer, (answer) =>
      (answer as (request: Request, params: Record<string, string>) => unknown)(
        request.clone() as Request,
        params,
      ),
    );
    if (request.signal.aborted) throw request.signal.reason;
    const response =
      settled.outcome === 'value'
        ? makeResponse(settled.value, route.key, request.url)
        : makeFailedResponse(settled.failure, request.url);
    asked.status = response?.status ?? 0;
    chronicle.add('answered', what, {
      detail: response ? String(response.status) : 'broken connection',
      trigger: true,
    });
    if (response) return response;
    throw brokenConnection(settled.outcome === 'failure' ? settled.failure.reason : undefined);
  }

  async #breakUnmatched(method: string, url: URL, asked: AskedRequest, what: string): Promise<never> {
    const near = nearestRoute(method, url, this.#routes);
    const unmatched = {
      asked: what,
      from: asked.from,
      nearest: near && `${method} ${printPath(url)}`,
      differs: near?.differs,
    };
    this.unmatched.push(unmatched);
    // Failed at once, like a machine without a network, but never before the asking was rendered.
    await settleAnswer(undefined, () => undefined);
    asked.status = 0;
    this.owner.chronicle.add('unmatched', what, { detail: 'no route', trigger: true });
    throw brokenConnection(this.complaint());
  }

  /** What to say of the requests that nobody answered; undefined where all were answered. */
  complaint(): Error | undefined {
    if (this.unmatched.length === 0) return undefined;
    return explain(
      'SIM-REQUEST-UNMATCHED',
      { subject: this.owner.name, requests: this.unmatched, routes: this.#routes.map(({ key }) => key) },
      { chronicle: this.owner.chronicle },
    );
  }

  /** @throws SIM-ROUTE-UNUSED where a route was never asked for */
  refuseUnused(calledAt: Error): void {
    const asked = this.requests.map(({ method, url }) => `${method} ${printAddress(new URL(url))}`);
    const unused = this.#routes
      .map(({ key }) => key)
      .filter((key) => !this.requests.some(({ route }) => route === key));
    if (unused.length === 0) return;
    const near = nearest(unused[0]!, asked);
    refuse('SIM-ROUTE-UNUSED', { subject: this.owner.name, unused, asked, nearest: near }, { calledAt });
  }
}

function brokenConnection(cause: unknown): TypeError {
  shared.activity++;
  // The platform's own error for this, so that code under test treats it as it does in a browser.
  return new TypeError('Failed to fetch', cause === undefined ? {} : { cause });
}

const printAddress = (url: URL) => `${isHome(url) ? '' : url.origin}${printPath(url)}`;
const printPath = (url: URL) => `${url.pathname}${url.search}`;
const isHome = (url: URL) =>
  url.origin === (globalThis as { location?: Location }).location?.origin || url.hostname === 'localhost';
