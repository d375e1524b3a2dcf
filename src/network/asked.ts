import { calledFrom } from '../core/errors/called-from';
import { nearest } from '../core/near';
import { refuse, type Carrier } from './errors';
import type { Contract } from './from-schema';
import type { Params, Route } from './routes';

/** A request the subject made. */
export interface AskedRequest {
  readonly method: string;
  readonly url: string;
  /** The address as routes are written: without the origin, where that is the page's own. */
  readonly path: string;
  /** The route that answered, as the user wrote it; undefined where none did. */
  readonly route: string | undefined;
  readonly params: Record<string, string>;
  /** By name, in lower case. */
  readonly headers: Record<string, string>;
  /** What was sent: parsed where it is JSON, else as it was given; undefined for none. */
  readonly body: unknown;
  readonly carrier: Carrier;
  /** The component that asked, where that is known. */
  readonly from: string | undefined;
  /** Milliseconds since the subject was asked for, on its clock. */
  readonly at: number;
  /** The status of the answer, once there is one; 0 for a broken connection. */
  status: number | undefined;
}

/** How a request is sent. */
export interface Sent {
  /** What it was given as its body, parsed where it is JSON. */
  readonly body: unknown;
  readonly carrier: Carrier;
  /** The function that was called to send it. */
  readonly below: (...args: never[]) => unknown;
  /** Told how much of the body was sent, as a part of 1. */
  readonly onUpload?: (part: number) => void;
  /** The name of an operation. */
  readonly name?: string;
  /** The route whose schema answers an operation that has no route of its own. */
  readonly contract?: Route | undefined;
  /** How many redirects it has followed. */
  readonly hops?: number;
}

/** A request that is written down. */
export interface Begun {
  readonly asked: AskedRequest;
  /** As it is printed. */
  readonly what: string;
  readonly url: URL;
  /** Where it was sent, of one that no route answers. */
  readonly sentFrom?: Error | undefined;
  readonly found: { readonly route: Route; readonly params: Params } | undefined;
  /** What the answer of an operation has to fit. */
  readonly contract?: Contract | undefined;
}

/** The requests of a subject, oldest first. */
export interface AskedRequests extends ReadonlyArray<AskedRequest> {
  /**
   * The requests that one route answered.
   *
   * @param route as it is written under `network`
   * @throws SIM-ROUTE-UNKNOWN
   */
  of(route: string): AskedRequest[];
}

/** A list of requests that can be asked for those of a route. @param routes the routes there are, as they are written */
export function makeRequests(
  subject: () => string,
  routes: () => readonly string[],
): AskedRequest[] & AskedRequests {
  const requests: AskedRequest[] = [];
  const of = (route: string): AskedRequest[] => {
    if (!routes().includes(route)) refuseUnknown(subject(), route, routes(), calledFrom('of', of));
    return requests.filter((one) => one.route === route);
  };
  return Object.defineProperty(requests, 'of', { value: of }) as AskedRequest[] & AskedRequests;
}

/** @throws SIM-ROUTE-UNKNOWN */
function refuseUnknown(subject: string, route: string, routes: readonly string[], calledAt: Error): never {
  return refuse(
    'SIM-ROUTE-UNKNOWN',
    { subject, route, routes, nearest: nearest(route, routes) },
    { calledAt },
  );
}

/** Whose requests are counted. */
interface Counting {
  readonly environment: { readonly name: string };
  readonly requests: AskedRequests;
  readonly keys: readonly string[];
}

/**
 * @param counts how often routes have to be asked for; those not named here, at least once
 * @throws SIM-ROUTE-UNUSED where a route was never asked for, SIM-ROUTE-TIMES where one was not asked for as often,
 * SIM-ROUTE-UNKNOWN
 */
export function refuseUnused(
  { environment, requests, keys: routes }: Counting,
  calledAt: Error,
  counts: Readonly<Record<string, number>> = {},
): void {
  const { name: subject } = environment;
  const words = ({ method, path }: AskedRequest) => `${method} ${path}`;
  for (const [route, times] of Object.entries(counts)) {
    if (!routes.includes(route)) refuseUnknown(subject, route, routes, calledAt);
    const asked = requests.of(route).map(words);
    if (asked.length !== times) refuse('SIM-ROUTE-TIMES', { subject, route, times, asked }, { calledAt });
  }
  const asked = requests.map(words);
  const unused = routes.filter((key) => counts[key] === undefined && requests.of(key).length === 0);
  if (unused.length === 0) return;
  refuse('SIM-ROUTE-UNUSED', { subject, unused, asked, nearest: nearest(unused[0]!, asked) }, { calledAt });
}
