import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { InlineConfig, Plugin, ViteDevServer } from 'vite';
import { packageOf } from '../core/origin';
import { explain as explainNetwork } from '../network/errors';
import { explain } from './errors';

/* The files of one project, as its own Vite serves them to a page. */

const ours = dirname(fileURLToPath(import.meta.url));
const endings = ['ts', 'mts', 'js', 'mjs', 'cts', 'cjs'];

/** The configuration of Vite in a folder; undefined where it has none. */
export const viteConfigIn = (folder: string): string | undefined =>
  endings.map((ending) => join(folder, `vite.config.${ending}`)).find((file) => existsSync(file));

/** The nearest folder around a file that has a configuration of Vite, up to a given one. */
export function projectOf(file: string, top: string): string {
  for (let folder = dirname(file); ; folder = dirname(folder)) {
    if (viteConfigIn(folder)) return folder;
    if (folder === top || folder === dirname(folder)) return top;
  }
}

/** What a project is served for. */
export interface ServeProject {
  /** The folder of the project. */
  readonly root: string;
  /** Modules that pages will load, so that what they need is prepared at once. */
  readonly files: readonly string[];
  /** The page that everything happens on, given under which address it loads a file. */
  readonly html: (urlOf: (file: string) => string) => string;
  readonly isWatching?: boolean;
  /** For this kind of use; what was prepared for one kind serves no other one. */
  readonly purpose: string;
  readonly plugins?: readonly Plugin[];
}

/** A file as a page has loaded it. */
export interface Loaded {
  readonly file: string;
  /** As it was served, and the way back to the file; undefined for what Vite has not transformed. */
  readonly code: string | undefined;
  readonly map: { readonly mappings: string } | undefined;
}

/** A project that is being served. */
export interface ServedProject {
  readonly root: string;
  /** Where its page is. */
  readonly url: string;
  readonly server: ViteDevServer;
  /** Under which address the page loads a file. */
  urlOf(file: string): string;
  /** What stands behind an address that a page has loaded, also where the server has forgotten it since. */
  loaded(path: string): Promise<Loaded>;
  /** Changes when a package was prepared that nobody had foreseen: pages that are open have to be loaded again. */
  readonly prepared: () => string | undefined;
  close(): Promise<void>;
}

/**
 * Serves a project on this machine alone, by its own configuration of Vite, with modules rewritten so that they can
 * be swapped.
 *
 * @throws SIM-PACKAGE without Vite, SIM-VITE-CONFIG
 */
export async function serveProject(given: ServeProject): Promise<ServedProject> {
  const { root } = given;
  const vite = await import('vite').catch(() => {
    throw explainNetwork('SIM-PACKAGE', { name: 'vite', why: 'serving components to a browser' });
  });
  const configFile = viteConfigIn(root);
  let server: ViteDevServer | undefined;
  const keepSignals = watchSignals();
  try {
    const { seams } = (await import(new URL('./seam-vite.js', import.meta.url).href)) as { seams(): Plugin };
    server = await vite.createServer({
      ...settingsFor(given, vite.searchForWorkspaceRoot(root)),
      configFile: configFile ?? false,
      plugins: [seams(), makePage(given.html), ...(given.plugins ?? [])],
    });
    await server.listen();
    keepSignals();
    await prepareAll(server, given.files);
  } catch (cause) {
    await server?.close();
    const why = (cause as Error).message.split('\n').slice(0, 6).join('\n');
    throw explain(
      'SIM-VITE-CONFIG',
      { file: configFile ? relative(process.cwd(), configFile) : root, why },
      { cause },
    );
  }
  const { port } = server.httpServer!.address() as { port: number };
  return {
    root,
    server,
    url: `http://localhost:${port}/`,
    urlOf: (file) => addressOf(file, server.config.root),
    loaded: (path) => findLoaded(path, server),
    prepared: () => server.environments.client.depsOptimizer?.metadata.browserHash,
    close: () => server.close(),
  };
}

/**
 * Transforms some files and all they import, and waits for the packages they need. A package that is found late
 * would make pages load anew in the middle of a test.
 */
async function prepareAll(server: ViteDevServer, files: readonly string[]): Promise<void> {
  const { moduleGraph, depsOptimizer } = server.environments.client;
  const seen = new Set<string>();
  const visit = async (url: string): Promise<void> => {
    if (seen.has(url) || /[\\/]node_modules[\\/]/.test(url)) return;
    seen.add(url);
    // An error in a file is reported when it is loaded.
    const isWell = await server.transformRequest(url).then(Boolean, () => false);
    if (!isWell) return;
    const module = await moduleGraph.getModuleByUrl(url);
    await Promise.all([...(module?.importedModules ?? [])].map((one) => visit(one.url)));
  };
  await Promise.all(files.map((file) => visit(addressOf(file, server.config.root))));
  await depsOptimizer?.scanProcessing;
  const { discovered = {} } = depsOptimizer?.metadata ?? {};
  await Promise.all(Object.values(discovered).map(({ processing }) => processing));
}

async function findLoaded(path: string, server: ViteDevServer): Promise<Loaded> {
  const plain = path.replace(/([?&])t=\d+(&|$)/, '$1').replace(/[?&]$/, '');
  const module = await server.environments.client.moduleGraph.getModuleByUrl(decodeURI(plain));
  const known =
    module?.transformResult ?? (module && (await server.transformRequest(plain).catch(() => null)));
  const map = known?.map;
  return {
    file: module?.file ?? fileOf(plain, server.config.root),
    code: known?.code,
    map: map && 'mappings' in map && map.mappings ? (map as { mappings: string }) : undefined,
  };
}

