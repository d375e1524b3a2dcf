import { Environment } from '../core/environment';
import { startTimer } from '../core/host';
import { nearest } from '../core/near';
import { parsed } from '../core/parsed';
import { print } from '../core/print';
import { Network } from '../network/network';
import { addressOfOperation } from '../network/operations';
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
    const recorded = entries.filter(isData).map(readEntry);
    const byShape = new Map<string, Recorded[]>();
    for (const one of recorded) {
      const alike = byShape.get(one.shape);
      if (alike) alike.push(one);
      else byShape.set(one.shape, [one]);
    }
    const groups = new Map<
      string,
      { route: string | undefined; asked: Set<string>; drifts: Map<string, DriftFromRecording> }
    >();
    const known = new Map<string, readonly DriftFromRecording[]>();
    for (const one of recorded) {
      const answer = await answerTo(network, one);
      const words = `${one.entry.request.method} ${one.url.pathname}${one.url.search}`;
      const key = answer.route ?? words;
      const group = groups.get(key) ?? { route: answer.route, asked: new Set(), drifts: new Map() };
      groups.set(key, group);
      group.asked.add(words);
      if (answer.route === undefined) continue;
      const answered = answer.response && (await readAnswer(answer.response));
      // The same answer to requests of one shape is compared once.
      const mark = JSON.stringify([key, one.shape, one.type, one.hasContent, answered]);
      const drifts = known.get(mark) ?? driftsOf(answered, one, byShape.get(one.shape)!);
      known.set(mark, drifts);
      for (const drift of drifts) group.drifts.set(`${drift.path} ${drift.why}`, drift);
    }
    const compared = [...groups.values()].map(({ route, asked, drifts }) => ({
      ...{ route, asked: [...asked], drifts: [...drifts.values()] },
    }));
    const asked = new Set(compared.map(({ route }) => route));
    return { compared, unasked: network.keys.filter((key) => !asked.has(key)) };
  } finally {
    await environment.takeDown().catch(() => undefined);
  }
}

const mostPatient = 5000;

/** A recorded exchange, read once. */
interface Recorded {
  readonly entry: HarEntry;
  readonly url: URL;
  /** The same for entries that ask for the same, but for values of the query and the parts of a path that look like ids. */
  readonly shape: string;
  /** The type of what was recorded, without parameters. */
  readonly type: string;
  readonly hasContent: boolean;
  /** What it holds, where that is JSON. */
  readonly values: readonly unknown[];
}

function readEntry(entry: HarEntry): Recorded {
  const { request, response } = entry;
  const url = new URL(request.url);
  const content = contentOf(response);
  const type = essence(response.content?.mimeType ?? '');
  return {
    ...{ entry, url, type, hasContent: content !== undefined && content !== '' },
    shape: `${request.method} ${url.pathname.replace(/\/[^/]*\d[^/]*/g, '/*')} ${response.status}`,
    values: isJson(type) && typeof content === 'string' && content !== '' ? [parsed(content)] : [],
  };
}

async function answerTo(
  network: Network,
  { entry: { request }, url: recorded }: Recorded,
): Promise<{ route: string | undefined; response?: Response | undefined }> {
  const { origin, pathname, search } = recorded;
  // A route without an origin is one of the page's own.
  const isOwn = network.find(request.method, recorded) === undefined;
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
  const byOperation = operation && network.find(operation.kind, addressOfOperation(operation));
  const route = (found ?? byOperation)?.route.key;
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

interface Answered {
  readonly status: number;
  readonly type: string;
  readonly body: string;
}

const readAnswer = async (response: Response): Promise<Answered> => ({
  status: response.status,
  type: essence(response.headers.get('content-type') ?? ''),
  body: await response.text(),
});

function driftsOf(
  answered: Answered | undefined,
  { entry: { response: recorded }, type: wanted, hasContent }: Recorded,
  alike: readonly Recorded[],
): DriftFromRecording[] {
  if (!answered)
    return recorded.status === 0
      ? []
      : [{ path: 'the answer', why: 'it never came, or the connection broke' }];
  const { status, type, body } = answered;
  if (status !== recorded.status)
    return [{ path: 'the status', why: `it is ${status}, and ${recorded.status} was recorded` }];
  if (body === '' && !hasContent) return [];
  if (wanted !== '' && type !== wanted)
    return [{ path: 'the content type', why: `it is ${type || 'none'}, and ${wanted} was recorded` }];
  return isJson(wanted)
    ? compareValues(
        parsed(body),
        alike.flatMap(({ values }) => values),
        '',
      )
    : [];
}

const isJson = (type: string) => /\bjson\b/.test(type);
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
        why: `${kind === 'null' ? 'it' : print(value, 40)} is ${named(kind)}, and ${[...kinds].map(named).join(' or ')} was recorded`,
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
