import { nearest } from '../core/near';
import { refuse } from './errors';
import { isArranged } from '../core/answers';
import { isContract, type Contract } from './from-schema';
import { isError } from '../core/is-error';
import { print } from '../core/print';
import { isOperationKind, operationKinds } from './operations';
import { compile, decode, type Pattern } from './patterns';
import { whyUnsendable } from './reply';
import { goesOn, whyNoSocket } from './reply-bodies';

/** The methods a route can have: those of HTTP, `ANY` for each of them, `WS` for a WebSocket, and the kinds of operations of GraphQL. */
export const methods = [
  ...(['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS', 'ANY', 'WS'] as const),
  ...operationKinds,
] as const;
export type Method = (typeof methods)[number];

/** One line of the `network` option, read. */
export interface Route {
  /** As the user wrote it. */
  readonly key: string;
  readonly method: string;
  /** The path (or whole URL) as written, without the query. */
  readonly path: string;
  readonly query: readonly QueryPart[];
  readonly answer: unknown;
  /** What its answer has to fit. */
  readonly contract?: Contract;
  /** The more of it is literal, the more it counts where two routes match. */
  readonly weight: number;
  /** The path parameters where the request matches, else undefined. */
  match(method: string, url: URL): Params | undefined;
}

/** The groups of a pattern that matched, by name. */
export type Params = Record<string, string>;

/** One key of a route's query, with what its value must be. */
export interface QueryPart {
  readonly key: string;
  readonly wanted: string;
  /** The groups where a value matches. */
  match(value: string): Params | undefined;
}

const special = /[:*{}()\\]/;

/** Reads one line of the `network` option. @throws SIM-ROUTE-SYNTAX, SIM-ROUTE-ANSWER */
export function readRoute(key: string, answer: unknown): Route {
  const [, method = '', target = ''] = /^(\S+)\s+(\S.*)$/.exec(key.trim()) ?? [];
  if (!target) refuse('SIM-ROUTE-SYNTAX', { route: key, why: whyNoRoute(key), nearest: meantRoute(key) });
  if (!methods.includes(method as Method)) {
    const why = `"${method}" is no method (they are ${methods.join(', ')})`;
    refuse('SIM-ROUTE-SYNTAX', { route: key, why, nearest: meantRoute(target, method) });
  }
  refuseUnsendable(key, answer);
  const cut = queryStart(target);
  const written = cut < 0 ? target : target.slice(0, cut);
  // A socket's address has a scheme of its own.
  const isNamed = isOperationKind(method) && !written.startsWith('/');
  const path = isNamed ? `/${written}` : method === 'WS' ? written.replace(/^ws/, 'http') : written;
  const query = readQuery(key, cut < 0 ? '' : target.slice(cut + 1));
  const pattern = readPattern(key, path);
  const literal = (part: string) => !special.test(part);
  const weighQuery = query.reduce((sum, { wanted }) => sum + (literal(wanted) ? 2 : 1), 0);
  const rank = method === 'ANY' ? -50 : 0;
  const weight = path.split('/').filter(literal).length * 100 + weighQuery + rank;
  const contract = isContract(answer) ? { contract: answer } : {};
  return {
    ...{ key, method, path, query, answer, weight },
    ...contract,
    match: matcher(method, pattern, query),
  };
}

/** The route that was probably meant, if there is one. */
function meantRoute(target: string, method = 'GET'): string | undefined {
  const known = methods.find((one) => one === method.toUpperCase()) ?? nearest(method, methods);
  const isPath = /^(\/|https?:\/\/)/.test(target);
  const path = isPath ? target : /^[\w.-]+\//.test(target) ? `/${target}` : undefined;
  return known && path && !/[()]/.test(path) ? `${known} ${path}` : undefined;
}

const whyNoRoute = (key: string) =>
  /^(\/|https?:)/.test(key) ? 'it has no method before the URL' : 'it has no URL after the method';

// In a URL pattern, a "?" after a group means "optional". A "?" before "name=" starts the query.
const queryStart = (target: string) => target.search(/\?(?=[^?/=&]+(=|&|$))/);

const readQuery = (route: string, text: string): QueryPart[] =>
  text
    .split('&')
    .filter(Boolean)
    .map((entry) => {
      const at = entry.indexOf('=');
      const key = at < 0 ? entry : entry.slice(0, at);
      const wanted = at < 0 ? '*' : decode(entry.slice(at + 1).replace(/\+/g, ' '));
      return { key, wanted, match: compileValue(route, wanted) };
    });

function compileValue(route: string, wanted: string): QueryPart['match'] {
  try {
    return matchValue(wanted);
  } catch (cause) {
    const why = `"${wanted}" in its query cannot be read (${(cause as Error).message})`;
    return refuse('SIM-ROUTE-SYNTAX', { route, why }, { cause });
  }
}

function readPattern(key: string, path: string): Pattern {
  try {
    return compile(path);
  } catch (cause) {
    const isAddress = /^(\/|[a-z]+:\/\/)/i.test(path);
    const why = isAddress
      ? `the pattern cannot be read (${(cause as Error).message})`
      : 'the URL begins with neither "/" nor "https://"';
    const nearest = isAddress ? undefined : meantRoute(path, key.split(' ')[0]);
    return refuse('SIM-ROUTE-SYNTAX', { route: key, why, nearest }, { cause });
  }
}

const matcher =
  (method: string, pattern: Pattern, query: readonly QueryPart[]): Route['match'] =>
  (asked, url) => {
    if (asked !== method && (method !== 'ANY' || asked === 'WS' || isOperationKind(asked))) return undefined;
    const params = pattern(url);
    return params && matchQuery(query, url, params) ? params : undefined;
  };

// A key may occur several times. Each of its values must match a different value of the request.
function matchQuery(query: readonly QueryPart[], url: URL, params: Params): boolean {
  const left = new Map<string, string[]>();
  for (const { key, match } of query) {
    const values = left.get(key) ?? url.searchParams.getAll(key);
    left.set(key, values);
    const at = values.findIndex((value) => match(value));
    if (at < 0) return false;
    Object.assign(params, match(values.splice(at, 1)[0]!));
  }
  return true;
}

function matchValue(wanted: string): QueryPart['match'] {
  if (!special.test(wanted)) return (value) => (wanted === value ? {} : undefined);
  const pattern = compile(wanted, 'hash');
  return (value) => pattern(value);
}

function refuseUnsendable(route: string, answer: unknown): void {
  const sendable = typeof answer === 'function' || isArranged(answer);
  const isSocket = route.startsWith('WS ');
  // An error stands for what GraphQL calls one.
  if (isOperationKind(route.split(' ')[0]!) && (isError(answer) || goesOn(answer))) return;
  const badStatus =
    isArranged(answer) &&
    answer.simulacra === 'fail' &&
    typeof answer.reason === 'number' &&
    !(Number.isInteger(answer.reason) && answer.reason >= 400 && answer.reason <= 599);
  if (badStatus)
    refuse('SIM-ROUTE-ANSWER', {
      route,
      why: `${print(answer.reason)} is no status of a failure (400 to 599)`,
    });
  const why = sendable ? undefined : isSocket ? whyNoSocket(answer) : whyUnsendable(answer);
  if (why) refuse('SIM-ROUTE-ANSWER', { route, why });
}
