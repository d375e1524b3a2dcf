import type { IncomingMessage, ServerResponse } from 'node:http';
import { resolve } from 'node:path';
import type { Plugin, PreviewServer, ViteDevServer } from 'vite';
import { Backend } from './backend';
import { handle } from './control';
import { makeSource, type From, type LoadModule } from './load';
import { acceptSockets } from './sockets';
import { controlPath } from './switchboard/path';

/** How to answer within a dev server. */
export interface BackendOptions {
  /** The states to begin with, by route: `{ 'GET /api/hives': 'slow 5s' }`. */
  readonly states?: Readonly<Record<string, string>>;
  /** False for pages without the button that opens the switchboard. */
  readonly switchboard?: boolean;
}

/**
 * Answers requests and sockets within Vite's dev server and preview, as `simulacra serve` does; what no route
 * answers goes on to Vite. Each page gets a button that opens the switchboard.
 *
 * @param from routes, a function that makes them, or files: modules with routes, OpenAPI documents, schemas of
 * GraphQL, which are read again when they change
 * @throws SIM-SERVE-FILE, SIM-SERVE-STATE, SIM-ROUTE-UNKNOWN, and what is wrong with the routes
 * @example
 * const plugins = [simulatedBackend(['openapi.yaml', 'routes.ts'], { states: { 'GET /api/hives': 'slow' } })];
 * expect(plugins[0]?.name).toBe('simulacra:backend');
 */
export function simulatedBackend(
  from: From,
  { states = {}, switchboard = true }: BackendOptions = {},
): Plugin {
  const serve = async (server: ViteDevServer | PreviewServer) => {
    const { root, logger } = server.config;
    const source = makeSource(from, root, moduleLoader(server));
    const backend = await Backend.open(source.make);
    backend.begin(states);
    backend.watchers.add((told) => {
      if (told?.problem) logger.warn(`${told.asked}  ${told.problem}`, { timestamp: true });
    });
    if ('watcher' in server) {
      const { watcher } = server;
      watcher.add([...source.read]);
      const readAgain = (file: string) => {
        if (!source.read.has(resolve(file))) return;
        backend.reset().then(
          () => {
            watcher.add([...source.read]);
            logger.info(`the answers were read again`, { timestamp: true });
          },
          (error: Error) => logger.error(error.message, { timestamp: true }),
        );
      };
      watcher.on('change', readAgain).on('add', readAgain);
    }
    server.middlewares.use(
      (request: IncomingMessage, response: ServerResponse, next: () => void) =>
        void handle(backend, request, response, next),
    );
    if (!server.httpServer) return;
    const sockets = acceptSockets(server.httpServer, backend, false);
    server.httpServer.on('close', () => {
      sockets.close();
      void backend.close();
    });
  };
  return {
    name: 'simulacra:backend',
    configureServer: serve,
    configurePreviewServer: serve,
    transformIndexHtml: {
      order: 'post',
      handler: (_, { server }) =>
        server && switchboard
          ? [
              {
                tag: 'script',
                attrs: { type: 'module', src: `${controlPath}switchboard.js` },
                injectTo: 'body',
              },
              { tag: 'simulacra-switchboard', attrs: { folded: '' }, injectTo: 'body' },
            ]
          : [],
    },
  };
}

/** Loads modules as Vite does, with its aliases. */
function moduleLoader({ config }: ViteDevServer | PreviewServer): LoadModule {
  return async (file) => {
    const { runnerImport } = await import('vite');
    const { module, dependencies } = await runnerImport<object>(file, {
      ...{ configFile: false, root: config.root, logLevel: 'silent' },
      resolve: { alias: config.resolve.alias },
    });
    return { module, files: [file, ...dependencies.map((one) => resolve(config.root, one))] };
  };
}
