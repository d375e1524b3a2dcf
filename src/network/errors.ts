import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import type { Place } from '../core/origin';
import { list } from '../core/print';

/** Failures of the network double. */
export const registry = {
  'SIM-REQUEST-UNMATCHED': (f: {
    subject: string;
    requests: UnmatchedRequest[];
    routes: string[];
  }): Report => ({
    head:
      f.requests.length === 1
        ? `No route answers ${f.requests[0]!.asked}${by(f.requests[0]!)}.`
        : `${f.requests.length} requests of ${f.subject} were answered by no route.`,
    there: [
      ...(f.requests.length > 1
        ? f.requests
            .slice(0, mostListed)
            .map((r) => `${r.asked}${by(r)}${r.differs ? ` (${r.differs})` : ''}`)
        : []),
      ...(f.requests.length > mostListed ? [`… ${f.requests.length - mostListed} more`] : []),
      ...(f.requests.length === 1 && f.requests[0]!.differs ? [f.requests[0]!.differs] : []),
      f.routes.length ? `The routes are ${list(f.routes)}.` : 'This test has no routes at all.',
      'In the component it failed like a broken connection. Nothing was sent.',
    ],
    nearest: f.requests[0]?.nearest && `'${f.requests[0].nearest}': …`,
    next: f.requests[0]?.nearest
      ? []
      : [
          `Answer it:   network: { '${f.requests[0]!.asked}': ${/^(WebSocket|EventSource)$/.test(f.requests[0]!.carrier) ? 'channel()' : '…'} }`,
        ],
  }),
  'SIM-ROUTE-UNUSED': (f: {
    subject: string;
    unused: string[];
    asked: string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.unused.length === 1 ? `The route ${f.unused[0]} was` : `The routes ${list(f.unused)} were`} never asked for.`,
    there: [f.asked.length ? `${f.subject} asked for ${list(f.asked)}.` : `${f.subject} asked for nothing.`],
    nearest: f.nearest && `'${f.nearest}'`,
    next: ['Remove the route, or find out why the component does not send this request.'],
  }),
  'SIM-ROUTE-TIMES': (f: { subject: string; route: string; times: number; asked: string[] }): Report => ({
    head: `The route ${f.route} was asked for ${often(f.asked.length)} instead of ${often(f.times)}.`,
    there: [
      f.asked.length ? `${f.subject} asked for ${list(f.asked, 20)}.` : `${f.subject} asked nothing of it.`,
    ],
    next: ['When and why each was sent:   String(subject.chronicle)'],
  }),
  'SIM-ROUTE-UNKNOWN': (f: {
    subject: string;
    route: string;
    routes: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} has no route "${f.route}".`,
    there: [f.routes.length ? `Its routes are ${list(f.routes)}.` : 'It has no routes at all.'],
    nearest: f.nearest && `'${f.nearest}'`,
    next: ['A route is named here as it is written under network.'],
  }),
  'SIM-SCHEMA': (f: { why: string; at?: string | undefined; line?: string | undefined }): Report => ({
    head: `The schema given to fromSchema() cannot be read: ${f.why}`,
    there: f.line ? [`At ${f.at}:   ${f.line}`] : [],
    next: ['It takes the schema language, the result of an introspection, or a GraphQLSchema.'],
  }),
  'SIM-CONTRACT-DOCUMENT': (f: { why: string; at: string }): Report => ({
    head: `The contract cannot be used: ${f.why}.`,
    there: f.at ? [`At ${f.at}`] : [],
    next: [
      'fromOpenApi() takes a document of version 3.0 or 3.1, JSON or YAML as text, or what it holds; fromJsonSchema() takes a schema as an object.',
    ],
  }),
  'SIM-CONTRACT-UNKNOWN': (f: { asked: string; route: string; nearest?: string | undefined }): Report => ({
    head: `The document has no operation for ${f.asked}.`,
    there: [`The route "${f.route}" answers it, and its server would not.`],
    nearest: f.nearest,
    next: ['Mend the address, or bring the document up to date.'],
  }),
  'SIM-CONTRACT-REQUEST': (f: {
    asked: string;
    problems: readonly { path: string; why: string; nearest: string | undefined }[];
  }): Report => ({
    head: `${f.asked} is not what the document allows.`,
    there: f.problems.slice(0, 6).map(({ path, why }) => `${path}: ${why}`),
    nearest: f.problems[0]!.nearest,
    next: ['Mend what the component sends, or bring the document up to date.'],
  }),
  'SIM-PACKAGE': (f: { name: string; why: string }): Report => ({
    head: `The package ${f.name} is missing, which is needed for ${f.why}.`,
    next: [`Install it:   npm install --save-dev ${f.name}`],
  }),
  'SIM-CONTRACT-DRIFT': (f: {
    route: string;
    drifts: readonly { path: string; why: string; nearest: string | undefined }[];
  }): Report => ({
    head: `The answer of ${f.route} is not what its contract promises, at ${list(
      f.drifts.map(({ path }) => `"${path}"`),
      6,
    )}.`,
    there: f.drifts.slice(0, 6).map(({ path, why }) => `${path}: ${why}`),
    nearest: f.drifts[0]!.nearest,
    next: ['Mend the answer, or bring the contract up to date.'],
  }),
  'SIM-GRAPHQL-LACKS': (f: {
    route: string;
    lacking: readonly string[];
    has: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `The answer of ${f.route} lacks ${list(
      f.lacking.map((path) => `"${path}"`),
      6,
    )}, which the operation selects.`,
    there: [f.has.length ? `There it has ${list(f.has)}.` : 'There it has nothing.'],
    nearest: f.nearest && `${/[^.\]]*$/.exec(f.lacking[0]!)![0]}, which was answered as "${f.nearest}"`,
    next: ['A server sends every field that is selected, null where it has no value.'],
  }),
  'SIM-GRAPHQL-DOCUMENT': (f: {
    route: string;
    why: string;
    at?: string | undefined;
    line?: string | undefined;
  }): Report => ({
    head: `The document that was sent for ${f.route} cannot be read: ${f.why}`,
    there: f.line ? [`At ${f.at}:   ${f.line}`] : [],
    next: ['A server refuses it. Mend it where the component builds it.'],
  }),
  'SIM-GRAPHQL-PACKAGE': (f: { route: string }): Report => ({
    head: `The answer of ${f.route} cannot be compared with what was selected, because the package graphql is missing.`,
    next: ['Install it:   npm install --save-dev graphql'],
  }),
  'SIM-ROUTE-SYNTAX': (f: { route: string; why: string; nearest?: string | undefined }): Report => ({
    head: `"${f.route}" is no route: ${f.why}.`,
    there: ['A route is a method and a URL pattern, with a query if that matters.'],
    nearest: f.nearest && `'${f.nearest}'`,
    next: ['The patterns are those of the URL Pattern standard: :name, *, {…}?, (regular expression).'],
  }),
  'SIM-ROUTE-ANSWER': (f: { route: string; why: string; isLive?: boolean }): Report => ({
    head: `The answer of the route ${f.route} cannot be sent: ${f.why}.`,
    next: [
      f.isLive || f.route.startsWith('WS ')
        ? `Answer with channel(), stream(), ${f.isLive ? 'a Response of text/event-stream' : 'a function of the connection'}, fail(), hold(), later() or inTurn().`
        : 'Answer with a value that JSON can hold, a Response, a Blob, a function, stream(), channel(), fail(), hold(), later() or inTurn().',
    ],
  }),
  'SIM-ROUTE-THREW': (f: { route: string; threw: string }): Report => ({
    head: `The answer of the route ${f.route} threw: ${f.threw}`,
    there: ['It is the function that the test gave for this route. The component saw a broken connection.'],
    next: ['The original error is the cause of this one. To make the request fail, return fail(…).'],
  }),
  'SIM-CARRIER-REFUSED': (f: { asked: string; from: string | undefined; subject: string }): Report => ({
    head: `${f.asked} went out by import()${f.from ? `, from ${f.from}` : ''}, and routes do not answer that.`,
    there: ['It failed as it would without a network. Nothing was sent.'],
    next: [
      "Swap the module that loads it:   swap: [swap(() => import('./loads-it'), { … })]",
      `or provide a service that needs none:   provide: [[Service, standIn(Service)]]`,
    ],
  }),
  'SIM-REQUEST-SYNC': (f: { asked: string; from: string | undefined; subject: string }): Report => ({
    head: `${f.asked} was sent by a synchronous XMLHttpRequest${f.from ? `, from ${f.from}` : ''}.`,
    there: [
      'A route answers later, as a server does, and a synchronous request would block the page until then. It failed, and nothing was sent.',
    ],
    next: ['Send it asynchronously:   request.open(method, url)   without the third argument false'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);

/** What a request went out by. */
export type Carrier = 'fetch' | 'XMLHttpRequest' | 'WebSocket' | 'EventSource' | 'navigator.sendBeacon';

/** How many requests a message lists. */
export const mostListed = 20;

/** A request nobody answered, and the route that came nearest. */
export interface UnmatchedRequest {
  /** As it is printed: `GET /api/hives?yard=north`. */
  readonly asked: string;
  readonly method: string;
  readonly url: string;
  readonly carrier: Carrier;
  /** What was sent, parsed where it is JSON; undefined where nothing was. */
  readonly body: unknown;
  /** Where in the user's code it was sent from, where that is known; of the first 20 requests. */
  readonly at?: Place | undefined;
  readonly from?: string | undefined;
  readonly nearest?: string | undefined;
  readonly differs?: string | undefined;
}

const often = (times: number) => ['never', 'once', 'twice'][times] ?? `${times} times`;

const by = ({ carrier, from }: UnmatchedRequest) =>
  `${carrier === 'fetch' ? '' : ` (${carrier})`}${from ? `, asked by ${from}` : ''}`;
