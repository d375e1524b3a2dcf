import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Plugin } from 'vite';
import { reply } from './backend';

/** Answers /api from the simulated backend, in the development server and in the preview. */
export function simulatedBackend(): Plugin {
  const answer = (request: IncomingMessage, response: ServerResponse, next: () => void): void => {
    const url = new URL(request.url ?? '/', 'http://localhost');
    if (!url.pathname.startsWith('/api/')) return next();
    const { status, after, body } = reply(request.method ?? 'GET', url);
    setTimeout(() => {
      response.writeHead(status, {
        'content-type': status < 400 ? 'application/json' : 'application/problem+json',
      });
      response.end(JSON.stringify(body));
    }, after);
  };
  return {
    name: 'simulated-backend',
    configureServer: (server) => void server.middlewares.use(answer),
    configurePreviewServer: (server) => void server.middlewares.use(answer),
  };
}
