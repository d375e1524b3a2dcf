import { createHash } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import type { Plugin, ViteDevServer } from 'vite';
import { readings, reply } from './backend';

/** Answers /api and /live from the simulated backend, in the development server and in the preview. */
export function simulatedBackend(): Plugin {
  const answer = async (request: IncomingMessage, response: ServerResponse, next: () => void) => {
    const url = new URL(request.url ?? '/', 'http://localhost');
    if (!url.pathname.startsWith('/api/')) return next();
    const sent = (await readBody(request)) as { varroa?: number } | undefined;
    const { status, after, body } = reply(request.method ?? 'GET', url, sent);
    setTimeout(() => {
      response.writeHead(status, {
        'content-type': status < 400 ? 'application/json' : 'application/problem+json',
      });
      response.end(body === null ? undefined : JSON.stringify(body));
    }, after);
  };
  const serve = (server: Pick<ViteDevServer, 'middlewares' | 'httpServer'>) => {
    server.middlewares.use((request, response, next) => void answer(request, response, next));
    server.httpServer?.on('upgrade', (request: IncomingMessage, socket: Duplex) => {
      if (request.url === '/live/scales') weigh(request, socket);
    });
  };
  return {
    name: 'simulated-backend',
    configureServer: serve,
    configurePreviewServer: (server) => serve(server as never),
  };
}

async function readBody(request: IncomingMessage): Promise<unknown> {
  let text = '';
  for await (const chunk of request) text += String(chunk);
  const isJson = request.headers['content-type']?.includes('json');
  return text && isJson ? JSON.parse(text) : undefined;
}

/** Opens a WebSocket and tells the readings of the scales, every second. @see https://www.rfc-editor.org/rfc/rfc6455 */
function weigh(request: IncomingMessage, socket: Duplex): void {
  const key = `${request.headers['sec-websocket-key']}258EAFA5-E914-47DA-95CA-C5AB0DC85B11`;
  const accept = createHash('sha1').update(key).digest('base64');
  const head = ['HTTP/1.1 101 Switching Protocols', 'Upgrade: websocket', 'Connection: Upgrade'];
  socket.write([...head, `Sec-WebSocket-Accept: ${accept}`, '', ''].join('\r\n'));
  let turn = 0;
  const timer = setInterval(() => {
    for (const reading of readings(turn++)) {
      const text = Buffer.from(JSON.stringify(reading));
      // One unmasked frame of text; a reading is shorter than the 126 bytes that need a longer head.
      socket.write(Buffer.concat([Buffer.from([0x81, text.length]), text]));
    }
  }, 1000);
  const stop = () => clearInterval(timer);
  socket.on('close', stop).on('error', stop);
}
