import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable, type Duplex } from 'node:stream';

/** A request that arrived, as the Fetch standard has it. @throws TypeError for one that a page cannot send */
export function makeRequest(asked: IncomingMessage, signal: AbortSignal): Request {
  const { method = 'GET', url = '/', headers } = asked;
  const hasBody = !/^(GET|HEAD)$/.test(method);
  const given = new Headers();
  for (const [name, value] of Object.entries(headers))
    if (value !== undefined) given.append(name, Array.isArray(value) ? value.join(', ') : value);
  return new Request(addressOf(url, headers.host), {
    method,
    headers: given,
    signal,
    ...(hasBody && { body: Readable.toWeb(asked) as ReadableStream, duplex: 'half' }),
  } as RequestInit);
}

/** The address that was asked for. */
export const addressOf = (url: string, host = 'localhost'): URL => new URL(url, `http://${host}`);

/** Sends a response, as fast as the client takes it. */
export async function sendResponse(response: Response, sending: ServerResponse): Promise<void> {
  const { status, statusText, headers, body } = response;
  for (const [name, value] of headers) if (name !== 'set-cookie') sending.setHeader(name, value);
  const cookies = headers.getSetCookie();
  if (cookies.length > 0) sending.setHeader('set-cookie', cookies);
  sending.writeHead(status, statusText);
  // A client waits for the head of a response whose body may take its time.
  sending.flushHeaders();
  if (!body) return void sending.end();
  const reader = body.getReader();
  sending.on('close', () => void reader.cancel().catch(() => undefined));
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    if (!sending.write(value))
      await new Promise((resolve) => sending.once('drain', resolve).once('close', resolve));
  }
  sending.end();
}

/** Answers what has not become a request, and ends its connection. */
export function refuseWith(socket: Duplex, status: string): void {
  if (socket.writable) socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
  else socket.destroy();
}
