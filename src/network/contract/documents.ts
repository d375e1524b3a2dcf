import { isExplained } from '../../core/errors/called-from';
import { once } from '../../core/shared';
import { explain } from '../errors';

type Json = Readonly<Record<string, unknown>>;

/** An operation of a document: what may be asked, and what is answered. */
export interface DocumentedOperation {
  /** Where it stands in the document: `/paths/~1hives/get`. */
  readonly pointer: string;
  readonly operation: Json;
  /** What all operations of its path share. */
  readonly item: Json;
  readonly params: Record<string, string>;
  /** As a route is written: `GET /api/hives/:hiveId`. */
  readonly route: string;
}

type Place = Omit<DocumentedOperation, 'operation' | 'route'>;

/** An OpenAPI document, read. */
export interface Documented {
  readonly document: Json;
  /** `3.0` or `3.1`. */
  readonly version: string;
  find(method: string, path: string): DocumentedOperation | undefined;
  /** Every operation, as a route is written. */
  readonly routes: readonly string[];
  /** What the addresses of its first server begin with: `/api`; empty where it has none. */
  readonly base: string;
}

const documents = once('documents', () => new Map<unknown, Promise<Documented>>());

/** Reads a document, once. @param given JSON or YAML as text, or what it holds @throws SIM-CONTRACT-DOCUMENT, SIM-PACKAGE */
export function loadDocument(given: string | object): Promise<Documented> {
  const known = documents.get(given);
  if (known) return known;
  const loading = load(given);
  documents.set(given, loading);
  return loading;
}

async function load(given: string | object): Promise<Documented> {
  const document = typeof given === 'string' ? await parse(given) : (given as Json);
  try {
    return index(document);
  } catch (cause) {
    if (isExplained(cause)) throw cause;
    // Documents come from elsewhere, and anything may be in them.
    throw explain('SIM-CONTRACT-DOCUMENT', { why: (cause as Error).message, at: '' }, { cause });
  }
}

function index(document: Json): Documented {
  const { openapi, paths } = (document ?? {}) as Json;
  const [, version] = /^(3\.[01])(?:\.|$)/.exec(typeof openapi === 'string' ? openapi : '') ?? [];
  if (!version || typeof paths !== 'object' || paths === null) {
    const why =
      typeof openapi === 'string'
        ? `its version is ${openapi}, and 3.0 and 3.1 are known`
        : 'it has no field "openapi" with a version';
    throw explain('SIM-CONTRACT-DOCUMENT', {
      why: version ? 'it has no paths' : why,
      at: version ? '/paths' : '/openapi',
    });
  }
  const find = indexOf(paths as Json);
  const bases = basesOf(document);
  const base = bases[0]!;
  const routeOf = (method: string, path: string) =>
    `${method.toUpperCase()} ${base}${path.replace(/\{([^}]+)\}/g, ':$1')}`;
  const routes = Object.entries(paths as Json).flatMap(([path, item]) =>
    Object.keys(item ?? {})
      .filter(isMethod)
      .map((method) => routeOf(method, path)),
  );
  return {
    ...{ document, version, routes, base },
    find(method, path) {
      for (const base of bases) {
        if (!path.startsWith(base)) continue;
        const found = find(path.slice(base.length) || '/');
        const operation = found?.item[method.toLowerCase()];
        if (found && typeof operation === 'object')
          return {
            ...found,
            pointer: `${found.pointer}/${method.toLowerCase()}`,
            operation: operation as Json,
            route: routeOf(method, unescaped(found.pointer.slice('/paths/'.length))),
          };
      }
      return undefined;
    },
  };
}

