import type { Given } from '../model';
import { type Known, answerTo, channelValue } from '../plan';
import type { PlaceSeen } from '../run/observed';
import { leafOf } from '../types/use';
import { type Value } from '../value';
import type { Mended } from './mended';

interface Unmatched {
  readonly method: string;
  readonly url: string;
  readonly carrier: string;
  readonly asked: string;
  readonly at?: PlaceSeen;
}

export function addRoutes(known: Known, given: Given, requests: unknown): Mended | undefined {
  const network = new Map(given.network);
  for (const request of (requests as readonly Unmatched[] | undefined) ?? []) {
    const { route, name = route } = routeFor(known, request);
    if (network.has(route)) continue;
    const isLive = /^(WebSocket|EventSource)$/.test(request.carrier);
    network.set(route, isLive ? channelValue : answerTo(known, name, request.at));
  }
  return {
    given: { ...given, network },
    done: `answered ${[...network.keys()].slice(given.network.size).join(', ')}`,
  };
}

/** Adds fields to an answer that an operation selects. */
export function fillAnswer(
  given: Given,
  route: string | undefined,
  lacking: readonly string[],
): Mended | undefined {
  const known = route === undefined ? undefined : given.network.get(route);
  if (!known || route === undefined) return undefined;
  const filled = lacking.reduce<Value>(
    (value, path) => withField(value, path.split(/[.[\]]+/).filter(Boolean)),
    known,
  );
  return {
    given: { ...given, network: new Map([...given.network, [route, filled]]) },
    done: `answered ${lacking.join(', ')}`,
  };
}

function withField(value: Value, [step, ...rest]: readonly string[]): Value {
  if (step === undefined) return value;
  if (value.kind === 'list')
    return {
      ...value,
      items: value.items.map((item, index) => (String(index) === step ? withField(item, rest) : item)),
    };
  if (value.kind !== 'object') return value;
  const own = value.fields.find(([key]) => key === step)?.[1];
  const made = own ?? leafOf({ owner: step, field: step, path: [step] });
  const others = value.fields.filter(([key]) => key !== step);
  return {
    ...value,
    fields: [
      ...others,
      [step, rest.length > 0 ? withField(own ?? { kind: 'object', fields: [] }, rest) : made],
    ],
  };
}

/** A request as a route: as the source has it, where it is there; with the name that the survey gives it. */
function routeFor(
  { survey }: Known,
  { method, url, asked, carrier }: Unmatched,
): { readonly route: string; readonly name?: string } {
  if (/^(QUERY|MUTATION|SUBSCRIPTION) /.test(asked)) return { route: asked.replace(/\?.*$/, '') };
  const verb = carrier === 'WebSocket' ? 'WS' : carrier === 'EventSource' ? 'GET' : method;
  const { origin, pathname } = new URL(url, 'http://localhost');
  const path =
    origin === 'http://localhost' || /^wss?:\/\/localhost/.test(url) ? pathname : `${origin}${pathname}`;
  const known = survey.graph.nodes.find(
    ({ kind, name }) =>
      kind === 'request' && name.startsWith(`${verb} `) && fits(name.slice(verb.length + 1), pathname),
  );
  if (known) return { route: known.name };
  // Where the service is may be known only when it runs: `${this.url}/hives`.
  const open = survey.graph.nodes.find(
    ({ kind, name, leaf }) =>
      kind === 'request' &&
      name.startsWith(`${verb} /`) &&
      typeof leaf?.address?.[0] === 'object' &&
      endsAs(path, name.slice(verb.length + 1)),
  );
  if (!open) return { route: `${verb} ${path}` };
  const end = open.name.slice(verb.length + 1);
  const start = path.split('/').slice(0, -(end.split('/').length - 1));
  return { route: `${verb} ${start.join('/')}${end}`, name: open.name };
}

/** True for a path that ends as a pattern does, which begins with a slash. */
function endsAs(path: string, pattern: string): boolean {
  const parts = path.split('/').slice(-(pattern.split('/').length - 1));
  return fits(`/x${pattern}`, `/x/${parts.join('/')}`);
}

export function fits(pattern: string, path: string): boolean {
  const [wanted, given] = [pattern.split('/'), path.split('/')];
  return (
    wanted.length === given.length &&
    wanted.length > 2 &&
    !wanted.every((part) => part === '' || part.startsWith(':')) &&
    wanted.every((part, index) => part === given[index] || (part.startsWith(':') && given[index] !== ''))
  );
}
