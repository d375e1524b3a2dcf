import { realm } from '../core/host';

/** What a pattern makes of an address, or of one value: its named groups; undefined where it does not match. */
export type Pattern = (value: URL | string) => Record<string, string> | undefined;

type Groups = Record<string, string | undefined>;
interface Found {
  readonly pathname: { readonly groups: Groups };
  readonly hash: { readonly groups: Groups };
}
interface Compiled {
  exec(input: string | { hash: string }): Found | null;
}
type PatternClass = new (input: string | { pathname: string } | { hash: string }) => Compiled;

// The platform's own class if there is one; Node has it since version 23.
let Standard = (realm as { URLPattern?: PatternClass }).URLPattern;

/** True where the patterns of some routes cannot be read before {@link loadPatterns}. */
export const needsPatterns = (routes: readonly string[]): boolean =>
  Standard === undefined && routes.some((route) => !isPlain(route.slice(route.indexOf(' ') + 1).trim()));

/** Loads the URL Pattern standard where the platform does not have it. @see https://urlpattern.spec.whatwg.org */
export async function loadPatterns(): Promise<void> {
  const loaded = (await import('urlpattern-polyfill/urlpattern')) as unknown as { URLPattern: PatternClass };
  Standard ??= loaded.URLPattern;
}

// A path of literal segments and `:name` segments, as in nearly every route. A test compares the result with
// that of the standard's class.
const plainPath = /^(?:\/(?:[\w.~-]*|:[A-Za-z_]\w*))+$/;
const plainQuery = /^(?:[^&=?#\s:*{}()\\]+=(?:[^&#\s:*{}()\\?]*|:[A-Za-z_]\w*)|[^&=?#\s:*{}()\\]+)$/;

/** True for a path of literal segments and `:name` segments. */
export const isPlainPath = (path: string): boolean => plainPath.test(path);

function isPlain(target: string): boolean {
  const at = target.indexOf('?');
  const path = at < 0 ? target : target.slice(0, at);
  const query = at < 0 ? [] : target.slice(at + 1).split('&');
  return plainPath.test(path) && query.every((part) => plainQuery.test(part));
}

/** Reads a pattern of the URL Pattern standard. @throws TypeError for what is none */
export function compile(pattern: string, part: 'path' | 'hash' = 'path'): Pattern {
  if (part === 'path' && plainPath.test(pattern)) return compilePlain(pattern);
  const name = part === 'hash' && /^:([A-Za-z_]\w*)$/.exec(pattern)?.[1];
  if (name) return (value) => (value === '' ? undefined : { [name]: String(value) });
  if (pattern === '*') return () => ({});
  if (part === 'hash') {
    const compiled = new Standard!({ hash: pattern });
    return (value) => named(compiled.exec({ hash: encodeURIComponent(String(value)) })?.hash.groups);
  }
  const compiled = pattern.startsWith('/') ? new Standard!({ pathname: pattern }) : new Standard!(pattern);
  return (url) => {
    // The query is matched key by key in any order, so the pattern gets the URL without it.
    const { origin, pathname } = url as URL;
    return named(compiled.exec(`${origin}${pathname}`)?.pathname.groups);
  };
}

// Of many routes few are ever tried, so each is read when it first is.
function compilePlain(pattern: string): Pattern {
  let read: { readonly names: readonly string[]; readonly whole: RegExp } | undefined;
  return (url) => {
    const { names, whole } = (read ??= readPlain(pattern));
    const found = whole.exec((url as URL).pathname);
    return found ? Object.fromEntries(names.map((name, at) => [name, decode(found[at + 1]!)])) : undefined;
  };
}

function readPlain(pattern: string): { names: string[]; whole: RegExp } {
  const names: string[] = [];
  const source = pattern
    .split('/')
    .map((segment) => {
      if (!segment.startsWith(':')) return segment.replace(/\./g, '\\.');
      names.push(segment.slice(1));
      return '([^/]+)';
    })
    .join('/');
  return { names, whole: new RegExp(`^${source}$`) };
}

function named(groups: Groups | undefined): Record<string, string> | undefined {
  if (!groups) return undefined;
  const entries = Object.entries(groups).flatMap(([name, value]) =>
    value === undefined || /^\d+$/.test(name) ? [] : [[name, decode(value)] as const],
  );
  return Object.fromEntries(entries);
}

/** A part of an address as a person reads it. */
export function decode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
