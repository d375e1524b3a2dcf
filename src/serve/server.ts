import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Environment } from '../core/environment';
import { Network } from '../network/network';
import { prepareRoutes } from '../network/prepare';
import type { Routes } from '../stage/options';
import { makeRequest, refuseWith, sendResponse } from './messages';
import { acceptSockets } from './sockets';

/** Routes that are served over HTTP. */
export interface Served {
  /** Where: `http://127.0.0.1:4100`. */
  readonly url: string;
  /** What was asked so far. */
  readonly network: Network;
  /** Ends every connection, and gives the port back. */
  close(): Promise<void>;
}

/** How to serve. */
export interface ServeOptions {
  /** The port; one that is free, unless said otherwise. */
  readonly port?: number;
  /** The address to listen on; this machine alone, unless said otherwise. */
  readonly host?: string;
}

/** Serves routes over HTTP and WebSocket, as a subject's network answers them. */
export async function serveRoutes(routes: Routes, options: ServeOptions = {}): Promise<Served> {
  const { port = 0, host = '127.0.0.1' } = options;
  await prepareRoutes(routes);
  const environment = new Environment('the server');
  const network = new Network(routes, environment);
  const server = createServer((request, response) => void answer(network, request, response));
  server.on('clientError', (_, socket) => refuseWith(socket, '400 Bad Request'));
  const sockets = acceptSockets(server, network);
  await listen(server, port, host);
  const { address, port: taken } = server.address() as AddressInfo;
  return {
    url: `http://${address.includes(':') ? `[${address}]` : address}:${taken}`,
    network,
    async close() {
      sockets.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await environment.takeDown().catch(() => undefined);
    },
  };
}

const listen = (server: Server, port: number, host: string): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => {
      server.off('error', reject);
      resolve();
    });
  });

async function answer(network: Network, asked: IncomingMessage, sending: ServerResponse): Promise<void> {
  const leaving = new AbortController();
  sending.on('close', () => leaving.abort());
  let response: Response | undefined;
  try {
    const request = makeRequest(asked, leaving.signal);
    const sent = { body: undefined, carrier: 'fetch', below: answer } as const;
    response = (await network.serve(request, sent)) ?? noRoute(request);
  } catch {
    // A broken connection, or a client that has gone.
    return void asked.socket.destroy();
  }
  await sendResponse(response, sending).catch(() => asked.socket.destroy());
}

function noRoute({ method, url }: Request): Response {
  const { pathname, search } = new URL(url);
  const detail = `No route answers ${method} ${pathname}${search}`;
  const body = JSON.stringify({ type: 'about:blank', title: 'Not Found', status: 404, detail });
  return new Response(body, {
    status: 404,
    statusText: 'Not Found',
    headers: { 'content-type': 'application/problem+json' },
  });
}
