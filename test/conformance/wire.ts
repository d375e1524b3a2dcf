import {
  channel,
  fail,
  fromOpenApi,
  fromSchema,
  hold,
  inTurn,
  later,
  role,
  stream,
  takeDown,
  text,
} from 'simulacra';
import { startTimer } from './captured';
import type { Kit } from './specification';
import type { Play } from './time';
import { failureOf } from './trust';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

interface Reading {
  readonly kilograms: number;
}

/** Sends by XMLHttpRequest, as a client library does. */
function request(method: string, url: string, show: (text: string) => void, body?: Any) {
  const sent = new XMLHttpRequest();
  sent.open(method, url);
  sent.responseType = 'json';
  sent.timeout = 5000;
  if (body) sent.upload.onprogress = ({ loaded, total }) => show(`${Math.round((100 * loaded) / total)} %`);
  sent.onload = () => show(`${sent.status} ${sent.response?.name ?? sent.response?.title ?? ''}`.trim());
  sent.onerror = () => show('no connection');
  sent.ontimeout = () => show('took too long');
  sent.send(body);
  return () => sent.abort();
}

/** Listens to the scales, and connects again a second after it lost them. */
function listen(show: (text: string) => void): () => void {
  let socket: WebSocket;
  let timer: ReturnType<typeof setTimeout>;
  const connect = () => {
    socket = new WebSocket('/live/scales?hive=h1');
    socket.onopen = () => socket.send(JSON.stringify({ subscribe: 'h1' }));
    socket.onmessage = ({ data }) => show(`${(JSON.parse(String(data)) as Reading).kilograms} kg`);
    socket.onclose = ({ code }) => {
      show(`lost: ${code}`);
      timer = setTimeout(connect, 1000);
    };
  };
  connect();
  return () => {
    clearTimeout(timer);
    socket.onclose = null;
    socket.close();
  };
}

const follow = (show: (text: string) => void) => {
  const source = new EventSource('/live/alerts');
  source.onopen = () => show('listening');
  source.onerror = () => show(source.readyState === EventSource.CLOSED ? 'over' : 'connecting');
  source.addEventListener('frost', ({ data, lastEventId }) =>
    show(`frost: ${String(data)} (${lastEventId})`),
  );
  source.onmessage = ({ data }) => show(String(data));
  return () => source.close();
};

