import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { readFile, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, extname, join, relative, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { nearest } from '../core/near';
import type { DraftSettings } from '../draft/settings';
import { readHar, type HarEntry } from '../har/format';
import { fromHar } from '../har/play';
import { loadDocument } from '../network/contract/documents';
import { loadSchema } from '../network/contract/schema';
import { explain as explainNetwork } from '../network/errors';
import { fromOpenApi } from '../network/from-open-api';
import { fromSchema } from '../network/from-schema';
import type { SheetSettings } from '../sheet/settings';
import type { Routes } from '../stage/options';
import { explain, refuse } from './errors';
import { makerOf, type Answers } from './answers';
import type { ServeOptions } from './server';

/** What a file `simulacra.config.ts` says, as its default export. */
export interface Configuration {
  /** What `simulacra serve` answers where its call names no file, and how. */
  readonly serve?: Partial<Omit<ServeOptions, 'network' | 'onRequest'>> & {
    /** Files (modules with routes, OpenAPI documents, schemas of GraphQL), or routes. */
    readonly from: From;
  };
  /** How `simulacra sheet` draws declared states. */
  readonly sheet?: SheetSettings;
  /** How `simulacra draft` writes tests. */
  readonly draft?: DraftSettings;
}

/** Answers that were read from files. */
export interface Loaded {
  readonly routes: Routes;
  /** Every file they are made of, so that they can be read again when one changes. */
  readonly files: readonly string[];
}

/** Loads a module, and lists the files that it is made of. */
export type LoadModule = (file: string) => Promise<{ module: object; files: readonly string[] }>;

/**
 * Reads the answers that files hold; of two that answer the same, the later one does.
 *
 * @throws SIM-SERVE-FILE, SIM-PACKAGE, and what is wrong with what they hold
 */
export async function loadAnswers(
  files: readonly string[],
  root: string,
  loadModule: LoadModule = bundleModule,
): Promise<Loaded> {
  const loaded: Loaded[] = [];
  for (const file of files) loaded.push(await loadFile(resolve(root, file), root, loadModule));
  return {
    routes: Object.assign({}, ...loaded.map(({ routes }) => routes)) as Routes,
    files: loaded.flatMap((one) => one.files),
  };
}

/** What is served: files, or routes. */
export type From = string | readonly string[] | Answers;

/** Where routes come from. */
export interface Source {
  /** As they were named; undefined for routes that come from no file. */
  readonly named: readonly string[] | undefined;
  /** Every file that was read so far. */
  readonly read: ReadonlySet<string>;
  make(): Routes | Promise<Routes>;
}

/** Makes routes of what is served, anew each time. */
export function makeSource(from: From, root: string, loadModule?: LoadModule): Source {
  const named = typeof from === 'string' ? [from] : Array.isArray(from) ? (from as string[]) : undefined;
  const read = new Set<string>();
  if (!named) return { named, read, make: makerOf(from as Answers) };
  const make = async () => {
    const { routes, files } = await loadAnswers(named, root, loadModule);
    for (const file of files) read.add(file);
    return routes;
  };
  return { named, read, make };
}

const mostBytes = 64_000_000;

/** @throws SIM-SERVE-FILE for what is no file, with the nearest name */
async function checkFile(file: string, name: string): Promise<void> {
  const found = await stat(file).catch(() => undefined);
  if (!found?.isFile()) {
    const folder = dirname(file);
    const near = !found && existsSync(folder) ? nearest(basename(file), readdirSync(folder)) : undefined;
    refuse('SIM-SERVE-FILE', {
      file: name,
      why: found ? 'it is a folder' : 'there is no such file',
      nearest: near && join(dirname(name), near),
    });
  }
  if (found.size > mostBytes) refuse('SIM-SERVE-FILE', { file: name, why: 'it is larger than 64 MB' });
}

/** Reads a file. @throws SIM-SERVE-FILE */
async function readText(file: string, name: string): Promise<string> {
  await checkFile(file, name);
  return readFile(file, 'utf8');
}

/** Reads recorded sessions. @throws SIM-SERVE-FILE, which names the file */
export async function loadRecordings(files: readonly string[], root: string): Promise<readonly HarEntry[]> {
  const read = async (given: string) => {
    const file = resolve(root, given);
    const name = relative(root, file) || '.';
    const text = await readText(file, name);
    return naming(name, () => readHar(text));
  };
  return (await Promise.all(files.map(read))).flat();
}

async function loadFile(file: string, root: string, loadModule: LoadModule): Promise<Loaded> {
  const name = relative(root, file) || '.';
  const kind = extname(file).toLowerCase();
  if (/^\.[cm]?[jt]sx?$/.test(kind)) {
    await checkFile(file, name);
    return loadRoutes(file, name, loadModule);
  }
  const text = await readText(file, name);
  if (/^\.(graphql|graphqls|gql)$/.test(kind))
    return { routes: await schemaRoutes(text, name), files: [file] };
  if (kind === '.har') {
    const routes = await naming(name, () => fromHar(text, { paced: true }));
    return { routes, files: [file] };
  }
  if (/^\.(ya?ml|json)$/.test(kind)) return { routes: await routesOf(text, name, kind), files: [file] };
  return refuse('SIM-SERVE-FILE', {
    file: name,
    why: `what a ${kind || 'nameless'} file holds is not known`,
  });
}

async function routesOf(text: string, name: string, kind: string): Promise<Routes> {
  const document = kind === '.json' ? readJson(text, name) : text;
  if (typeof document === 'object') {
    const { __schema, data } = document as { __schema?: unknown; data?: { __schema?: unknown } };
    if (isFilled(__schema ?? data?.__schema)) return schemaRoutes(document, name);
  }
  const { base } = await naming(name, () => loadDocument(document));
  return { [`ANY ${base}/*`]: fromOpenApi(document) } as unknown as Routes;
}

async function schemaRoutes(schema: string | object, name: string): Promise<Routes> {
  const contract = fromSchema(schema);
  await naming(name, () => loadSchema(contract));
  return { 'ANY /graphql': contract };
}

/** Reads what a file holds. @throws SIM-SERVE-FILE, which names the file, and SIM-PACKAGE */
async function naming<T>(file: string, read: () => T | Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (cause) {
    const { code, fields } = cause as { code?: string; fields?: { why?: string; at?: string } };
    if (code === 'SIM-PACKAGE' || code === 'SIM-GRAPHQL-PACKAGE') throw cause;
    const why = (fields?.why ?? (cause as Error).message).replace(/\.$/, '');
    throw explain(
      'SIM-SERVE-FILE',
      { file, why: `${why}${fields?.at ? ` (at ${fields.at})` : ''}` },
      { cause },
    );
  }
}

const isFilled = (value: unknown): value is object => typeof value === 'object' && value !== null;

function readJson(text: string, file: string): object {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch (cause) {
    const why = `it is no JSON (${(cause as Error).message.split('\n')[0]})`;
    return refuse('SIM-SERVE-FILE', { file, why }, { cause });
  }
  return isFilled(read) ? read : refuse('SIM-SERVE-FILE', { file, why: 'it holds no object' });
}

async function loadRoutes(file: string, name: string, loadModule: LoadModule): Promise<Loaded> {
  const { module, files } = await importAs(file, name, loadModule);
  const { default: given } = module as { default?: unknown };
  const routes: unknown = typeof given === 'function' ? await (given as () => unknown)() : given;
  if (
    !isFilled(routes) ||
    !Object.keys(routes).every((key) => key.includes(' ')) ||
    Object.keys(routes).length === 0
  ) {
    const others = Object.keys(module).filter((key) => key !== 'default');
    const exported = others.length > 0 ? ` (it exports ${others.join(', ')})` : '';
    const why =
      given === undefined
        ? `it has no default export${exported}`
        : 'its default export is neither routes nor a function that makes them';
    refuse('SIM-SERVE-FILE', { file: name, why });
  }
  return { routes: routes as Routes, files };
}

async function importAs(file: string, name: string, loadModule: LoadModule): ReturnType<LoadModule> {
  try {
    return await loadModule(file);
  } catch (cause) {
    if ((cause as { code?: string }).code === 'SIM-PACKAGE') throw cause;
    const first = wordLoading(cause);
    throw explain(
      'SIM-SERVE-FILE',
      { file: name, why: `loading it failed: ${first.replace(/\.$/, '')}` },
      { cause },
    );
  }
}

/** What went wrong while a module was loaded, with its place where that is known. */
function wordLoading(cause: unknown): string {
  const { errors, message } = cause as Error & { errors?: { text: string; location?: Place | null }[] };
  const [first] = errors ?? [];
  if (!first) return message.split('\n')[0]!;
  const { location } = first;
  return location ? `${first.text} (${location.file}:${location.line}:${location.column + 1})` : first.text;
}
interface Place {
  readonly file: string;
  readonly line: number;
  readonly column: number;
}

/** Reads `simulacra.config.*` of a folder; undefined where it has none. @throws SIM-SERVE-FILE, SIM-PACKAGE */
export async function loadConfiguration(root: string): Promise<Configuration | undefined> {
  const endings = ['ts', 'mts', 'js', 'mjs'];
  const name = endings
    .map((ending) => `simulacra.config.${ending}`)
    .find((one) => existsSync(join(root, one)));
  if (!name) return undefined;
  const { module } = await importAs(join(root, name), name, bundleModule);
  const { default: given } = module as { default?: Configuration };
  return given ?? refuse('SIM-SERVE-FILE', { file: name, why: 'it has no default export' });
}

/** Loads a module in any language that esbuild reads, anew each time. */
const bundleModule: LoadModule = async (file) => {
  const { build } = await import('esbuild').catch(() => {
    throw explainNetwork('SIM-PACKAGE', { name: 'esbuild', why: `loading ${basename(file)}` });
  });
  const folder = dirname(file);
  const { outputFiles, metafile } = await build({
    ...{ entryPoints: [file], absWorkingDir: folder, bundle: true, packages: 'external', write: false },
    ...{ format: 'esm', platform: 'node', target: 'node20', metafile: true, logLevel: 'silent' },
    define: {
      'import.meta.url': JSON.stringify(pathToFileURL(file).href),
      'import.meta.dirname': JSON.stringify(folder),
    },
  });
  const code = outputFiles[0]!.contents;
  // What it imports is looked for from where it stands.
  const temporary = join(folder, `.${basename(file)}.${randomUUID()}.mjs`);
  await writeFile(temporary, code);
  try {
    const module = (await import(pathToFileURL(temporary).href)) as object;
    return { module, files: Object.keys(metafile.inputs).map((input) => resolve(folder, input)) };
  } finally {
    await rm(temporary, { force: true });
  }
};
