import { URLPattern } from 'urlpattern-polyfill/urlpattern';
import { refuse } from './errors';
import { isArranged } from '../core/answers';
import { print } from '../core/print';

/** The methods a route can have. */
export const methods = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'] as const;
export type Method = (typeof methods)[number];

/** One line of the `network` option, read. */
export interface Route {
  /** As the user wrote it. */
  readonly key: string;
  readonly method: string;
  /** The path (or whole URL) as written, without the query. */
  readonly path: string;
  readonly query: ReadonlyMap<string, string>;
  readonly answer: unknown;
  /** The more of it is literal, the more it counts where two routes match. */
  readonly weight: number;
  /** The path parameters where the request matches, else undefined. */
  match(method: string, url: URL): Record<string, string> | undefined;
}

const special = /[:*{}()\\]/;

/** Reads one line of the `network` option. @throws SIM-ROUTE-SYNTAX, SIM-ROUTE-ANSWER */
export function readRoute(key: string, answer: unknown): Route {
  const [, method = '', target = ''] = /^(\S+)\s+(\S.*)$/.exec(key.trim()) ?? [];
  if (!target) refuse('SIM-ROUTE-SYNTAX', { route: key, why: whyNoRoute(key) });
  if (!methods.includes(method as Method)) {
    const why = `"${method}" is no method (they are ${methods.join(', ')})`;
    refuse('SIM-ROUTE-SYNTAX', { route: key, why });
  }
  refuseUnsendable(key, answer);
  const cut = queryStart(target);
  const path = cut < 0 ? target : target.slice(0, cut);
  const query = readQuery(cut < 0 ? '' : target.slice(cut + 1));
  const pattern = readPattern(key, path);
  const literal = (part: string) => !special.test(part);
  const weighQuery = [...query.values()].reduce((sum, value) => sum + (literal(value) ? 2 : 1), 0);
  const weight = path.split('/').filter(literal).length * 100 + weighQuery;
  return { key, method, path, query, answer, weight, match: matcher(method, pattern, query) };
}

const whyNoRoute = (key: string) =>
  /^(\/|https?:)/.test(key) ? 'it has no method before the URL' : 'it has no URL after the method';

// A "?" after a group means "optional" in a URL pattern; one before "name=" begins the query.
const queryStart = (target: string) => target.search(/\?(?=[^?/=&]+(=|&|$))/);

function readQuery(text: string): Map<string, string> {
  const entries = text.split('&').filter(Boolean);
  return new Map(
    entries.map((entry) => {
      const at = entry.indexOf('=');
      return at < 0 ? [entry, '*'] : [entry.slice(0, at), decode(entry.slice(at + 1))];
    }),
  );
}

function decode(text: string): string {
  try {
    return decodeURIComponent(text.replace(/\+/g, ' '));
  } catch {
    return text;
  }
}

function readPattern(key: string, path: string): URLPattern {
  try {
    return path.startsWith('/') ? new URLPattern({ pathname: path }) : new URLPattern(path);
  } catch (cause) {
    const why = /^[a-z]+:\/\//i.test(path)
      ? `the pattern cannot be read (${(cause as Error).message})`
      : 'the URL begins with neither "/" nor "https://"';
    return refuse('SIM-ROUTE-SYNTAX', { route: key, why }, { cause });
  }
}

type Groups = Record<string, string | undefined>;

const matcher =
  (method: string, pattern: URLPattern, query: ReadonlyMap<string, string>): Route['match'] =>
  (asked, url) => {
    if (asked !== method) return undefined;
    const found = pattern.exec(pageless(url));
    if (!found) return undefined;
    const params = named(found.pathname.groups as Groups);
    for (const [key, wanted] of query) {
      const value = url.searchParams.get(key);
      const groups = value === null ? undefined : matchValue(wanted, value);
      if (!groups) return undefined;
      Object.assign(params, groups);
    }
    return params;
  };

// The query is matched key by key, in any order, so the pattern sees the URL without it.
const pageless = (url: URL) => `${url.origin}${url.pathname}`;

/** The groups of one query value, or undefined where it does not match. */
export function matchValue(wanted: string, value: string): Record<string, string> | undefined {
  if (!special.test(wanted)) return wanted === value ? {} : undefined;
  const found = new URLPattern({ hash: wanted }).exec({ hash: encodeURIComponent(value) });
  return found ? named(found.hash.groups as Groups) : undefined;
}

const named = (groups: Groups): Record<string, string> =>
  Object.fromEntries(
    Object.entries(groups).flatMap(([name, value]) =>
      value === undefined || /^\d+$/.test(name) ? [] : [[name, decode(value)]],
    ),
  );

function refuseUnsendable(route: string, answer: unknown): void {
  const sendable = typeof answer === 'function' || isArranged(answer);
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
  if (sendable) return;
  const why =
    typeof answer === 'bigint' || typeof answer === 'symbol' ? `JSON cannot hold ${print(answer)}` : '';
  if (why) refuse('SIM-ROUTE-ANSWER', { route, why });
}
