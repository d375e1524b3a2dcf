import { connection } from '../core/connection';
import type { Environment } from '../core/environment';
import { calledFrom } from '../core/errors/called-from';
import { print } from '../core/print';
import { checkAnswered } from './documented';
import { isDocumentContract } from './from-open-api';
import { addressOfOperation, readOperations, type Operation, type Operations } from './operations';
import { makeRequests, type AskedRequest, type Begun, type Sent } from './asked';
import { contentOf, noteExchange } from './exchanges';
import { explain, mostListed, type UnmatchedRequest } from './errors';
import { addressOfRedirect, arrive, conditional, makeOpaque, makeRedirected } from './arrive';
import { rawBodyOf, requestClass, watchReading } from './globals';
import { brokenConnection } from './nobody';
import { printAddress } from './print-address';
import { makeUnmatched } from './unmatched';
import { arriveFrom } from './reply';
import { respond } from './respond';
import { isEndless } from './reply-bodies';
import { indexRoutes } from './route-index';
import { readRoute, type Params, type Route } from './routes';

/** A route, with the path parameters of a request that it answers. */
type Found = { readonly route: Route; readonly params: Params };

const mostHops = 20;
// HttpClient puts some fifty frames between the component that asks and what sends.
const deep = 80;
export const networkOf = (environment: Environment) => environment.network as Network | undefined;

/** The routes of one subject, and what was asked of them. */
export class Network {
  readonly requests = makeRequests(
    () => this.environment.name,
    () => this.keys,
  );
  readonly unmatched: UnmatchedRequest[] = [];
  readonly #routes: readonly Route[];
  readonly #mayReach: (url: URL) => readonly Route[];
  readonly #hasDocuments: boolean;

  constructor(
    routes: Readonly<Record<string, unknown>>,
    readonly environment: Environment,
  ) {
    this.#routes = Object.entries(routes)
      .map(([key, answer]) => readRoute(key, answer))
      // Of two equally specific routes the later one wins, so that a test's routes override its team's.
      .reverse()
      .sort((a, b) => b.weight - a.weight);
    this.#mayReach = indexRoutes(this.#routes);
    this.#hasDocuments = this.#routes.some(({ answer }) => isDocumentContract(answer));
    environment.network = this;
    environment.answers = (method, url) => this.find(method, url) !== undefined;
  }

  /** The route that answers, with the path parameters; undefined where none does. */
  find(method: string, url: URL): Found | undefined {
    for (const route of this.#mayReach(url)) {
      const params = route.match(method, url);
      if (params) return { route, params };
    }
    return undefined;
  }

  /** What a request is for: a route, or operations that are answered by their names. */
  reach(
    method: string,
    url: URL,
    body: unknown,
  ): { found?: Found | undefined; operations?: Operations | undefined } {
    const found = this.find(method, url);
    const isPlain = found && !found.route.contract;
    return { found, operations: isPlain ? undefined : readOperations(url, body) };
  }

  /** Writes a request down, and looks for its route. */
  begin(method: string, url: URL, sent: Sent, headers?: Headers, found = this.find(method, url)): Begun {
    const path = sent.name ?? printAddress(url);
    const what = `${method} ${path}`;
    const { chronicle } = this.environment;
    const from = this.environment.running();
    const { body, carrier } = sent;
    const asked: AskedRequest = {
      method,
      url: url.href,
      path,
      route: found?.route.key,
      params: found?.params ?? {},
      get headers() {
        return Object.fromEntries(headers ?? []);
      },
      body,
      carrier,
      from,
      at: chronicle.elapsed,
      status: undefined,
    };
    this.requests.push(asked);
    chronicle.add('asked', what, { from, detail: body === undefined ? '' : print(body, 40) });
    const isListed = !found && this.unmatched.length < mostListed;
    const sentFrom = isListed ? calledFrom('sent', sent.below, deep) : undefined;
    return { asked, what, url, found, sentFrom, contract: sent.contract?.contract };
  }

  /** Writes an operation down, and looks for its route. */
  beginOperation(operation: Operation, url: string, sent: Sent, headers?: Headers): Begun {
    const { kind, variables } = operation;
    const { href } = new URL(url);
    const own = { ...sent, body: variables, name: operation.name || '*' };
    const address = addressOfOperation(operation);
    const byDefault = sent.contract && { route: sent.contract, params: {} };
    const begun = this.begin(kind, address, own, headers, this.find(kind, address) ?? byDefault);
    return { ...begun, asked: Object.assign(begun.asked, { url: href }) };
  }

  /** Its routes, as the user wrote them. */
  get keys(): string[] {
    return this.#routes.map(({ key }) => key);
  }

  /** Answers operations that come by a socket. */
  get contract(): Route | undefined {
    return this.#routes.find(({ contract }) => contract !== undefined);
  }

  /** Breaks what reaches no route. @throws TypeError as fetch does */
  async refuseUnreached(begun: Begun): Promise<void> {
    if (!connection.isOnline) await this.#breakOffline(begun);
    if (!begun.found) await this.#breakUnmatched(begun);
  }

