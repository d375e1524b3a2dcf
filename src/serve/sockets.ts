import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type RawData, type WebSocket } from 'ws';
import type { Line, Linked } from '../core/channel';
import type { Network } from '../network/network';
import { link } from '../network/wire/connect';
import { addressOf, refuseWith } from './messages';

/** The most that one message may hold, in bytes. */
const most = 16_000_000;

/** Answers the WebSockets of a server by the routes of a network. @returns how to end all of them */
export function acceptSockets(server: Server, network: Network): { close(): void } {
  const sockets = new WebSocketServer({
    noServer: true,
    maxPayload: most,
    handleProtocols: (offered) => [...offered][0] ?? false,
  });
  const accept = async (request: IncomingMessage, stream: Duplex, head: Buffer) => {
    stream.on('error', () => stream.destroy());
    const ends: (() => void)[] = [];
    let open: WebSocket | undefined;
    const line: Line = {
      deliver: (message) => open?.send(encode(message)),
      close: (code, reason) => open?.close(code, reason),
      fail: () => open?.terminate(),
    };
    const protocols = (request.headers['sec-websocket-protocol'] ?? '').split(/\s*,\s*/).filter(Boolean);
    const url = addressOf(request.url ?? '/', request.headers.host);
    let linked: Linked;
    try {
      linked = await link(network, { url, protocols, line, below: acceptSockets }, ends);
    } catch {
      return refuseWith(stream, '404 Not Found');
    }
    sockets.handleUpgrade(request, stream, head, (socket) => {
      open = socket;
      socket.on('message', (data, isBinary) =>
        linked.take(isBinary ? bytesIn(data) : String(data as Buffer)),
      );
      socket.on('error', () => socket.terminate());
      socket.on('close', () => {
        linked.end();
        for (const end of ends) end();
      });
      linked.open();
    });
  };
  server.on('upgrade', (request: IncomingMessage, stream: Duplex, head: Buffer) => {
    void accept(request, stream, head).catch(() => stream.destroy());
  });
  return {
    close: () => {
      for (const socket of sockets.clients) socket.terminate();
    },
  };
}

const encode = (message: unknown): string | Uint8Array | ArrayBuffer =>
  typeof message === 'string' || ArrayBuffer.isView(message) || message instanceof ArrayBuffer
    ? (message as string)
    : JSON.stringify(message);

function bytesIn(data: RawData): ArrayBuffer {
  const bytes = Buffer.isBuffer(data) ? data : Array.isArray(data) ? Buffer.concat(data) : Buffer.from(data);
  return new Uint8Array(bytes).buffer;
}
