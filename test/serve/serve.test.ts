/** @jest-environment node */
import { once, type EventEmitter } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fail, fromOpenApi, fromSchema, inTurn, stream, type Connection } from 'simulacra';
import { WebSocket } from 'ws';
import { hives } from '../../examples/shared/hive';
import { eventually, start } from './serving';

const shared = (name: string) => readFileSync(join(__dirname, '../../examples/shared', name), 'utf8');
const openapi = shared('openapi.yaml');
const schema = shared('schema.graphql');

const inFlower = { query: 'query InFlower { plants(within: 500) { id name amount } }' };

describe('what is served', () => {
  it('is what a test of a component would be answered', async () => {
    const { ask, told } = await start({
      network: {
        'GET /api/hives?yard=north': hives,
        'GET /api/hives/:hiveId': (_: Request, { hiveId }) =>
          hives.find(({ id }) => id === hiveId) ?? fail(404),
        'GET /api/photo': new Blob(['frame'], { type: 'image/png' }),
        'GET /api/odd': inTurn('one', 'two'),
      },
    });
    expect((await ask('GET /api/hives?yard=north&q=an')).body).toEqual(hives);
    expect((await ask('GET /api/hives/h2')).body).toEqual(hives[1]);
    expect(await ask('GET /api/hives/h9')).toMatchObject({ status: 404, body: { title: 'Not Found' } });
    expect((await ask('GET /api/photo')).headers.get('content-type')).toBe('image/png');
    expect([(await ask('GET /api/odd')).body, (await ask('GET /api/odd')).body]).toEqual(['one', 'two']);
    expect(told.map(({ asked, status }) => `${status} ${asked}`).slice(0, 2)).toEqual([
      '200 GET /api/hives?yard=north&q=an',
      '200 GET /api/hives/h2',
    ]);
  });

  it('explains what no route answers, what a route throws and what a contract forbids', async () => {
    const { ask, told } = await start({
      network: {
        'GET /api/hives': hives,
        'GET /api/broken': () => {
          throw new Error('the hive is on fire');
        },
        'GET /api/hives/:hiveId': { id: 'h1', nam: 'Anemone' },
        'ANY /api/*': fromOpenApi(openapi),
      },
    });
    const missed = await ask('GET /api/hivs');
    expect(missed).toMatchObject({ status: 404, body: { title: 'Not Found' } });
    expect(missed.body.detail).toContain('GET /api/hives');
    const broken = await ask('GET /api/broken');
    expect(broken.status).toBe(500);
    expect(broken.body.detail).toMatch(/SIM-ROUTE-THREW[^]*the\s+hive\s+is\s+on\s+fire/);
    const drifted = await ask('GET /api/hives/h1');
    expect([drifted.status, drifted.body]).toEqual([200, { id: 'h1', nam: 'Anemone' }]);
    expect(told.at(-1)!.problem).toMatch(/SIM-CONTRACT-DRIFT[^]*"name"/);
    expect((await ask('POST /api/hives/h1/inspections', { varroa: 'many' })).status).toBe(201);
    expect(told.at(-1)!.problem).toContain('SIM-CONTRACT-REQUEST');
  });

  it('answers operations by their name, from a schema, and several at once', async () => {
    const { ask } = await start({
      network: { 'ANY /graphql': fromSchema(schema), 'MUTATION Log': new Error('no') },
    });
    const { body } = await ask('POST /graphql', inFlower);
    expect(body.data.plants).toHaveLength(2);
    expect((await ask(`GET /graphql?query=${encodeURIComponent(inFlower.query)}`)).body).toEqual(body);
    expect((await ask('POST /graphql', [inFlower, inFlower])).body).toEqual([body, body]);
    const wrong = await ask('POST /graphql', { query: 'query InFlower { plants(within: 500) { nam } }' });
    expect(JSON.stringify(wrong.body)).toContain('name');
  });

  it('sends events and messages', async () => {
    const alerts = stream<string>();
    const { served } = await start({
      network: {
        'GET /live/alerts': alerts,
        'WS /live/scales': (connection: Connection) =>
          connection.listen((message) => connection.send({ heard: message })),
      },
    });
    const events = await fetch(`${served.url}/live/alerts`, { headers: { accept: 'text/event-stream' } });
    const reader = events.body!.getReader();
    await alerts.emit('swarm');
    expect(new TextDecoder().decode((await reader.read()).value)).toBe('data: swarm\n\n');
    await reader.cancel();
    const socket = new WebSocket(`${served.url.replace('http', 'ws')}/live/scales`);
    await once(socket, 'open');
    socket.send('{"subscribe":"h1"}');
    const [message] = (await once(socket as unknown as EventEmitter, 'message')) as [Buffer];
    expect(JSON.parse(String(message))).toEqual({ heard: { subscribe: 'h1' } });
    socket.close();
    const refused = new WebSocket(`${served.url.replace('http', 'ws')}/live/nothing`);
    const [error] = (await once(refused as unknown as EventEmitter, 'error')) as [Error];
    expect(error.message).toContain('404');
  });

  it('lets pages of this machine read it, and no others', async () => {
    const { ask } = await start({ network: { 'PUT /api/hives/:id': null } });
    const origin = 'http://localhost:5173';
    const preflight = { origin, 'access-control-request-method': 'PUT' };
    const asked = await ask('OPTIONS /api/hives/h1', undefined, preflight);
    expect([asked.status, asked.headers.get('access-control-allow-methods')]).toEqual([204, 'PUT']);
    const allowed = (from: string) =>
      ask('PUT /api/hives/h1', {}, { origin: from }).then(({ headers }) =>
        headers.get('access-control-allow-origin'),
      );
    expect(await allowed(origin)).toBe(origin);
    expect(await allowed('https://elsewhere.example')).toBeNull();
  });
});

