import { Environment } from '../core/environment';
import { startTimer } from '../core/host';
import { nearest } from '../core/near';
import { parsed } from '../core/parsed';
import { print } from '../core/print';
import { Network } from '../network/network';
import { prepareRoutes } from '../network/prepare';
import type { Routes } from '../stage/options';
import type { HarEntry } from './format';
import { contentOf, isData } from './play';

/** Where an answer is other than what was recorded. */
export interface DriftFromRecording {
  /** `[0].name`, `the status` */
  readonly path: string;
  readonly why: string;
  readonly nearest?: string | undefined;
}

/** What was found of one route. */
export interface Compared {
  /** As the user wrote it; undefined for what no route answers. */
  readonly route: string | undefined;
  /** What was recorded of it: `GET /api/hives?yard=north`. */
  readonly asked: readonly string[];
  readonly drifts: readonly DriftFromRecording[];
}

/**
 * Compares the answers of routes with a recorded session: each recorded request is asked of the routes.
 *
 * @throws what is wrong with the routes
 */
export async function compareWith(
  routes: Routes,
  entries: readonly HarEntry[],
): Promise<{ readonly compared: readonly Compared[]; readonly unasked: readonly string[] }> {
  await prepareRoutes(routes);
  const environment = new Environment('the recording');
  try {
    const network = new Network(routes, environment);
    const data = entries.filter(isData);
    const groups = new Map<
      string,
      { route: string | undefined; asked: Set<string>; drifts: DriftFromRecording[] }
    >();
    for (const entry of data) {
      const answer = await answerTo(network, entry);
      const { search, pathname } = new URL(entry.request.url);
      const words = `${entry.request.method} ${pathname}${search}`;
      const group = groups.get(answer.route ?? words) ?? {
        route: answer.route,
        asked: new Set(),
        drifts: [],
      };
      groups.set(answer.route ?? words, group);
      group.asked.add(words);
      if (answer.route === undefined) continue;
      const alike = data.filter((one) => isAlike(one, entry));
      for (const drift of await driftsOf(answer.response, entry, alike))
        if (!group.drifts.some(({ path, why }) => path === drift.path && why === drift.why))
          group.drifts.push(drift);
    }
    const compared = [...groups.values()].map(({ asked, ...rest }) => ({ ...rest, asked: [...asked] }));
    const asked = new Set(compared.map(({ route }) => route));
    return { compared, unasked: network.keys.filter((key) => !asked.has(key)) };
  } finally {
    await environment.takeDown().catch(() => undefined);
  }
}

const mostPatient = 5000;

async function answerTo(
  network: Network,
  { request }: HarEntry,
): Promise<{ route: string | undefined; response?: Response | undefined }> {
  const { origin, pathname, search } = new URL(request.url);
  // A route without an origin is one of the page's own.
  const isOwn = network.find(request.method, new URL(request.url)) === undefined;
  const url = isOwn ? `http://localhost${pathname}${search}` : `${origin}${pathname}${search}`;
  const text = request.postData?.text;
  const headers = (request.headers ?? []).filter(
    ({ name }) => !name.startsWith(':') && !/^(host|content-length|connection)$/i.test(name),
  );
  const asking = new Request(url, {
    method: request.method,
    headers: headers.map(({ name, value }): [string, string] => [name, value]),
    ...(text !== undefined && !/^(GET|HEAD)$/.test(request.method) && { body: text }),
  });
  const sent = { body: parsed(text), carrier: 'fetch', below: answerTo } as const;
  const { found, operations } = network.reach(asking.method, new URL(url), sent.body);
  const [operation] = operations?.operations ?? [];
  const route =
    found?.route.key ?? (operation && network.keys.find((key) => key.split(/[ ?]/)[1] === operation.name));
  if (route === undefined) return { route };
  let callOff: (() => void) | undefined;
  const late = new Promise<undefined>(
    (resolve) => (callOff = startTimer(mostPatient, () => resolve(undefined))),
  );
  const response = await Promise.race([network.serve(asking, sent).catch(() => undefined), late]);
  callOff?.();
  network.environment.takeFailures();
  return { route, response: response instanceof Response ? response : undefined };
}

/** True for two entries that ask for the same, but for values of the query and the parts of a path that look like ids. */
function isAlike(one: HarEntry, other: HarEntry): boolean {
  const shape = ({ request, response }: HarEntry) => {
    const path = new URL(request.url).pathname.replace(/\/[^/]*\d[^/]*/g, '/*');
    return `${request.method} ${path} ${response.status}`;
  };
  return shape(one) === shape(other);
}

