import { siteIn } from '../core/origin';
import type { Begun } from './asked';
import type { UnmatchedRequest } from './errors';
import { nearestRoute } from './near-route';
import { isOperationKind } from './operations';
import { printPath } from './print-address';
import type { Route } from './routes';

/** What a message says about a request that no route answers. */
export function makeUnmatched(
  { asked, what, url, sentFrom }: Begun,
  routes: readonly Route[],
): UnmatchedRequest {
  const { method, body, carrier, from } = asked;
  let found: { near: ReturnType<typeof nearestRoute> } | undefined;
  const near = () => (found ??= { near: nearestRoute(method, url, routes) }).near;
  return {
    asked: what,
    ...{ method, url: asked.url, carrier, body, from },
    // Reading a stack and comparing routes is slow, so it happens only on demand.
    get at() {
      return sentFrom && siteIn(sentFrom);
    },
    get nearest() {
      return near() && (isOperationKind(method) ? what : `${method} ${printPath(url)}`);
    },
    get differs() {
      return near()?.differs;
    },
  };
}
