import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import type { SimulacraError } from 'simulacra';
import { fail, hold, inTurn, later, part, role, spy, standIn, stream, swap, takeDown, text } from 'simulacra';
import { hives, type Hive } from '../../examples/shared/hive';
import type { Kit } from './specification';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

const scale = () => import('./scale');
const route = 'GET /api/hives?yard=:yard';
const sleep = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** The failure of some work, as it reaches the test. */
export const failureOf = (work: () => unknown): Promise<SimulacraError> =>
  Promise.resolve()
    .then(work)
    .then(
      () => new Error('nothing was thrown') as SimulacraError,
      (error: SimulacraError) => {
        // As one line: where a line is broken does not matter here.
        error.message = error.message.replace(/\s+/g, ' ');
        return error;
      },
    );

const json = async (address: string): Promise<string> => JSON.stringify(await (await fetch(address)).json());

/** What is green only where nothing went wrong, stated once and run for every framework. */
export function trust(kit: Kit): void {
  const { isolate, isolateWith, components } = kit;
  const { Board, Card, Greeting, Runner, Weight } = components;
  const run = (work: () => unknown, options: Any = {}) => isolate(Runner, { props: { work }, ...options });
  /** A subject that is taken down, and whose timer does something up to 200 ms later, however slow the machine. */
  const takenDownBefore = async (work: () => void) => {
    let isDown = false;
    const wait = () => (isDown ? work() : void setTimeout(wait, 200));
    await run(() => void setTimeout(wait, 200), { leaks: 'allowed' });
    await takeDown();
    isDown = true;
  };
  const loaded = { props: { yard: 'north' }, network: { [route]: hives } };

  describe('a test fails when', () => {
    it('code throws after its last step, and each error is reported', async () => {
      await run(() => {
        for (const place of ['in the smoker', 'in the hive'])
          setTimeout(() => {
            throw new RangeError(place);
          }, 200);
      });
      await sleep(300);
      const { code, message } = await failureOf(takeDown);
      expect(code).toBe('SIM-HANDLER-THREW');
      expect(message).toMatch(/in the smoker[^]*in the hive/);
    });

    it('a failure was swallowed, and its end has something to complain of', async () => {
      const board = await isolate(Board, { ...loaded, stub: [Card, kit.components.Pad] });
      await failureOf(() => board.find(role('button', 'Nowhere')));
      expect((await failureOf(takeDown)).code).toBe('SIM-STUB-UNUSED');
    });

    it('several things went wrong in one step: all of them are reported', async () => {
      const boom = () => {
        throw new RangeError('first');
      };
      const runner = await run(spy(() => 'ready'));
      window.setTimeout(boom);
      await sleep(10);
      window.setTimeout(() => {
        throw new RangeError('second');
      });
      await sleep(10);
      expect((await failureOf(() => runner.atRest())).message).toMatch(/first[^]*second/);
    });

    const circle: Record<string, unknown> = {};
    circle['itself'] = circle;
    it.each<[string, Any, string, RegExp]>([
      [
        'a route throws',
        () => {
          throw new RangeError('no such yard');
        },
        'SIM-ROUTE-THREW',
        /GET \/api\/hives[^]*no such yard/,
      ],
      ['a route cannot be sent', () => circle, 'SIM-ROUTE-ANSWER', /JSON cannot hold it/],
      ['a route answers with a Map', () => new Map(), 'SIM-ROUTE-ANSWER', /Map, which would arrive as/],
    ])('%s, though the component caught it', async (_, answer, code, words) => {
      const failure = await failureOf(() =>
        run(() => json('/api/hives'), { network: { 'GET /api/hives': answer } }),
      );
      expect(failure.code).toBe(code);
      expect(failure.message).toMatch(words);
    });

    it('an assertion in a route fails: with its own words', async () => {
      const failure = await failureOf(() =>
        run(() => json('/api/hives?yard=south'), {
          network: {
            'GET /api/hives': ({ url }: Request) => {
              expect(url).toContain('north');
            },
          },
        }),
      );
      expect(failure.message).toMatch(/toContain[^]*north/);
    });

    it('data stands where a socket is answered', async () => {
      const failure = await failureOf(() =>
        isolate(Board, { ...loaded, network: { 'WS /live/scales': [31.2] } }),
      );
      expect(failure.code).toBe('SIM-ROUTE-ANSWER');
      expect(failure.message).toMatch(/\[31\.2\] does not say[^]*channel\(\)/);
    });

    it('a stand-in refuses a call, though the component caught it', async () => {
      const store = standIn<{ load(): string; save(): string }>(['load']);
      expect((await failureOf(() => run(() => store.save()))).code).toBe('SIM-STANDIN-UNKNOWN');
      const fine = await run(() => store.load());
      // What the test itself does wrong it is told at once, and not once more at the end.
      expect(() => store.save()).toThrow('SIM-STANDIN-UNKNOWN');
      expect(fine).toShow(role('button', 'Run'));
    });

    it.each<[string, (board: Any) => unknown]>([
      ['click', (board) => board.click(role('button', 'Open').inside(role('article', 'Anemone')))],
      ['update', (board) => board.update({ yard: 'east' })],
      ['appears', (board) => board.appears(text('Anemone'))],
    ])('%s is not awaited, by name and line', async (name, step) => {
      void step(await isolate(Board, loaded));
      const { code, message, stack } = await failureOf(takeDown);
      expect(code).toBe('SIM-STEP-UNAWAITED');
      expect(message).toContain(`${name} was not awaited`);
      expect(stack).toMatch(/trust\.ts:\d+/);
    });

    it('isolate is not awaited: nothing is mounted into the next test', async () => {
      void isolate(Board, loaded);
      expect((await failureOf(takeDown)).message).toContain('isolate was not awaited');
      await sleep(20);
      expect(document.body.children.length).toBe(0);
      const board = await isolate(Board, loaded);
      expect(board).toShow(role('article'), { times: 3 });
    });

    it('a step that was not awaited is over already', async () => {
      const board = await isolate(Board, loaded);
      void board.update({ yard: 'east' });
      await sleep(30);
      expect((await failureOf(takeDown)).message).toContain('update was not awaited');
    });

    it('what is provided is never read, but for the defaults of a team', async () => {
      const provide = [
        [kit.Keeper, 'Imke'],
        [kit.Unread, 'nobody asks'],
      ];
      await isolate(Greeting, { provide });
      const { code, message } = await failureOf(takeDown);
      expect(code).toBe('SIM-PROVIDE-UNUSED');
      expect(message).toMatch(/for Unread was never read by Greeting[^]*What was read: Keeper/);
      expect(await isolateWith({ provide })(Greeting)).toShow(text('Good day, Imke'));
      await takeDown();
    });

    it.each<[string, Any, string]>([
      ['props that are none', { props: ['north'] }, 'SIM-OPTION-VALUE'],
      ['routes that are none', { network: [route] }, 'SIM-OPTION-VALUE'],
      ['a wrapper that is missing', { wrap: [undefined] }, 'SIM-OPTION-VALUE'],
      ['a token that is missing', { provide: [[undefined, 1]] }, 'SIM-OPTION-VALUE'],
      ['a depth of 0', { depth: 0 }, 'SIM-OPTION-VALUE'],
    ])('isolate is given %s', async (_, options, code) => {
      expect((await failureOf(() => isolate(Board, { ...loaded, ...options }))).code).toBe(code);
    });

    it('a held answer is let go twice', async () => {
      const answer = hold<Hive[]>();
      const board = await isolate(Board, { ...loaded, network: { [route]: answer } });
      await answer.release(hives);
      expect((await failureOf(() => answer.fail(503))).message).toMatch(/fail\(\) was called[^]*release\(\)/);
      expect(board).toShow(role('article'), { times: 3 });
    });
  });

  describe('a failure says what is likely to have caused it', () => {
    it('a request that no route answers, with what differs', async () => {
      const board = await isolate(Board, { ...loaded, network: { 'GET /api/hive': hives } });
      const { code, message } = await failureOf(() => board.find(role('article', 'Anemone')));
      expect(code).toBe('SIM-FIND-NONE');
      expect(message).toMatch(/SIM-REQUEST-UNMATCHED[^]*the route has "hive", the request "hives"/);
      const told = (await failureOf(takeDown)).message;
      expect(told).toMatch(/SIM-REQUEST-UNMATCHED/);
      expect(told).not.toContain('What happened before');
    });

    it('a stub that was never used', async () => {
      const board = await isolate(Board, { ...loaded, stub: [kit.components.Pad] });
      const { message } = await failureOf(() => board.click(role('button', 'Nowhere')));
      expect(message).toMatch(/SIM-FIND-NONE[^]*likely to be why[^]*SIM-STUB-UNUSED/);
      await failureOf(takeDown);
    });
  });

  describe('answers are descriptions', () => {
    it('begin anew for each subject', async () => {
      const held = hold<Hive[]>();
      const isolateBoard = isolateWith({
        network: { 'GET /api/hives?yard=north': inTurn(fail(503), hives), 'GET /api/hives?yard=east': held },
      });
      for (let time = 0; time < 2; time++) {
        const failing = await isolateBoard(Board, { props: { yard: 'north' } });
        expect(failing).toShow(role('alert'));
        const waiting = await isolateBoard(Board, { props: { yard: 'east' } });
        expect(waiting).toShow(role('status'));
        await held.release(hives);
        expect(waiting).toShow(role('article'), { times: 3 });
        await takeDown();
      }
    });

    it('hold what was let go before the subject came', async () => {
      const held = hold<Hive[]>();
      await held.release(hives);
      const board = await isolate(Board, { ...loaded, network: { [route]: held } });
      expect(board).toShow(role('article'), { times: 3 });
    });

    it('give a stream new listeners for each subject', async () => {
      const readings = stream<number>();
      const heard: string[] = [];
      const listen = (name: string) => () => {
        readings.subscribe((value) => heard.push(`${name} ${value}`));
      };
      await run(listen('first'), { leaks: 'allowed' });
      await readings.emit(1);
      await takeDown();
      await run(listen('second'), { leaks: 'allowed' });
      await readings.emit(2);
      expect(heard).toEqual(['first 1', 'second 2']);
      expect(readings.listeners).toBe(1);
    });
  });

  describe('two subjects at once', () => {
    const routes = (name: string) => ({ network: { 'GET /api/name': { name } } });

    it('are answered each by its own routes, also after an await and by a timer', async () => {
      const ask = async () => {
        await Promise.resolve();
        const first = await json('/api/name');
        await new Promise((resolve) => setTimeout(resolve, 5));
        return first + (await json('/api/name'));
      };
      const [one, two] = await Promise.all([run(ask, routes('one')), run(ask, routes('two'))]);
      await one.appears(text('{"name":"one"}{"name":"one"}'));
      await two.appears(text('{"name":"two"}{"name":"two"}'));
      await one.click(role('button', 'Run'));
      await sleep(50);
      expect([one.requests.length, two.requests.length]).toEqual([4, 2]);
    });

    it('have errors, logs and calls of their own', async () => {
      const save = spy();
      const { log } = console;
      console.log = () => undefined;
      const one = await run(() => {
        save('one');
        console.log('from one');
      });
      const two = await run(() => {
        throw new RangeError('from two');
      });
      console.log = log;
      expect(one.chronicle.of('logged').map(({ detail }) => detail)).toEqual(['from one']);
      expect(one.chronicle.of('called').length).toBe(1);
      expect([...two.chronicle.of('logged'), ...two.chronicle.of('called')]).toEqual([]);
      expect(two).toShow(text('caught: from two'));
    });

    it.each([
      ['first in, first out', [0, 1, 2]],
      ['last in, first out', [2, 1, 0]],
      ['in between', [1, 0, 2]],
    ])('are taken down %s, and leave nothing', async (_, order) => {
      const subjects: Any[] = [];
      for (const stub of [[Card], [Weight], []]) subjects.push(await isolate(Board, { ...loaded, stub }));
      for (const [time, at] of order.entries()) {
        await subjects[at].takeDown();
        for (const other of order.slice(time + 1)) await subjects[other].update({ yard: 'east' });
      }
      expect(document.body.children.length).toBe(0);
      const real = await isolate(Board, loaded);
      expect(real.container.querySelectorAll('[data-part]').length).toBe(0);
    });

    it('are taken down in parallel', async () => {
      const subjects = await Promise.all([
        isolate(Board, { ...loaded, stub: [Card] }),
        isolate(Board, loaded),
      ]);
      await Promise.all(subjects.map((subject) => subject.takeDown()));
      expect(document.body.children.length).toBe(0);
    });

    it('keep what they have where a third one fails', async () => {
      const board = await isolate(Board, { ...loaded, stub: [Card] });
      const feed = await isolate(kit.scaleFeed, {
        props: { hiveId: 'h1' },
        swap: [swap(scale, { readScale: { kilograms: 5 } })],
      });
      expect((await failureOf(() => isolate(Greeting))).code).toBe('SIM-PROVIDE-MISSING');
      expect((await failureOf(() => isolate(undefined))).code).toBe('SIM-COMPONENT-MISSING');
      await feed.update({ hiveId: 'h2' });
      expect(feed).toShow(text(/^5 kg/));
      await board.update({ yard: 'east' });
      expect(board).toShow(part(Card), { times: 3 });
    });
  });

  describe('what a subject is rendered into has no trace of another:', () => {
    const heard = spy();
    it.each<[string, (place: Element) => void]>([
      ['a listener', (place) => place.addEventListener('click', () => void heard())],
      ['an attribute', (place) => place.setAttribute('lang', 'nl')],
      ['a style', (place) => ((place as HTMLElement).style.display = 'none')],
      ['a text', (place) => place.append('left behind')],
      ['nothing', () => undefined],
    ])('%s', async (_, leave) => {
      const place = () => document.body.lastElementChild!;
      await run(() => leave(place()));
      await takeDown();
      const next = await run(
        () =>
          `${place()
            .getAttributeNames()
            .filter((name) => !/^data-v-/.test(name))} ${place().textContent}`,
      );
      expect(next).toShow(text('data-subject Run'));
      await next.click(role('button'));
      expect(heard.calls).toEqual([]);
    });
  });

  describe('an element that was on the page before', () => {
    const overlay = document.createElement('div');
    beforeEach(() => {
      overlay.innerHTML = '<p>Of the test</p>';
      document.body.append(overlay);
    });
    afterEach(() => overlay.remove());

    it.each(['the first subject', 'the next one'])(
      'has in it what %s puts there, and nothing else',
      async () => {
        const subject = await run(() => overlay.insertAdjacentHTML('beforeend', '<p>Frost tonight</p>'));
        expect(subject).toShow(role('paragraph', 'Frost tonight'), { times: 1 });
        expect(subject).not.toShow(text('Of the test'));
        overlay.lastElementChild!.innerHTML = 'No <b>frost</b>';
        expect(subject).toShow(text('frost'));
        expect(subject).toHaveShown(text('Frost tonight'));
        overlay.lastElementChild!.remove();
        expect(subject).not.toShow(text('frost'));
      },
    );
  });

  describe('a call of nobody', () => {
    it('is refused and reported, before and after a subject', async () => {
      await expect(fetch('/api/early')).rejects.toThrow('Failed to fetch');
      expect((await failureOf(takeDown)).message).toMatch(/GET \/api\/early was asked by fetch/);
      await takenDownBefore(() => void fetch('/api/late').catch(() => undefined));
      const next = await isolate(Board, { ...loaded, network: { [route]: hives, 'GET /api/late': {} } });
      await sleep(400);
      expect(next.requests.map(({ url }) => new URL(url).pathname)).toEqual(['/api/hives']);
      expect((await failureOf(takeDown)).message).toMatch(/GET \/api\/late[^]*Runner was taken down before/);
    });

    it('is no answer that comes after the take-down', async () => {
      const done = spy();
      const ask = () => json('/api/slow').then(done, done);
      await run(ask, { network: { 'GET /api/slow': later(200, {}) } });
      await takeDown();
      await sleep(300);
      expect(done.calls).toEqual([]);
    });
  });

  describe('no request leaves the machine', () => {
    let server: Server;
    let arrived: string[];
    let home: string;
    beforeAll(async () => {
      server = createServer((request, response) => {
        arrived.push(`${request.method} ${request.url}`);
        response.end('arrived');
      });
      server.on('connection', () => arrived.push('a connection'));
      await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
      home = `127.0.0.1:${(server.address() as AddressInfo).port}`;
    });
    beforeEach(() => void (arrived = []));
    afterAll(() => new Promise((resolve) => server.close(resolve)));

    const heard = (target: Any, ...types: string[]) =>
      new Promise<string>((resolve) => {
        for (const type of types) target.addEventListener(type, () => resolve(type));
      });
    const carriers: [string, (home: string) => unknown][] = [
      ['fetch', (at) => fetch(`http://${at}/hives`).catch((error: Error) => error.message)],
      [
        'XMLHttpRequest',
        (at) => {
          const request = new XMLHttpRequest();
          request.open('POST', `http://${at}/hives`);
          const over = heard(request, 'error', 'load');
          request.send('{}');
          return over;
        },
      ],
      ['WebSocket', (at) => heard(new WebSocket(`ws://${at}/live`), 'open', 'close')],
      ['EventSource', (at) => heard(new EventSource(`http://${at}/live`), 'open', 'error')],
      [
        'import()',
        () =>
          // @ts-expect-error -- nothing is declared for an address
          (import('https://brackenfold.example/scales.js') as Promise<unknown>).catch(String),
      ],
      ['navigator.sendBeacon', (at) => String(navigator.sendBeacon(`http://${at}/seen`, 'x'))],
    ];

    it('can be reached, or this would prove nothing', async () => {
      await new Promise<void>((resolve) => {
        const [host, port] = home.split(':');
        const socket = connect(Number(port), host, () => socket.end('GET / HTTP/1.0\r\n\r\n'));
        socket.resume().on('close', () => resolve());
      });
      expect(arrived).toEqual(['a connection', 'GET /']);
    });

    it.each(carriers)('by %s: before, during and after a subject', async (name, send) => {
      await Promise.race([send(home), sleep(50)]);
      expect((await failureOf(takeDown)).code).toBe('SIM-CALL-NOBODY');
      const outcome = await failureOf(async () => {
        await run(() => send(home));
        await takeDown();
      });
      expect(outcome.code).toBe(name === 'import()' ? 'SIM-CARRIER-REFUSED' : 'SIM-REQUEST-UNMATCHED');
      expect(outcome.message).toContain(name === 'import()' ? 'brackenfold.example' : home);
      if (name !== 'fetch') expect(outcome.message).toContain(name);
      await takenDownBefore(() => void send(home));
      await sleep(300);
      expect((await failureOf(takeDown)).code).toBe('SIM-CALL-NOBODY');
      expect(arrived).toEqual([]);
    });
  });
}
