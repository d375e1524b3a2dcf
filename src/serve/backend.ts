import type { IncomingMessage, ServerResponse } from 'node:http';
import { Environment } from '../core/environment';
import { nearest } from '../core/near';
import { refuse as refuseRoute, type UnmatchedRequest } from '../network/errors';
import { Network } from '../network/network';
import { prepareRoutes } from '../network/prepare';
import type { Routes } from '../stage/options';
import { isJson, Kept, withBody } from './kept';
import {
  allowOrigin,
  answerPreflight,
  makeProblem,
  makeRequest,
  parseBody,
  readBody,
  sendResponse,
  whyRefused,
} from './messages';
import { isOfOperation, listRoutes, mayAnswer, namesOf } from './names';
import { emptied, printState, readState, States, type RouteState } from './states';

/** How many requests are listed and remembered. */
const mostTold = 200;

/** A request that was answered, as it is listed. */
export interface Told {
  /** `GET /api/hives?yard=north` */
  readonly asked: string;
  /** 0 for one whose client has gone. */
  readonly status: number;
  readonly milliseconds: number;
  /** What is wrong with it: no route, a contract that it does not fit. */
  readonly problem?: string | undefined;
}

/** A route, as it is listed. */
export interface ServedRoute {
  readonly route: string;
  readonly state: string;
  /** How many requests wait for it to be switched on. */
  readonly waiting: number;
}

/** Answers of routes for whoever asks over HTTP, each in the state it is switched to. */
export class Backend {
  readonly states = new States();
  readonly kept = new Kept();
  /** The requests answered last, oldest first. */
  readonly told: Told[] = [];
  /** Called when something has changed that a person may look at. */
  readonly watchers = new Set<(told?: Told) => void>();
  #environment!: Environment;
  #network!: Network;
  #listed: readonly string[] = [];
  /** Operations by name become known when they are asked for. */
  readonly #operations = new Set<string>();

  private constructor(private make: () => Routes | Promise<Routes>) {}

  /** @param make makes the routes, also when what they remember is to be forgotten @throws what is wrong with them */
  static async open(make: () => Routes | Promise<Routes>): Promise<Backend> {
    const backend = new Backend(make);
    await backend.#load(make);
    return backend;
  }

