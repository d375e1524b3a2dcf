import { distance } from '../core/near';
import { isOperationKind } from './operations';
import type { Route } from './routes';

interface Near {
  readonly route: string;
  /** What differs between the request and the route, as half a sentence. */
  readonly differs: string;
}

/** The route that came nearest to answering a request, and what differs. */
export function nearestRoute(method: string, url: URL, routes: readonly Route[]): Near | undefined {
  let best: (Near & { score: number }) | undefined;
  for (const route of routes) {
    if (isOperationKind(route.method) !== isOperationKind(method)) continue;
    const path = comparePaths(url, route);
    const query = compareQueries(url, route);
    const methodDiffers = route.method !== method;
    const score = path.score + query.length * 2 + (methodDiffers ? 1 : 0);
    if (path.score > 4 || (best && best.score <= score)) continue;
    const differences = [
      ...(methodDiffers ? [`the method: the route has ${route.method}, the request ${method}`] : []),
      ...(path.differs ? [path.differs] : []),
      ...query,
    ];
    best = {
      route: route.key,
      score,
      differs: `The nearest route is "${route.key}". What differs is ${differences.join('; and ')}.`,
    };
  }
  return best;
}

function comparePaths(url: URL, route: Route): { score: number; differs: string } {
  const absolute = /^(https?:\/\/[^/]+)(.*)$/.exec(route.path);
  if (absolute && absolute[1] !== url.origin) {
    const differs = `the origin: the route has ${absolute[1]}, the request ${url.origin}`;
    return { score: absolute[2] === url.pathname ? 2 : 9, differs };
  }
  const wanted = (absolute?.[2] ?? route.path).split('/').filter(Boolean);
  const asked = url.pathname.split('/').filter(Boolean);
  if (wanted.length === asked.length) return compareSegments(route.method, wanted, asked);
  const [long, short] = wanted.length > asked.length ? [wanted, asked] : [asked, wanted];
  const missing = long.slice(0, long.length - short.length);
  if (compareSegments(route.method, long.slice(missing.length), short).score === 0) {
    const who = long === wanted ? ['the route', 'the request'] : ['the request', 'the route'];
    return {
      score: 1,
      differs: `the beginning of the path: ${who[0]} has /${missing.join('/')} in front, ${who[1]} has not`,
    };
  }
  const extra = long.slice(short.length).join('/');
  const same = compareSegments(route.method, long.slice(0, short.length), short).score;
  const who = long === wanted ? 'route' : 'request';
  return { score: 2 + same, differs: `the length of the path: the ${who} goes on with /${extra}` };
}

function compareSegments(
  method: string,
  wanted: string[],
  asked: string[],
): { score: number; differs: string } {
  let score = 0;
  const differing: string[] = [];
  wanted.forEach((segment, at) => {
    const other = asked[at]!;
    if (segment === other || /[:*{(]/.test(segment)) return;
    score += distance(segment, other) <= 2 ? 1 : 3;
    const what = isOperationKind(method) ? 'name' : 'path segment';
    differing.push(`the ${what}: the route has "${segment}", the request "${other}"`);
  });
  return { score, differs: differing.join('; and ') };
}

function compareQueries(url: URL, route: Route): string[] {
  return route.query.flatMap(({ key, wanted, match }) => {
    const values = url.searchParams.getAll(key);
    if (values.length === 0) {
      const near = [...url.searchParams.keys()].find((other) => distance(key, other) <= 2);
      const has = near ? `; the request has "${near}"` : '; the request has none';
      return [`the query key "${key}"${has}`];
    }
    if (values.some((value) => match(value))) return [];
    return [`the query value of "${key}": the route has "${wanted}", the request "${values.join('", "')}"`];
  });
}