const fileOf = (path: string, root: string): string => {
  const plain = decodeURI(path.replace(/\?.*/, ''));
  return plain.startsWith('/@fs/') ? plain.slice(4) : `${root}${plain}`;
};

function addressOf(file: string, root: string): string {
  const slashed = (path: string) => path.replaceAll('\\', '/').replace(/^\//, '');
  const own = relative(root, file);
  return own.startsWith('..') ? `/@fs/${slashed(file)}` : `/${slashed(own)}`;
}

/**
 * A server of Vite ends the whole process when it is stopped, before anything else could be cleaned up.
 *
 * @returns how to take away what listens since
 */
function watchSignals(): () => void {
  const places: readonly { readonly target: NodeJS.EventEmitter; readonly event: string }[] = [
    { target: process, event: 'SIGTERM' },
    { target: process.stdin, event: 'end' },
  ];
  const before = places.map(({ target, event }) => new Set(target.listeners(event)));
  return () => {
    for (const [at, { target, event }] of places.entries())
      for (const listener of target.listeners(event))
        if (!before[at]!.has(listener)) target.removeListener(event, listener as () => void);
  };
}

// What a part of the library asks for only when it is needed: found late, it would make the page load anew.
const late = ['graphql', 'ajv', 'ajv/dist/2020.js', 'ajv-formats', 'yaml'];

function settingsFor(
  { root, files, purpose, isWatching = false }: ServeProject,
  workspace: string,
): InlineConfig {
  const require = createRequire(join(root, 'package.json'));
  const isThere = (name: string) => {
    try {
      return Boolean(require.resolve(name));
    } catch {
      return false;
    }
  };
  return {
    root,
    base: '/',
    mode: 'development',
    appType: 'custom',
    logLevel: 'silent',
    clearScreen: false,
    cacheDir: join(
      nearestModules(root),
      `.simulacra/${purpose}-${relative(workspace, root).replace(/[^\w]+/g, '-') || 'root'}`,
    ),
    optimizeDeps: {
      entries: files.map((file) => relative(root, file).replaceAll('\\', '/')),
      exclude: ['simulacra'],
      include: late.filter(isThere),
      rolldownOptions: { output: { chunkFileNames: nameChunk } },
    },
    server: {
      ...{ host: '127.0.0.1', port: 0, strictPort: false, open: false, hmr: false, cors: false },
      fs: { allow: [workspace, ours] },
      ...(!isWatching && { watch: null }),
    },
  };
}

/** What compilers put into packages. */
const helpers = /^(tslib|@babel\/runtime|@swc\/helpers)$/;

/** Names a file that Vite makes of a package after the package: a stack then says whose code it is. */
function nameChunk({
  moduleIds,
  name,
}: {
  readonly moduleIds: readonly string[];
  readonly name: string;
}): string {
  const packages = new Set(moduleIds.map(packageOf).filter((one) => !one || !helpers.test(one)));
  const [only] = packages.size === 1 ? packages : [];
  return `${only?.replace('/', '_') ?? name}-[hash].js`;
}

function nearestModules(root: string): string {
  for (let folder = root; folder !== dirname(folder); folder = dirname(folder)) {
    const modules = resolve(folder, 'node_modules');
    if (existsSync(modules)) return modules;
  }
  return resolve(root, 'node_modules');
}

// Styles are put on the page by Vite's own client, which would also connect to the server: code of the project's
// would seem to open that socket.
const client = /[\\/]vite[\\/]dist[\\/]client[\\/]client\.mjs/;
const quietClient = `
import '/@vite/env';
const sheets = new Map();
export function updateStyle(id, text) {
  let sheet = sheets.get(id);
  if (!sheet) {
    sheets.set(id, (sheet = document.createElement('style')));
    sheet.setAttribute('data-vite-dev-id', id);
    document.head.append(sheet);
  }
  sheet.textContent = text;
}
export function removeStyle(id) {
  sheets.get(id)?.remove();
  sheets.delete(id);
}
const nothing = () => {};
export const createHotContext = () => new Proxy({ data: {} }, { get: (own, name) => own[name] ?? nothing });
export const injectQuery = (url, query) => url + (url.includes('?') ? '&' : '?') + query;
export class ErrorOverlay {}
`;

/** The globals that a configuration defines, before all else. */
const withDefines = (html: string): string =>
  html.replace('</head>', '<script type="module" src="/@vite/env"></script>\n</head>');

/** Serves the page itself, in the place of the project's own. */
function makePage(html: ServeProject['html']): Plugin {
  return {
    name: 'simulacra-page',
    enforce: 'pre',
    load: (id) => (client.test(id) ? quietClient : undefined),
    // A page on this machine needs no certificate.
    config: (config) => void delete config.server?.https,
    configureServer({ middlewares, config: { root } }) {
      middlewares.use((request, response, next) => {
        if (request.url !== '/' && !request.url?.startsWith('/?')) return next();
        response.setHeader('content-type', 'text/html; charset=utf-8');
        response.setHeader('cache-control', 'no-store');
        response.end(withDefines(html((file) => addressOf(file, root))));
      });
    },
  };
}
