import { connection } from '../core/connection';
import type { Environment } from '../core/environment';
import { calledFrom, isExplained } from '../core/errors/called-from';
import { nearest } from '../core/near';
import { siteIn } from '../core/origin';
import { print, printThrown } from '../core/print';
import { settleAnswer, type Settled } from '../core/settle-answer';
import { explain, mostListed, refuse, type UnmatchedRequest } from './errors';
import { watchReading } from './globals';
import { nearestRoute } from './near-route';
import { brokenConnection } from './nobody';
import { printAddress, printPath } from './print-address';
import { makeFailedResponse, makeResponse } from './reply';
import { readRoute, type Params, type Route } from './routes';

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

/** The network of a subject. */
export const networkOf = (environment: Environment) => environment.network as Network | undefined;

/** The routes of one subject, and what was asked of them. */
export class Network {
  readonly requests: AskedRequest[] = [];
  readonly unmatched: UnmatchedRequest[] = [];
  readonly #routes: readonly Route[];

  constructor(
    routes: Readonly<Record<string, unknown>>,
    readonly environment: Environment,
  ) {
    this.#routes = Object.entries(routes)
      .map(([key, answer]) => readRoute(key, answer))
      // Of two equally specific routes the later one wins, so that a test's routes override its team's.
      .reverse()
      .sort((a, b) => b.weight - a.weight);
    environment.network = this;
    environment.answers = (method, url) => this.find(method, url) !== undefined;
  }

  /** The route that answers, with the path parameters; undefined where none does. */
  find(method: string, url: URL): { route: Route; params: Params } | undefined {
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
    const { chronicle } = this.environment;
    const from = this.environment.running();
    const asked: AskedRequest = {
      method: request.method,
      url: request.url,
      route: found?.route.key,
      params: found?.params ?? {},
      body,
      from,
      status: undefined,
    };
    this.requests.push(asked);
    chronicle.add('asked', what, { from, detail: body === undefined ? '' : print(body, 40) });
    request.signal.addEventListener('abort', () => {
      if (asked.status === undefined) chronicle.add('aborted', what);
    });
    if (!connection.isOnline) return this.#breakOffline(asked, what);
    if (!found) return this.#breakUnmatched(url, asked, what);
    const response = await this.#respond(found, request, what);
    if (request.signal.aborted) throw request.signal.reason;
    const isResponse = !(response instanceof Error);
    asked.status = isResponse ? response.status : 0;
    chronicle.add('answered', what, {
      detail: isResponse ? String(response.status) : 'broken connection',
      trigger: true,
    });
    if (isResponse) return watchReading(response, this.environment, what);
    throw response;
  }

  /** The answer of a route; the error that breaks the connection where it has none. */
  async #respond(
    { route, params }: { route: Route; params: Params },
    request: Request,
    label: string,
  ): Promise<Response | Error> {
    const { environment } = this;
    let settled: Settled;
    try {
      settled = await settleAnswer(route.answer, {
        environment,
        label,
        call: (answer) =>
          (answer as (request: Request, params: Params) => unknown)(
            watchReading(request.clone() as Request, environment, label),
            params,
          ),
      });
      if (settled.outcome === 'value') return makeResponse(settled.value, route.key, request.url);
    } catch (error) {
      // The component may catch this error, so the test is told of it separately.
      environment.fail(wordRouteThrew(error, route));
      await environment.gate.pass(label);
      return brokenConnection(error);
    }
    return makeFailedResponse(settled.failure, request.url) ?? brokenConnection(settled.failure.reason);
  }

  async #breakOffline(asked: AskedRequest, what: string): Promise<never> {
    const { gate, chronicle } = this.environment;
    await gate.pass(what);
    asked.status = 0;
    chronicle.add('answered', what, { detail: 'offline', trigger: true });
    throw brokenConnection(undefined);
  }

  async #breakUnmatched(url: URL, asked: AskedRequest, what: string): Promise<never> {
    // Nothing was awaited yet, so this is still the stack of the call. A stack is slow to take, so only those
    // that a message lists have one.
    const sent = this.unmatched.length < mostListed ? calledFrom('fetch', this.answer) : undefined;
    const { method, body } = asked;
    let found: { near: ReturnType<typeof nearestRoute> } | undefined;
    const near = () => (found ??= { near: nearestRoute(method, url, this.#routes) }).near;
    const unmatched = {
      asked: what,
      ...{ method, url: asked.url, body },
      // Reading a stack and comparing routes is slow, so it happens only on demand.
      get at() {
        return sent && siteIn(sent);
      },
      from: asked.from,
      get nearest() {
        return near() && `${method} ${printPath(url)}`;
      },
      get differs() {
        return near()?.differs;
      },
    };
    this.unmatched.push(unmatched);
    // Fails at once, as without a network, but not before the loading state was rendered.
    await this.environment.gate.pass(what);
    asked.status = 0;
    this.environment.chronicle.add('unmatched', what, { detail: 'no route', trigger: true });
    const error = brokenConnection();
    // Worded on demand, because a component may send a thousand requests.
    let cause: Error | undefined;
    throw Object.defineProperty(error, 'cause', {
      configurable: true,
      enumerable: false,
      get: () => (cause ??= this.#complaintOf([unmatched])),
    });
  }

  /** What to say of the requests that nobody answered; undefined where all were answered. */
  complaint(): Error | undefined {
    return this.unmatched.length === 0 ? undefined : this.#complaintOf(this.unmatched);
  }

  #complaintOf(requests: UnmatchedRequest[]): Error {
    const { name, chronicle } = this.environment;
    const routes = this.#routes.map(({ key }) => key);
    return explain('SIM-REQUEST-UNMATCHED', { subject: name, requests, routes }, { chronicle });
  }

  /** @throws SIM-ROUTE-UNUSED where a route was never asked for */
  refuseUnused(calledAt: Error): void {
    const asked = this.requests.map(({ method, url }) => `${method} ${printAddress(new URL(url))}`);
    const unused = this.#routes
      .map(({ key }) => key)
      .filter((key) => !this.requests.some(({ route }) => route === key));
    if (unused.length === 0) return;
    const near = nearest(unused[0]!, asked);
    const fields = { subject: this.environment.name, unused, asked, nearest: near };
    refuse('SIM-ROUTE-UNUSED', fields, { calledAt });
  }
}

// An assertion in a route belongs to the test, so its own message is kept.
function wordRouteThrew(error: unknown, { key }: Route): Error {
  if (isExplained(error)) return error;
  if (typeof error === 'object' && error !== null && 'matcherResult' in error) return error as never;
  const threw = printThrown(error);
  return explain('SIM-ROUTE-THREW', { route: key, threw }, { cause: error });
}