async function parse(text: string): Promise<Json> {
  try {
    if (/^\s*[{[]/.test(text)) return JSON.parse(text) as Json;
    const yaml = await import('yaml').catch(() => undefined);
    if (!yaml) throw explain('SIM-PACKAGE', { name: 'yaml', why: 'an OpenAPI document in YAML' });
    return yaml.parse(text) as Json;
  } catch (cause) {
    if ((cause as { code?: string }).code === 'SIM-PACKAGE') throw cause;
    const why = `it is neither JSON nor YAML (${(cause as Error).message.split('\n')[0]})`;
    throw explain('SIM-CONTRACT-DOCUMENT', { why, at: '' }, { cause });
  }
}

/** The beginnings of addresses that the document's servers have, the longest first. */
function basesOf({ servers }: Json): string[] {
  const urls = (Array.isArray(servers) ? servers : []).map(({ url }: Json) => String(url));
  const paths = urls.map((url) => {
    const { pathname } = new URL(url.replace(/\{[^}]*\}/g, 'x'), 'http://localhost');
    return pathname.replace(/\/$/, '');
  });
  return [...new Set([...paths, ''])].sort((a, b) => b.length - a.length);
}

interface Node {
  readonly literal: Map<string, Node>;
  template: { readonly name: string; readonly node: Node } | undefined;
  leaf: { readonly item: Json; readonly pointer: string } | undefined;
}
const makeNode = (): Node => ({ literal: new Map(), template: undefined, leaf: undefined });
const isMethod = (key: string) => /^(get|put|post|delete|options|head|patch|trace)$/.test(key);
const unescaped = (part: string) => part.replace(/~1/g, '/').replace(/~0/g, '~');
const escaped = (path: string) => path.replace(/~/g, '~0').replace(/\//g, '~1');

/** A tree of segments, so that finding one of very many paths takes no longer. */
function indexOf(paths: Json): (path: string) => Place | undefined {
  const root = makeNode();
  for (const [path, item] of Object.entries(paths)) {
    let node = root;
    for (const segment of path.split('/').slice(1)) {
      const [, name] = /^\{(.+)\}$/.exec(segment) ?? [];
      if (name === undefined) {
        const next = node.literal.get(segment) ?? makeNode();
        node.literal.set(segment, next);
        node = next;
      } else node = (node.template ??= { name, node: makeNode() }).node;
    }
    node.leaf = { item: item as Json, pointer: `/paths/${escaped(path)}` };
  }
  const find = (
    node: Node,
    segments: readonly string[],
    params: Record<string, string>,
  ): ReturnType<typeof search> => {
    const [segment, ...rest] = segments;
    if (segment === undefined) return node.leaf && { ...node.leaf, params };
    const literal = node.literal.get(segment);
    const found = literal && find(literal, rest, params);
    if (found || !node.template || segment === '') return found;
    return find(node.template.node, rest, { ...params, [node.template.name]: decodeURIComponent(segment) });
  };
  const search = (path: string): Place | undefined => find(root, path.split('/').slice(1), {});
  return search;
}

/** What a reference within the document stands for. @throws SIM-CONTRACT-DOCUMENT for one that leads nowhere, or in a circle */
export function resolve(document: Json, value: unknown): Json {
  let at = value;
  for (let hops = 0; typeof at === 'object' && at !== null && '$ref' in at; hops++) {
    const { $ref } = at as { $ref: string };
    const target = $ref.startsWith('#/') ? walk(document, $ref) : undefined;
    if (target === undefined || hops > 50) {
      const why =
        hops > 50
          ? 'this reference leads in a circle'
          : /^#|^$/.test(String($ref))
            ? 'this reference leads nowhere'
            : 'this reference leads to another file, which is not read: bundle the document first';
      throw explain('SIM-CONTRACT-DOCUMENT', { why, at: $ref });
    }
    at = target;
  }
  return (at ?? {}) as Json;
}

const walk = (document: Json, pointer: string): unknown =>
  pointer
    .slice(2)
    .split('/')
    .map((part) => decodeURIComponent(part).replace(/~1/g, '/').replace(/~0/g, '~'))
    .reduce<unknown>(
      (at, part) =>
        typeof at === 'object' && at !== null && Object.hasOwn(at, part) ? (at as Json)[part] : undefined,
      document,
    );

/** True where a document's content type allows another one. What fail() sends are problem details, which a document may call plain JSON. */
export const fitsType = (promised: string, type: string): boolean =>
  promised === type ||
  promised === '*/*' ||
  (promised.endsWith('/*') && type.startsWith(promised.slice(0, -1))) ||
  (promised === 'application/json' && type === 'application/problem+json');