/** Whatever a component talks to a server with, stated once and run for every framework. */
export function wire(kit: Kit): void {
  const { isolate, components } = kit;
  const live = (play: Play, options: Any = {}) =>
    isolate(components['Live'], { props: { play }, ...options });

  describe('XMLHttpRequest', () => {
    const get: Play = {
      start: (show) => {
        show('loading');
        return request('GET', '/api/hives/h1', show);
      },
    };

    it.each<[string, Any, string]>([
      ['data', { id: 'h1', name: 'Anemone' }, '200 Anemone'],
      ['a failure', fail(503), '503 Service Unavailable'],
      ['a broken connection', fail(), 'no connection'],
      ['a Response', new Response('{"name":"Borage"}', { status: 203 }), '203 Borage'],
      ['a function', (_: Request, { hiveId }: Any) => ({ name: hiveId }), '200 h1'],
      ['one after the other', inTurn({ name: 'Clover' }), '200 Clover'],
    ])('is answered with %s, after what is shown while it loads', async (_, answer, shown) => {
      const subject = await live(get, { network: { 'GET /api/hives/:hiveId': answer } });
      expect(subject).toHaveShown(text('loading'));
      expect(subject).toShow(text(shown));
      expect(subject.requests).toMatchObject([
        { carrier: 'XMLHttpRequest', path: '/api/hives/h1', params: { hiveId: 'h1' }, body: undefined },
      ]);
    });

    it('takes too long, on the clock of the test', async () => {
      const subject = await live(get, {
        time: 'virtual',
        network: { 'GET /api/hives/:hiveId': later(6000, {}) },
      });
      expect(subject.time.due.map((due: Any) => due.label ?? due.kind)).toHaveLength(2);
      await subject.time.advance('5s');
      expect(subject).toShow(text('took too long'));
    });

    it('sends a photo bit by bit, and its bytes arrive', async () => {
      const saving = hold<Any>();
      const arrived: string[] = [];
      const subject = await live(
        {
          press: (show) => {
            const form = new FormData();
            form.append('hive', 'h1');
            form.append('photo', new File(['frame 7'], 'frame.png', { type: 'image/png' }));
            request('PUT', '/api/photos/p1', show, form);
          },
        },
        {
          network: {
            'PUT /api/photos/:id': async (sent: Request) => {
              const form = await sent.formData();
              arrived.push(String(form.get('hive')), await (form.get('photo') as File).text());
              return saving;
            },
          },
        },
      );
      await subject.click(role('button', 'Go'));
      await subject.eventually(() => saving.waiting.length === 1);
      expect(arrived).toEqual(['h1', 'frame 7']);
      await saving.waiting[0]!.upload(0.4);
      expect(subject).toShow(text('40 %'));
      await saving.release({ name: 'p1' });
      expect(subject).toHaveShown(text('100 %'));
      expect(subject).toShow(text('200 p1'));
    });

    it('is answered in any order, each on its own', async () => {
      const answer = hold<Any>();
      const subject = await live(
        {
          start: (show) => {
            for (const id of ['h1', 'h2', 'h3']) request('GET', `/api/hives/${id}`, show);
          },
        },
        { network: { 'GET /api/hives/:hiveId': answer } },
      );
      expect(answer.waiting.map(({ asked }) => asked)).toEqual([
        ...['GET /api/hives/h1', 'GET /api/hives/h2', 'GET /api/hives/h3'],
      ]);
      const [first, second, third] = answer.waiting;
      await third!.release({ name: 'Clover' });
      expect(subject).toShow(text('200 Clover'));
      await first!.fail(404);
      expect(subject).toShow(text('404 Not Found'));
      expect(answer.waiting.map(({ asked }) => asked)).toEqual(['GET /api/hives/h2']);
      expect((await failureOf(() => first!.release({}))).code).toBe('SIM-HOLD-TWICE');
      await second!.release({ name: 'Borage' });
      expect(subject).toShow(text('200 Borage'));
    });

    it('is waited for while the test works on the answer', async () => {
      const network = {
        'GET /api/hives/:hiveId': async () => {
          // A timer that nothing sees.
          await new Promise((resolve) => startTimer(resolve, 60));
          return { name: 'Clover' };
        },
      };
      const subject = await live(get, { network });
      expect(await subject.appears(text('200 Clover'))).toBeDefined();
    });

    it('refuses to block the page, with what to write', async () => {
      const failure = await failureOf(() =>
        live(
          {
            start: () => {
              const sent = new XMLHttpRequest();
              sent.open('GET', '/api/hives', false);
              try {
                sent.send();
              } catch {
                // The component copes, but the test must hear of it.
              }
            },
          },
          { network: { 'GET /api/hives': [] } },
        ),
      );
      expect(failure.code).toBe('SIM-REQUEST-SYNC');
    });
  });

  describe('a WebSocket', () => {
    it('is driven by a channel, and connects again', async () => {
      const scales = channel<Reading, { subscribe: string }>();
      const subject = await live(
        { start: listen },
        { time: 'virtual', network: { 'WS /live/scales': scales } },
      );
      expect(scales.received).toEqual([{ subscribe: 'h1' }]);
      await scales.send({ kilograms: 31.2 });
      expect(subject).toShow(text('31.2 kg'));
      await scales.close(1012, 'restarting');
      expect(subject).toShow(text('lost: 1012'));
      expect((await failureOf(() => scales.send({ kilograms: 0 }))).code).toBe('SIM-CHANNEL-CLOSED');
      await subject.time.advance('1s');
      await scales.fail();
      expect(subject).toShow(text('lost: 1006'));
      await subject.time.advance('1s');
      await scales.send({ kilograms: 31.9 });
      expect(subject).toShow(text('31.9 kg'));
      expect(scales.opened).toBe(3);
      expect(scales.connections).toMatchObject([{ isOpen: true, received: [{ subscribe: 'h1' }] }]);
      expect(subject.chronicle.of('received').map(({ what }: Any) => what)).toEqual([
        ...['WS /live/scales?hive=h1', 'WS /live/scales?hive=h1'],
      ]);
      await subject.takeDown();
      expect(scales.opened).toBe(0);
    });

    it('is driven by a function of the connection, and by a stream', async () => {
      const subject = await live(
        { start: listen },
        {
          network: {
            'WS /live/scales': (connection: Any) => {
              connection.listen(({ subscribe }: Any) => connection.send({ kilograms: subscribe.length }));
            },
          },
        },
      );
      expect(subject).toShow(text('2 kg'));
      const readings = stream<Reading>();
      const other = await live({ start: listen }, { network: { 'WS /live/scales': readings } });
      await readings.emit({ kilograms: 40.5 });
      expect(other).toShow(text('40.5 kg'));
      await other.takeDown();
      expect(readings.listeners).toBe(0);
    });

    it.each<[string, Any, Any]>([
      ['refused', fail(), { time: 'virtual' }],
      ['refused while the page is offline', channel(), { page: { online: false }, time: 'virtual' }],
    ])('is %s', async (_, answer, options) => {
      const subject = await live({ start: listen }, { ...options, network: { 'WS /live/scales': answer } });
      expect(subject).toShow(text('lost: 1006'));
    });

    it('waits to be opened', async () => {
      const opening = hold<Any>();
      const scales = channel<Reading>();
      const subject = await live({ start: listen }, { network: { 'WS /live/scales': opening } });
      expect(scales.opened).toBe(0);
      await opening.release(scales);
      await scales.send({ kilograms: 1 });
      expect(subject).toShow(text('1 kg'));
    });

    it('that no route answers fails the test, with the nearest route', async () => {
      const subject = await live(
        { start: listen },
        { time: 'virtual', network: { 'WS /live/scale': channel() } },
      );
      expect(subject).toShow(text('lost: 1006'));
      const { code, message } = await failureOf(takeDown);
      expect(code).toBe('SIM-REQUEST-UNMATCHED');
      expect(message).toMatch(/No route answers WS \/live\/scales\?hive=h1 \(WebSocket\), asked by Live/);
      expect(message).toContain('has "scale", the request "scales"');
    });

    it('that is left open is a leak, by its address', async () => {
      const play = { start: () => void new WebSocket('/live/scales') };
      const subject = await live(play, { network: { 'WS /live/scales': channel() } });
      const { code, message } = await failureOf(() => subject.takeDown());
      expect(code).toBe('SIM-LEFT-BEHIND');
      expect(message).toContain('a WebSocket to /live/scales');
    });
  });

  describe('fetch', () => {
    it('sends a stream as it comes', async () => {
      const play: Play = {
        start: (show) => {
          const bytes = (text: string) => new TextEncoder().encode(text);
          const body = new ReadableStream({
            start(controller) {
              controller.enqueue(bytes('31.2;'));
              setTimeout(() => {
                controller.enqueue(bytes('31.4'));
                controller.close();
              }, 500);
            },
          });
          const sent = { method: 'POST', body, duplex: 'half' } as RequestInit;
          void fetch('/api/readings', sent).then(async (response) => show(await response.text()));
        },
      };
      const network = { 'POST /api/readings': async (request: Request) => `got ${await request.text()}` };
      const subject = await live(play, { time: 'virtual', network });
      await subject.time.advance('500ms');
      expect(subject).toShow(text('"got 31.2;31.4"'));
    });

    it('polls for as long as an answer takes', async () => {
      const play: Play = {
        start: (show) => {
          let isOver = false;
          const poll = async (): Promise<void> => {
            const response = await fetch('/live/poll').catch(() => undefined);
            if (isOver || !response) return;
            show(response.status === 204 ? 'nothing new' : await response.text());
            return poll();
          };
          void poll();
          return () => (isOver = true);
        },
      };
      const answers = inTurn(later(30_000, 'swarm'), later(60_000, undefined), hold());
      const subject = await live(play, { time: 'virtual', network: { 'GET /live/poll': answers } });
      await subject.time.advance('30s');
      expect(subject).toShow(text('"swarm"'));
      await subject.time.advance('59s');
      expect(subject).toShow(text('"swarm"'));
      await subject.time.advance('1s');
      expect(subject).toShow(text('nothing new'));
      expect(subject.requests.map(({ at }: Any) => Math.round(at / 1000))).toEqual([0, 30, 90]);
    });
  });

  describe('an EventSource', () => {
    it('is driven by a channel, and goes on where it left off', async () => {
      const alerts = channel<string>();
      const subject = await live(
        { start: follow },
        { time: 'virtual', network: { 'GET /live/alerts': alerts } },
      );
      expect(subject).toShow(text('listening'));
      await alerts.send('tonight', { event: 'frost', id: 'a2', retry: 500 });
      expect(subject).toShow(text('frost: tonight (a2)'));
      await alerts.fail();
      expect(subject).toShow(text('connecting'));
      await subject.time.advance('500ms');
      expect(alerts.connections).toMatchObject([{ lastEventId: 'a2' }]);
      await alerts.send('two\nlines');
      expect(subject.texts(role('status'))).toEqual(['two lines']);
      const told = (kind: 'connected' | 'received' | 'closed') =>
        subject.chronicle.of(kind).map(({ what, detail }: Any) => `${what} ${detail}`.trim());
      expect(told('connected')).toEqual(['GET /live/alerts', 'GET /live/alerts']);
      expect(told('received')).toEqual([
        'GET /live/alerts frost "tonight"',
        'GET /live/alerts "two\\nlines"',
      ]);
      expect(told('closed')).toEqual(['GET /live/alerts connects again in 500ms']);
    });

    it.each<[string, Any, string]>([
      ['no content', undefined, 'over'],
      ['a status that is no success', fail(403), 'over'],
      ['a broken connection', fail(), 'connecting'],
      [
        'a Response',
        () => new Response('data: swarm\n\n', { headers: { 'content-type': 'text/event-stream' } }),
        'connecting',
      ],
    ])('that is answered with %s', async (_, answer, shown) => {
      const subject = await live(
        { start: follow },
        { time: 'virtual', network: { 'GET /live/alerts': answer } },
      );
      expect(subject).toShow(text(shown));
    });

    it('that is answered with data fails the test', async () => {
      const failure = await failureOf(() =>
        live({ start: follow }, { network: { 'GET /live/alerts': ['swarm'] } }),
      );
      expect(failure.code).toBe('SIM-ROUTE-ANSWER');
      expect(failure.message).toContain('an EventSource reads a stream of events');
    });

    it('that is left open is a leak', async () => {
      const play = { start: () => void new EventSource('/live/alerts') };
      const subject = await live(play, { network: { 'GET /live/alerts': channel() } });
      expect((await failureOf(() => subject.takeDown())).message).toContain('an EventSource of /live/alerts');
    });
  });

  describe('an operation of GraphQL', () => {
    const query = 'query InFlower($within: Int) { plants(within: $within) { id name } }';
    const ask: Play = {
      start: (show) => {
        show('loading');
        const body = JSON.stringify({ query, operationName: 'InFlower', variables: { within: 800 } });
        void fetch('/graphql', { method: 'POST', body })
          .then((response) => response.json())
          .then(({ data, errors }: Any) => show(errors ? errors[0].message : data.plants[0].name));
      },
    };

    it.each<[string, Any, string]>([
      ['data', { plants: [{ id: 'p1', name: 'Borage' }] }, 'Borage'],
      ['an error', new Error('no view'), 'no view'],
      ['a function', ({ within }: Any) => ({ plants: [{ id: 'p1', name: `${within} m` }] }), '800 m'],
    ])('is answered by its name, with %s', async (_, answer, shown) => {
      const subject = await live(ask, { network: { 'QUERY InFlower': answer } });
      expect(subject).toHaveShown(text('loading'));
      expect(subject).toShow(text(shown));
    });

    it('has what it selects, or the test fails', async () => {
      const failure = await failureOf(() =>
        live(ask, { network: { 'QUERY InFlower': { plants: [{ id: 'p1', nam: 'Borage' }] } } }),
      );
      expect(failure.code).toBe('SIM-GRAPHQL-LACKS');
      expect(failure.fields).toMatchObject({ lacking: ['plants[0].name'], nearest: 'nam' });
    });
  });

  describe('the network', () => {
    it('a body that is streamed is read bit by bit', async () => {
      const lines = stream<unknown>();
      const subject = await live(
        {
          start: (show) => {
            void (async () => {
              const { body } = await fetch('/api/report');
              const reader = body!.getReader();
              for (let all = ''; ; show(all)) {
                const { done, value } = await reader.read();
                if (done) return show(`${all} end`);
                all += new TextDecoder().decode(value);
              }
            })().catch(() => show('broke off'));
          },
        },
        { network: { 'GET /api/report': inTurn(lines, lines) } },
      );
      await lines.emit('one, ');
      await lines.emit('two');
      expect(subject).toShow(text('one, two'));
      await lines.fail();
      expect(subject).toShow(text('broke off'));
    });

    it('contracts answer, and check what the test answers', async () => {
      const schema = 'type Query { plants(within: Int): [Plant!]! } type Plant { id: ID! name: String! }';
      const content = {
        'application/json': { schema: { type: 'object', properties: { name: { type: 'string' } } } },
      };
      const document = {
        openapi: '3.1.0',
        paths: { '/api/hives/{id}': { get: { responses: { 200: { content } } } } },
      };
      const network = { 'POST /graphql': fromSchema(schema), 'ANY /api/*': fromOpenApi(document) };
      const start = (show: (text: string) => void) => {
        const body = JSON.stringify({ query: '{ plants { name } }' });
        void Promise.all([fetch('/graphql', { method: 'POST', body }), fetch('/api/hives/h1')])
          .then((responses) => Promise.all(responses.map((response) => response.json())))
          .then(([{ data }, { name }]: Any[]) => show(`${data.plants[1].name}, ${name}`));
      };
      const subject = await live({ start }, { network });
      expect(subject).toShow(text('Plant 2, Hive 1'));
      await subject.takeDown();
      const drifted = { ...network, 'GET /api/hives/:id': { name: 7 } };
      const failure = await failureOf(() => live({ start }, { network: drifted }));
      expect(failure.code).toBe('SIM-CONTRACT-DRIFT');
    });

    it('requests are listed by route, and counted', async () => {
      const network = { 'GET /api/hives/:hiveId': { name: 'Anemone' }, 'GET /api/broken': fail() };
      const start = (show: (text: string) => void) => {
        for (const path of ['/api/hives/h1', '/api/hives/h2', '/api/broken']) request('GET', path, show);
      };
      const subject = await live({ start }, { network });
      const hives = subject.requests.of('GET /api/hives/:hiveId');
      expect(hives.map(({ params, status }: Any) => [params.hiveId, status])).toEqual([
        ...[
          ['h1', 200],
          ['h2', 200],
        ],
      ]);
      expect(JSON.parse(JSON.stringify(hives[0]))).toMatchObject({
        path: '/api/hives/h1',
        headers: { accept: '*/*' },
      });
      subject.everyRouteAsked({ 'GET /api/hives/:hiveId': 2 });
      const refusal = (work: () => unknown) => failureOf(async () => work());
      const { code, message } = await refusal(() => subject.everyRouteAsked({ 'GET /api/broken': 2 }));
      expect(code).toBe('SIM-ROUTE-TIMES');
      expect(message).toMatch(/was asked for once instead of twice/);
      const unknown = await refusal(() => subject.requests.of('GET /api/hives/:id'));
      expect([unknown.code, unknown.fields]).toMatchObject([
        ...['SIM-ROUTE-UNKNOWN', { nearest: 'GET /api/hives/:hiveId' }],
      ]);
    });

    it('a beacon is a request', async () => {
      const subject = await live(
        { press: (show) => show(String(navigator.sendBeacon('/api/seen', JSON.stringify({ hive: 'h1' })))) },
        { network: { 'POST /api/seen': undefined } },
      );
      await subject.click(role('button', 'Go'));
      expect(subject).toShow(text('true'));
      expect(subject.requests).toMatchObject([
        { carrier: 'navigator.sendBeacon', body: { hive: 'h1' }, status: 204 },
      ]);
    });
  });
}
