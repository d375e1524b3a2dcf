import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { makerOf, type Answers } from './answers';
import { Backend, type Told } from './backend';
import { handle } from './control';
import { refuse } from './errors';
import { refuseWith } from './messages';
import { acceptSockets } from './sockets';
import { readState } from './states';

/** A backend that runs. */
export interface Served {
  /** Where: `http://127.0.0.1:4100`. */
  readonly url: string;
  /** Its routes as they are listed, each with the state it is in. */
  readonly routes: Backend['routes'];
  /**
   * Switches a route to a state; all of them where none is named.
   *
   * @param state `data`, `held`, `slow`, `slow 5s`, `empty`, `failing`, `failing 404`
   * @throws SIM-SERVE-STATE, SIM-ROUTE-UNKNOWN
   */
  switch(state: string, route?: string): void;
  /** Forgets what was posted, and makes the routes anew. @param answers other routes from now on */
  reset(answers?: Answers): Promise<void>;
  /** Ends every connection, and gives the port back. */
  close(): Promise<void>;
}

/** How to serve. */
export interface ServeOptions {
  /** Routes, as `isolate` takes them, or a function that makes them. */
  readonly network: Answers;
  /** The port; one that is free, unless said otherwise. */
  readonly port?: number;
  /** The address to listen on; this machine alone, unless said otherwise. */
  readonly host?: string;
  /** The states to begin with, by route: `{ 'GET /api/hives': 'slow 5s' }`. */
  readonly states?: Readonly<Record<string, string>>;
  /** Called after each request. */
  readonly onRequest?: (told: Told) => void;
}

/**
 * Serves routes over HTTP and WebSocket on this machine, as `isolate` answers them. What is posted is kept until
 * a reset, and each route can be switched to another state while it runs, also by people, at `/__simulacra/`.
 *
 * @throws SIM-SERVE-PORT, SIM-SERVE-STATE, SIM-ROUTE-UNKNOWN, and what is wrong with the routes
 * @example
 * const backend = await serve({ network: { 'GET /api/hives': hives } });
 * backend.switch('failing', 'GET /api/hives');
 * const response = await fetch(`${backend.url}/api/hives`);
 * expect(response.status).toBe(503);
 * await backend.close();
 */
export async function serve(options: ServeOptions): Promise<Served> {
  const { port = 0, host = '127.0.0.1', states = {}, network, onRequest } = options;
  const backend = await Backend.open(makerOf(network));
  try {
    backend.begin(states);
    if (onRequest) backend.watchers.add((told) => told && onRequest(told));
    const server = createServer((request, response) => void handle(backend, request, response));
    server.on('clientError', ({ code }: NodeJS.ErrnoException, socket) =>
      refuseWith(
        socket,
        code === 'HPE_HEADER_OVERFLOW' ? '431 Request Header Fields Too Large' : '400 Bad Request',
      ),
    );
    const sockets = acceptSockets(server, backend);
    await listen(server, port, host);
    const { address, port: taken } = server.address() as AddressInfo;
    return {
      url: `http://${address.includes(':') ? `[${address}]` : address}:${taken}`,
      get routes() {
        return backend.routes;
      },
      switch: (state, route) => backend.switch(readState(state), route),
      reset: (answers) => backend.reset(answers && makerOf(answers)),
      async close() {
        sockets.close();
        server.closeAllConnections();
        await new Promise((resolve) => server.close(resolve));
        await backend.close();
      },
    };
  } catch (error) {
    await backend.close();
    throw error;
  }
}

const reasons: Readonly<Record<string, string>> = {
  EADDRINUSE: 'something else listens there',
  EACCES: 'this user may not',
  EADDRNOTAVAIL: 'this machine has no such address',
  ENOTFOUND: 'there is no such host',
  ERR_SOCKET_BAD_PORT: 'ports go from 0 to 65535',
};

function listen(server: Server, port: number, host: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const failed = (cause: NodeJS.ErrnoException) => {
      const why = reasons[cause.code ?? ''] ?? cause.message;
      try {
        refuse('SIM-SERVE-PORT', { host, port, why }, { cause });
      } catch (error) {
        reject(error as Error);
      }
    };
    server.once('error', failed);
    try {
      server.listen(port, host, () => {
        server.off('error', failed);
        resolve();
      });
    } catch (error) {
      failed(error as NodeJS.ErrnoException);
    }
  });
}