describe('the state of a route', () => {
  it('is switched for one, for all, and from the page', async () => {
    const { served, ask } = await start({
      network: {
        'GET /api/hives': hives,
        'GET /api/hives/:hiveId': hives[0],
        'ANY /graphql': fromSchema(schema),
      },
      states: { 'GET /api/hives': 'failing' },
    });
    expect((await ask('GET /api/hives')).status).toBe(503);
    expect((await ask('GET /api/hives/h1')).status).toBe(200);
    served.switch('failing 404', 'GET /api/hives/:hiveId');
    expect((await ask('GET /api/hives/h1')).body).toMatchObject({ status: 404 });
    served.switch('empty');
    expect((await ask('GET /api/hives')).body).toEqual([]);
    expect((await ask('GET /api/hives/h1')).body).toEqual({ ...hives[0], tasks: [] });
    expect((await ask('POST /graphql', inFlower)).body).toEqual({ data: { plants: [] } });
    const switched = await ask('PUT /__simulacra/routes', { state: 'data', route: 'GET /api/hives' });
    expect(switched.body.routes).toContainEqual({ route: 'GET /api/hives', state: 'data', waiting: 0 });
    expect((await ask('GET /api/hives')).body).toEqual(hives);
    served.switch('failing', 'QUERY InFlower');
    expect((await ask('POST /graphql', inFlower)).status).toBe(503);
  });

  it('holds an answer until it is switched on, and a client may leave meanwhile', async () => {
    const { served, ask } = await start({
      network: { 'GET /api/hives': hives, 'WS /live/scales': () => undefined },
    });
    served.switch('held');
    const leaving = new AbortController();
    const left = fetch(`${served.url}/api/hives`, { signal: leaving.signal }).catch(() => 'left');
    const waiting = ask('GET /api/hives');
    const socket = new WebSocket(`${served.url.replace('http', 'ws')}/live/scales`);
    const opened = once(socket as unknown as EventEmitter, 'open');
    const count = async (route: string) => served.routes.find((one) => one.route === route)!.waiting;
    await eventually(
      async () => (await count('GET /api/hives')) === 2 && (await count('WS /live/scales')) === 1,
    );
    leaving.abort();
    expect(await left).toBe('left');
    await eventually(async () => (await count('GET /api/hives')) === 1);
    served.switch('data');
    expect((await waiting).body).toEqual(hives);
    await opened;
    socket.terminate();
    expect(await count('GET /api/hives')).toBe(0);
  });

  it('delays an answer', async () => {
    const { served, ask } = await start({
      network: { 'GET /api/hives': hives },
      states: { '*': 'slow 80ms' },
    });
    const begun = performance.now();
    await ask('GET /api/hives');
    expect(performance.now() - begun).toBeGreaterThan(75);
    expect(served.routes).toEqual([{ route: 'GET /api/hives', state: 'slow 80ms', waiting: 0 }]);
  });

  it.each([
    ['a state with a letter off', 'heled', undefined, 'SIM-SERVE-STATE', 'held'],
    ['a status that is none of a failure', 'failing 200', undefined, 'SIM-SERVE-STATE', 'failing'],
    ['a span that is none', 'slow 5 seconds', undefined, 'SIM-SERVE-STATE', 'slow 5s'],
    ['a route with a letter off', 'held', 'GET /api/hive', 'SIM-ROUTE-UNKNOWN', "'GET /api/hives'"],
  ])('is refused: %s', async (_, state, route, code, meant) => {
    const { served } = await start({ network: { 'GET /api/hives': hives } });
    const refused = (work: () => void) => {
      try {
        work();
      } catch (error) {
        return error as Error & { code: string };
      }
      throw new Error('nothing was refused');
    };
    const error = refused(() => served.switch(state, route));
    expect(error.code).toBe(code);
    expect(error.message).toContain(`Did you mean   ${meant}`);
    expect(served.routes[0]!.state).toBe('data');
  });
});
