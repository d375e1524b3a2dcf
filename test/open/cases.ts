import 'simulacra/jest';
import type { SimulacraError } from 'simulacra';
import { pollScale } from './scale-service';
import { channel, fail, hold, later, open, record, stream, takeDown, type OpenOptions } from 'simulacra';

const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
/** A client as a keeper's service has it: it asks again twice, after one second and after two. */
async function loadHive(id: string, tries = 3): Promise<string> {
  const response = await fetch(`http://yard.example/api/hives/${id}`);
  if (response.ok) return ((await response.json()) as { name: string }).name;
  if (tries === 1) throw new Error(`The backend answered ${response.status}`);
  await wait(1000 * (4 - tries));
  return loadHive(id, tries - 1);
}
const route = 'GET /api/hives/:hiveId';
const failureOf = async (work: () => unknown): Promise<SimulacraError> => {
  try {
    await work();
  } catch (error) {
    return error as SimulacraError;
  }
  throw new Error('nothing was thrown');
};

/** What `open` gives to code that renders nothing, in a page and in Node alike. */
export function opened(): void {
  it('answers requests, and tells of them', async () => {
    const bench = await open({ network: { [route]: { name: 'Anemone' } } });
    expect(await bench.run(() => loadHive('h1'))).toBe('Anemone');
    // What the test calls by itself belongs to the bench as well.
    expect(await loadHive('h2')).toBe('Anemone');
    expect(bench.requests.map(({ params, status }) => [params['hiveId'], status])).toEqual([
      ['h1', 200],
      ['h2', 200],
    ]);
    expect(bench.chronicle.of('asked')).toHaveLength(2);
    bench.everyRouteAsked();
  });

  it('shows the headers of another origin, and cookies, as a page or Node sees them', async () => {
    const headers = { 'x-total': '3', 'content-type': 'text/plain', 'set-cookie': 'yard=north' };
    const answer = () => new Response('x', { headers });
    const exposed = () =>
      new Response('x', { headers: { ...headers, 'access-control-expose-headers': 'X-Total' } });
    const bench = await open({
      network: { 'GET https://far.example/a': answer, 'GET https://far.example/b': exposed },
    });
    const seen = async (path: string) => {
      const response = await bench.run(() => fetch(`https://far.example${path}`));
      return ['x-total', 'content-type', 'set-cookie'].map((name) => response.headers.get(name));
    };
    const isPage = typeof document !== 'undefined';
    expect(await seen('/a')).toEqual(isPage ? [null, 'text/plain', null] : ['3', 'text/plain', 'yard=north']);
    expect(await seen('/b')).toEqual(isPage ? ['3', 'text/plain', null] : ['3', 'text/plain', 'yard=north']);
  });

  it('answers sockets and event streams', async () => {
    const scales = channel<string>();
    const alerts = channel<string>();
    const bench = await open({ network: { 'WS /live/scales': scales, 'GET /live/alerts': alerts } });
    const heard: unknown[] = [];
    const [socket, source] = await bench.run(() => [
      new WebSocket('/live/scales'),
      new EventSource('/live/alerts'),
    ]);
    socket.onmessage = source.onmessage = ({ data }: MessageEvent) => heard.push(data);
    await scales.send('31.2');
    await alerts.send('swarm');
    expect(heard).toEqual(['31.2', 'swarm']);
    socket.close();
    source.close();
  });

  it('moves its time: a retry with back-off takes no real time', async () => {
    const bench = await open({ network: { [route]: fail(503) }, time: { startsAt: '2031-05-04T08:00Z' } });
    const loading = bench.run(() => loadHive('h1')).catch((error: Error) => error.message);
    await bench.time.advance('999ms');
    expect(bench.requests).toHaveLength(1);
    await bench.time.advance(1);
    expect(bench.requests).toHaveLength(2);
    expect(bench.time.due).toMatchObject([{ kind: 'timeout', in: 2000 }]);
    await bench.time.runOut();
    expect(await loading).toBe('The backend answered 503');
    expect(new Date().toISOString()).toBe('2031-05-04T08:00:03.000Z');
  });

  it('answers at the very moment that was asked for, whenever it was asked', async () => {
    const bench = await open({ network: { [route]: later(4000, { name: 'Clover' }) }, time: 'virtual' });
    const asking: Promise<string>[] = [];
    for (let turn = 0; turn < 30; turn++) {
      asking.push(bench.run(() => loadHive('h3')));
      await bench.time.advance(0.1);
    }
    await bench.time.advance(3997.05);
    await expect(asking[0]).resolves.toBe('Clover');
    await bench.time.advance(2.9);
    expect(await Promise.all(asking)).toHaveLength(30);
    expect(bench.time.due).toEqual([]);
  });

  it('waits for a check, and gives up when nothing can change any more', async () => {
    const log: string[] = [];
    const bench = await open({ network: { [route]: later(30, { name: 'Clover' }) } });
    void loadHive('h3').then((name) => log.push(name));
    await bench.eventually(() => log.length === 1);
    expect(log).toEqual(['Clover']);
    const failure = await failureOf(() => bench.eventually(() => log.length === 2));
    expect(failure.code).toBe('SIM-WAIT-CHECK');
  });

  it('keeps answers held, and records what is emitted', async () => {
    const answer = hold<{ name: string }>();
    const bench = await open({ network: { [route]: answer }, time: 'virtual' });
    const readings = stream<number>();
    const recording = record(readings);
    const loading = bench.run(() => loadHive('h1'));
    await bench.time.advance('1s');
    await readings.emit(31.2);
    await answer.release({ name: 'Borage' });
    expect(await loading).toBe('Borage');
    expect(String(recording)).toBe('1s 31.2');
  });

  it.each<[string, OpenOptions, () => unknown, string]>([
    ['a log that nobody expects', {}, () => console.error('The smoker is out'), 'SIM-LOG-UNEXPECTED'],
    ['a log that does not come', { logs: [/smoker/] }, () => undefined, 'SIM-LOG-MISSED'],
    [
      'a request that no route answers',
      { network: { 'POST /api/hives': [] } },
      () => loadHive('h1').catch(() => undefined),
      'SIM-REQUEST-UNMATCHED',
    ],
  ])('fails the test for %s', async (_, options, work, code) => {
    const bench = await open(options);
    await bench.run(work as () => void);
    expect((await failureOf(takeDown)).code).toBe(code);
  });

  it('passes with the logs that are expected', async () => {
    const bench = await open({ logs: ['smoker'] });
    await bench.run(() => console.warn('The smoker is out'));
    await takeDown();
  });

  it.each<[string, object, string]>([
    ['an option of what renders', { props: {} }, 'SIM-OPTION-UNKNOWN'],
    ['an option that is misspelt', { netwrok: {} }, 'SIM-OPTION-UNKNOWN'],
    ['a time that cannot be read', { time: { startsAt: 'noon' } }, 'SIM-TIME-DATE'],
  ])('refuses %s, and puts nothing in place', async (_, options, code) => {
    const { setTimeout: before } = globalThis;
    expect((await failureOf(() => open(options))).code).toBe(code);
    expect(globalThis.setTimeout).toBe(before);
    const bench = await open();
    expect(Math.abs(bench.time.now.getTime() - Date.now())).toBeLessThan(1000);
  });

  it.each<[string, () => unknown, RegExp]>([
    ['a timer', () => pollScale(() => undefined), /left setInterval 4000 ms \(scale-service\.ts:\d+\)/],
    [
      'what a module opens when it is loaded',
      () => import('./opening'),
      /left setInterval 4000 ms \(opening\.ts:\d+\)/,
    ],
  ])('fails where something is left behind: %s', async (_, leave, said) => {
    const bench = await open({ time: 'virtual' });
    await bench.run(leave);
    const failure = await failureOf(takeDown);
    expect([failure.code, failure.message.replace(/\s+/g, ' ')]).toEqual([
      'SIM-LEFT-BEHIND',
      expect.stringMatching(said),
    ]);
  });

  it('is over when it is taken down', async () => {
    const bench = await open({ network: { [route]: { name: 'Anemone' } } });
    await bench.takeDown();
    expect((await failureOf(() => bench.run(() => 1))).code).toBe('SIM-SUBJECT-GONE');
    expect(bench.chronicle.entries.length).toBe(0);
  });
}
