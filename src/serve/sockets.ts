import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type RawData, type WebSocket } from 'ws';
import type { Line, Linked } from '../core/channel';
import { link } from '../network/wire/connect';
import type { Backend } from './backend';
import { addressOf, refuseWith, whyRefused } from './messages';

/** The most that one message may hold, in bytes. */
const most = 16_000_000;

/** The event of a client that asks to upgrade to a socket. */
interface Upgrading {
  on(event: 'upgrade', listener: (request: IncomingMessage, stream: Duplex, head: Buffer) => void): unknown;
}

/**
 * Answers the WebSockets of a server by the routes of a backend.
 *
 * @param isAlone false where others answer sockets too, which are left to them
 * @returns how to end all of them
 */
export function acceptSockets(server: Upgrading, backend: Backend, isAlone = true): { close(): void } {
  const sockets = new WebSocketServer({
    noServer: true,
    maxPayload: most,
    handleProtocols: (offered) => [...offered][0] ?? false,
  });
  server.on('upgrade', (request, stream, head) => {
    if (whyRefused(request.url ?? '/')) return isAlone ? refuseWith(stream, '400 Bad Request') : undefined;
    const url = addressOf(request.url ?? '/', request.headers.host);
    if (!isAlone && !backend.network.find('WS', url)) return;
    void accept(sockets, backend, url, { request, stream, head }).catch(() => stream.destroy());
  });
  return {
    close: () => {
      for (const socket of sockets.clients) socket.terminate();
    },
  };
}

interface Upgrade {
  readonly request: IncomingMessage;
  readonly stream: Duplex;
  readonly head: Buffer;
}

async function accept(
  sockets: WebSocketServer,
  backend: Backend,
  url: URL,
  { request, stream, head }: Upgrade,
): Promise<void> {
  const leaving = new AbortController();
  stream.on('error', () => stream.destroy());
  stream.on('close', () => leaving.abort());
  const state = await backend.passSocket(url, leaving.signal);
  if (leaving.signal.aborted) return;
  if (state.name === 'failing') return refuseWith(stream, `${state.status} Switched to failing`);
  const ends: (() => void)[] = [];
  let open: WebSocket | undefined;
  const line: Line = {
    deliver: (message) => (state.name === 'empty' ? undefined : open?.send(encode(message))),
    close: (code, reason) => open?.close(code, reason),
    fail: () => open?.terminate(),
  };
  const protocols = (request.headers['sec-websocket-protocol'] ?? '').split(/\s*,\s*/).filter(Boolean);
  let linked: Linked;
  try {
    linked = await link(backend.network, { url, protocols, line, below: acceptSockets }, ends);
  } catch {
    return refuseWith(stream, '404 Not Found');
  }
  sockets.handleUpgrade(request, stream, head, (socket) => {
    open = socket;
    socket.on('message', (data, isBinary) => linked.take(isBinary ? bytesIn(data) : String(data as Buffer)));
    socket.on('error', () => socket.terminate());
    socket.on('close', () => {
      linked.end();
      for (const end of ends) end();
    });
    linked.open();
  });
}

const encode = (message: unknown): string | Uint8Array | ArrayBuffer =>
  typeof message === 'string' || ArrayBuffer.isView(message) || message instanceof ArrayBuffer
    ? (message as string)
    : JSON.stringify(message);

function bytesIn(data: RawData): ArrayBuffer {
  const bytes = Buffer.isBuffer(data) ? data : Array.isArray(data) ? Buffer.concat(data) : Buffer.from(data);
  return new Uint8Array(bytes).buffer;
}
