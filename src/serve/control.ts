import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Backend } from './backend';
import { isLocal, makeProblem, readBody, sendResponse } from './messages';
import { readState, stateNames } from './states';
import { controlPath } from './switchboard/path';

/** Answers a request by the routes of a backend, or what is asked of its switchboard. @param next where given, called for what no route answers */
export function handle(
  backend: Backend,
  asked: IncomingMessage,
  sending: ServerResponse,
  next?: () => void,
): Promise<void> {
  const isControl = (asked.url ?? '').startsWith(controlPath);
  return isControl ? answerControl(backend, asked, sending) : backend.answer(asked, sending, next);
}

/** Answers what is asked of the switchboard: its page, its state, and each change of it. */
async function answerControl(
  backend: Backend,
  asked: IncomingMessage,
  sending: ServerResponse,
): Promise<void> {
  const { pathname } = new URL(asked.url ?? '/', 'http://localhost');
  const what = `${asked.method} ${pathname.slice(controlPath.length)}`;
  if (what === 'GET events' && mayAsk(asked.headers)) return tellOf(backend, sending);
  await sendResponse(await answer(backend, asked, what), sending).catch(() => asked.socket.destroy());
}

async function answer(backend: Backend, asked: IncomingMessage, what: string): Promise<Response> {
  if (!mayAsk(asked.headers)) return makeProblem(403, 'Forbidden', 'Only pages of this machine may ask');
  if (what === 'GET ') return new Response(page, { headers: { 'content-type': 'text/html; charset=utf-8' } });
  if (what === 'GET switchboard.js') {
    const code = await readFile(join(__dirname, 'switchboard.js'));
    return new Response(code, { headers: { 'content-type': 'text/javascript; charset=utf-8' } });
  }
  if (what === 'GET routes') return Response.json(describe(backend));
  try {
    if (what === 'POST reset') await backend.reset();
    else if (what === 'PUT routes') await change(backend, asked);
    else return makeProblem(404, 'Not Found', `The switchboard has no ${what}`);
  } catch (error) {
    return makeProblem(400, 'Bad Request', (error as Error).message);
  }
  return Response.json(describe(backend));
}

// A page from elsewhere must not switch what runs on this machine, not even one whose name leads here.
function mayAsk({ origin, host = '' }: IncomingMessage['headers']): boolean {
  const own = `http://${host}`;
  const isNamed = !URL.canParse(own) || !/^(\[.*\]|[\d.]+)$/.test(new URL(own).hostname);
  return (isLocal(own) || !isNamed) && (!origin || isLocal(origin) || origin === own);
}

async function change(backend: Backend, asked: IncomingMessage): Promise<void> {
  const text = new TextDecoder().decode(await readBody(asked));
  const { state, route } = JSON.parse(text) as { state?: unknown; route?: unknown };
  backend.switch(readState(String(state)), route === undefined ? undefined : String(route));
}

const describe = ({ routes, kept, told }: Backend) => ({
  states: stateNames,
  routes,
  kept: kept.size,
  told: told.slice(-20),
});

/** Tells of each change, as a stream of events. */
function tellOf(backend: Backend, sending: ServerResponse): void {
  sending.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
  let isDue = false;
  const tell = () => {
    isDue = false;
    sending.write(`data: ${JSON.stringify(describe(backend))}\n\n`);
  };
  const watch = () => {
    if (isDue) return;
    isDue = true;
    setTimeout(tell, 50).unref();
  };
  backend.watchers.add(watch);
  sending.on('close', () => backend.watchers.delete(watch));
  tell();
}

const page = `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>Switchboard</title>
    <style>html { background: #fffdf7; }</style>
    <script type="module" src="switchboard.js"></script>
  </head>
  <body>
    <simulacra-switchboard></simulacra-switchboard>
  </body>
</html>
`;