async function driftsOf(
  response: Response | undefined,
  entry: HarEntry,
  alike: readonly HarEntry[],
): Promise<DriftFromRecording[]> {
  const recorded = entry.response;
  if (!response)
    return recorded.status === 0
      ? []
      : [{ path: 'the answer', why: 'it never came, or the connection broke' }];
  if (response.status !== recorded.status)
    return [{ path: 'the status', why: `it is ${response.status}, and ${recorded.status} was recorded` }];
  const type = essence(response.headers.get('content-type') ?? '');
  const wanted = essence(recorded.content?.mimeType ?? '');
  const body = await response.text();
  const original = contentOf(recorded);
  if (body === '' && (original === '' || original === undefined)) return [];
  if (wanted !== '' && type !== wanted)
    return [{ path: 'the content type', why: `it is ${type || 'none'}, and ${wanted} was recorded` }];
  if (!/\bjson\b/.test(wanted)) return [];
  const values = alike.flatMap(({ response: one }) => {
    const text = contentOf(one);
    return typeof text === 'string' && text !== '' ? [parsed(text)] : [];
  });
  return compareValues(parsed(body), values, '');
}

const essence = (type: string): string => type.split(';')[0]!.trim().toLowerCase();
const kindOf = (value: unknown): string =>
  value === null ? 'null' : Array.isArray(value) ? 'list' : typeof value === 'string' ? 'text' : typeof value;

type Json = Readonly<Record<string, unknown>>;

/** Where a value is of another shape than all that were recorded. */
function compareValues(value: unknown, recorded: readonly unknown[], path: string): DriftFromRecording[] {
  if (recorded.length === 0) return [];
  const kinds = new Set(recorded.map(kindOf));
  const kind = kindOf(value);
  const at = path || 'the whole';
  if (!kinds.has(kind)) {
    // Nothing but null was recorded, so nobody knows what it is otherwise.
    if (kinds.size === 1 && kinds.has('null')) return [];
    return [
      {
        path: at,
        why: `${print(value, 40)} is ${named(kind)}, and ${[...kinds].map(named).join(' or ')} was recorded`,
      },
    ];
  }
  if (kind === 'list') {
    const items = recorded.filter(Array.isArray).flat() as unknown[];
    return (value as unknown[]).flatMap((item, index) => compareValues(item, items, `${path}[${index}]`));
  }
  if (kind === 'object')
    return compareObjects(value as Json, recorded.filter((one) => kindOf(one) === 'object') as Json[], path);
  if (kind === 'text')
    return compareTexts(
      value as string,
      recorded.filter((one) => typeof one === 'string'),
      at,
    );
  return [];
}

const named = (kind: string) => (kind === 'null' ? 'null' : `${kind === 'object' ? 'an' : 'a'} ${kind}`);

function compareObjects(value: Json, recorded: readonly Json[], path: string): DriftFromRecording[] {
  const inside = (key: string) => (path === '' ? key : `${path}.${key}`);
  const known = new Set(recorded.flatMap((one) => Object.keys(one)));
  const own = Object.keys(value);
  const always = [...known].filter((key) => recorded.every((one) => Object.hasOwn(one, key)));
  const missing = always
    .filter((key) => !Object.hasOwn(value, key))
    .map((key) => ({
      path: inside(key),
      why: 'it is missing',
      nearest: nearest(
        key,
        own.filter((one) => !known.has(one)),
      ),
    }));
  const others = own.flatMap((key) =>
    known.has(key)
      ? compareValues(
          value[key],
          recorded.filter((one) => Object.hasOwn(one, key)).map((one) => one[key]),
          inside(key),
        )
      : [
          {
            path: inside(key),
            why: 'nothing of that name was recorded',
            nearest: nearest(
              key,
              [...known].filter((one) => !own.includes(one)),
            ),
          },
        ],
  );
  return [...missing, ...others];
}

const forms: readonly [name: string, form: RegExp][] = [
  ['a date', /^\d{4}-\d\d-\d\d$/],
  ['a date and time', /^\d{4}-\d\d-\d\dT\d\d:\d\d.*$/],
  ['a UUID', /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i],
  ['an address', /^https?:\/\/\S+$/],
  ['an e-mail address', /^\S+@\S+\.\S+$/],
];

/** A text that is not of the form that each recorded one has. */
function compareTexts(value: string, recorded: readonly string[], path: string): DriftFromRecording[] {
  const [name, form] = forms.find(([, one]) => recorded.every((text) => one.test(text))) ?? [];
  if (!form || form.test(value)) return [];
  return [
    { path, why: `${print(value, 40)} is not ${name}, as what was recorded (${print(recorded[0], 40)})` },
  ];
}