  /** Answers a request from the routes. @throws TypeError for a broken connection, as fetch does */
  async answer(request: Request, sent: Sent): Promise<Response> {
    const url = new URL(request.url);
    const { found, operations } = this.reach(request.method, url, sent.body);
    if (operations) {
      // Written down at once, while it is known who asks.
      const response = await this.#operate(request, { ...sent, contract: found?.route }, operations);
      const { environment } = this;
      return watchReading(arriveFrom(request.url, response), environment, url.pathname, isEndless(response));
    }
    const begun = this.begin(request.method, url, sent, request.headers, found);
    const { asked, what } = begun;
    const { chronicle } = this.environment;
    request.signal.addEventListener('abort', () => {
      if (asked.status === undefined) chronicle.add('aborted', what);
    });
    if (!connection.isOnline || !found) await this.refuseUnreached(begun);
    const answer = await this.#answered(begun, request, sent, (raw) =>
      arrive(raw, request, this.environment),
    );
    const { response, raw } = answer;
    const next = addressOfRedirect(response, request);
    if (next) return this.#follow(response, request, next, sent);
    return watchReading(arriveFrom(request.url, response, sent.hops), this.environment, what, isEndless(raw));
  }

  async #operate(request: Request, sent: Sent, { operations, isBatch }: Operations): Promise<Response> {
    const all = operations.map((operation) => ({
      operation,
      begun: this.beginOperation(operation, request.url, sent, request.headers),
    }));
    const reached = Promise.all(all.map(({ begun }) => this.refuseUnreached(begun)));
    reached.catch(() => undefined);
    const { answerOperations } = await this.environment.work.during(
      'request',
      request.url,
      () => import('./graphql/answer'),
    );
    await reached;
    return answerOperations(this, request, { all, isBatch });
  }

  /** What the route gives to a request that is written down. @throws what breaks the connection */
  async #answered(
    begun: Begun,
    request: Request,
    sent: Sent,
    arriving: (response: Response) => Response,
  ): Promise<{ readonly response: Response; readonly raw: Response }> {
    const { asked, what } = begun;
    const raw = await respond(this.environment, begun, request, sent);
    if (this.#hasDocuments) await checkAnswered(this.#routes, begun, request, raw, this.environment);
    if (request.signal.aborted) throw request.signal.reason;
    const isBroken = raw instanceof Error;
    if (!isBroken) noteExchange(asked, raw, this.environment.chronicle.elapsed, { content: contentOf(raw) });
    const response = isBroken ? raw : arriving(raw);
    asked.status = response instanceof Error ? 0 : response.status;
    const detail = isBroken ? 'broken connection' : String(asked.status);
    this.environment.chronicle.add('answered', what, { detail, trigger: true });
    if (response instanceof Error) throw response;
    return { response, raw: raw as Response };
  }

  /**
   * Answers a request of somebody else than a page, with all its headers.
   *
   * @returns the answer, or what there is to say where no route has one
   * @throws what breaks the connection
   */
  async serve(request: Request, sent: Sent): Promise<Response | UnmatchedRequest> {
    const url = new URL(request.url);
    const { found, operations } = this.reach(request.method, url, sent.body);
    if (operations) return this.#operate(request, { ...sent, contract: found?.route }, operations);
    const begun = this.begin(request.method, url, sent, request.headers, found);
    if (!begun.found) return makeUnmatched(begun, this.#routes);
    return (await this.#answered(begun, request, sent, (raw) => conditional(raw, request))).response;
  }

  /** Forgets what was asked so far, in what goes on without an end. */
  forget(): void {
    this.requests.length = 0;
    this.environment.chronicle.forget();
  }

  #follow(response: Response, request: Request, to: URL, sent: Sent): Response | Promise<Response> {
    if (request.redirect === 'manual') return makeOpaque(response, request.url);
    const { hops = 0 } = sent;
    if (request.redirect === 'error' || hops === mostHops || !/^https?:$/.test(to.protocol))
      throw brokenConnection();
    const init = makeRedirected(request, to, response.status, rawBodyOf(request));
    const next = new (requestClass())(to.href, init);
    const { body, ...rest } = sent;
    return this.answer(next, { ...rest, body: init.body === undefined ? undefined : body, hops: hops + 1 });
  }

  async #breakOffline({ asked, what }: Begun): Promise<never> {
    const { gate, chronicle } = this.environment;
    await gate.pass(what);
    asked.status = 0;
    chronicle.add('answered', what, { detail: 'offline', trigger: true });
    throw brokenConnection(undefined);
  }

  async #breakUnmatched(begun: Begun): Promise<never> {
    const { asked, what } = begun;
    const unmatched = makeUnmatched(begun, this.#routes);
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
    const { name: subject, chronicle } = this.environment;
    return explain('SIM-REQUEST-UNMATCHED', { subject, requests, routes: this.keys }, { chronicle });
  }
}