  // What is there stays until all of what comes instead is made.
  async #load(make: () => Routes | Promise<Routes>): Promise<void> {
    const routes = await make();
    await prepareRoutes(routes);
    const environment = new Environment('the server');
    let network: Network;
    let listed: readonly string[];
    try {
      network = new Network(routes, environment);
      listed = await listRoutes(routes);
    } catch (error) {
      await environment.takeDown().catch(() => undefined);
      throw error;
    }
    const before = this.#environment as Environment | undefined;
    this.make = make;
    this.#network = network;
    this.#environment = environment;
    this.#listed = listed;
    await before?.takeDown().catch(() => undefined);
  }

  get network(): Network {
    return this.#network;
  }

  /** Every route, and the state it is in. */
  get routes(): readonly ServedRoute[] {
    return [...new Set([...this.#listed, ...this.#operations])].map((route) => ({
      route,
      state: printState(this.states.of(route)),
      waiting: this.states.waiting(route),
    }));
  }

  /** Switches a route; all of them where none is named. @throws SIM-ROUTE-UNKNOWN */
  switch(state: RouteState, route?: string): void {
    const known = this.routes.map((one) => one.route);
    if (route !== undefined && !known.includes(route)) {
      // Which operations a schema is asked for, nobody knows beforehand.
      if (!isOfOperation(route) || !this.#network.contract)
        refuseRoute('SIM-ROUTE-UNKNOWN', {
          ...{ subject: 'The server', route, routes: known },
          nearest: nearest(route, known),
        });
      this.#operations.add(route);
    }
    this.states.set(state, route);
    this.#changed();
  }

  /** Switches to the states to begin with, by route; `*` stands for all. @throws SIM-SERVE-STATE, SIM-ROUTE-UNKNOWN */
  begin(states: Readonly<Record<string, string>>): void {
    for (const [route, state] of Object.entries(states))
      this.switch(readState(state), route === '*' ? undefined : route);
  }

  /** Forgets what was posted, and what the routes remember. @param make other routes from now on */
  async reset(make = this.make): Promise<void> {
    await this.#load(make);
    this.kept.clear();
    this.#changed();
  }

  async close(): Promise<void> {
    await this.#environment.takeDown().catch(() => undefined);
  }

  #changed(told?: Told): void {
    for (const watch of this.watchers) watch(told);
  }

  /**
   * Answers a request.
   *
   * @param next where given, called for a request that no route answers
   */
  async answer(asked: IncomingMessage, sending: ServerResponse, next?: () => void): Promise<void> {
    const start = performance.now();
    const { method = 'GET', url: raw = '/' } = asked;
    const leaving = new AbortController();
    sending.on('close', () => leaving.abort());
    const tell = (status: number, problem?: string) => {
      const told = { asked: `${method} ${raw}`, status, milliseconds: performance.now() - start, problem };
      if (this.told.push(told) > mostTold) this.told.shift();
      this.#changed(told);
    };
    const send = async (response: Response, problem?: string) => {
      const headers = new Headers(response.headers);
      allowOrigin(asked, headers);
      const { status, statusText, body } = response;
      const isEmpty = method === 'HEAD' || [204, 205, 304].includes(status);
      const whole = new Response(isEmpty ? null : body, { status, statusText, headers });
      tell(status, problem);
      await sendResponse(whole, sending).catch(() => asked.socket.destroy());
    };
    const refused = whyRefused(raw);
    if (refused) return next ? next() : send(makeProblem(...refused, 'The address cannot be read'));
    try {
      if (next && !(await mayAnswer(this.#network, this.#listed, asked))) return next();
      const bytes = await readBody(asked);
      if (!bytes) return await send(makeProblem(413, 'Content Too Large', 'More than 64 MB were sent'));
      const request = makeRequest(asked, bytes, leaving.signal);
      const type = String(asked.headers['content-type'] ?? '');
      const { response, problem } = await this.#answerTo(request, parseBody(bytes, type), type, asked);
      if (!response) return void asked.socket.destroy();
      await send(response, problem);
    } catch {
      // A broken connection, or a client that has gone.
      tell(0);
      asked.socket.destroy();
    }
  }

  async #answerTo(
    request: Request,
    body: unknown,
    type: string,
    asked: IncomingMessage,
  ): Promise<{ response: Response | undefined; problem?: string | undefined }> {
    const network = this.#network;
    const environment = this.#environment;
    const { names, isGenerated } = await namesOf(network, request, body);
    if (network.contract) for (const name of names.filter(isOfOperation)) this.#operations.add(name);
    const state = await this.states.pass(names, request.signal, () => this.#changed());
    if (request.signal.aborted) throw request.signal.reason;
    if (state.name === 'failing')
      return { response: makeProblem(state.status, 'Switched to failing', names.join(', ')) };
    let answer: Response | UnmatchedRequest | undefined;
    let thrown: unknown;
    try {
      answer = await network.serve(request, { body, carrier: 'fetch', below: this.answer });
    } catch (error) {
      thrown = error;
    }
    if (network.requests.length > mostTold) network.forget();
    const isOwn = answer instanceof Response && answer.status !== 404 && !isGenerated;
    const known = isOwn ? undefined : this.kept.find(request);
    if (known) {
      environment.takeFailures();
      return { response: known };
    }
    const [failure] = environment.takeFailures() as (Error & { code?: string })[];
    const problem = failure && worded(failure);
    if (answer === undefined) {
      if (request.signal.aborted) throw request.signal.reason;
      const unmatched = (thrown as { cause?: Error & { code?: string } }).cause;
      const isUnknown = /^SIM-(REQUEST-UNMATCHED|CONTRACT-UNKNOWN)$/;
      const found = [failure, unmatched].find((one) => isUnknown.test(one?.code ?? ''));
      if (found) return { response: makeProblem(404, 'Not Found', worded(found)), problem: worded(found) };
      return { response: problem ? makeProblem(500, 'No answer', problem) : undefined, problem };
    }
    if (!(answer instanceof Response)) {
      const preflight = answerPreflight(asked);
      if (preflight) return { response: preflight };
      const { pathname, search } = new URL(request.url);
      const words = `No route answers ${request.method} ${pathname}${search}`;
      const detail = [words, answer.differs].filter(Boolean).join('. ');
      return { response: makeProblem(404, 'Not Found', detail), problem: detail };
    }
    const isOperation = names.some(isOfOperation);
    const url = new URL(request.url);
    const response = isOperation
      ? answer
      : await this.kept.apply({ method: request.method, url, body, type, response: answer, isGenerated });
    return { response: state.name === 'empty' ? await makeEmpty(response, request) : response, problem };
  }

  /** Waits until a socket may open. @returns the state in which it does */
  async passSocket(url: URL, signal: AbortSignal): Promise<RouteState> {
    const found = this.#network.find('WS', url);
    return found ? this.states.pass([found.route.key], signal, () => this.#changed()) : { name: 'data' };
  }
}

// A test is not what has gone wrong here, and nobody sees a broken connection.
const worded = ({ code, message }: Error & { code?: string }): string =>
  code === 'SIM-ROUTE-THREW' ? message.split('\n\n')[0]! : message.replace(/\n\n/g, '\n');

async function makeEmpty(response: Response, { method, url }: Request): Promise<Response> {
  if (!response.ok || !isJson(response)) return response;
  const empty = emptied(await response.clone().json());
  if (empty !== undefined) return withBody(response, empty);
  return method === 'GET'
    ? makeProblem(404, 'Not Found', `Switched to empty: ${new URL(url).pathname}`)
    : response;
}
