import 'simulacra/jest';
import { fail, fromSchema, later, open, stream, type Routes } from 'simulacra';
import { fromHar, toHar, type Har } from 'simulacra/har';
import { hives } from '../../examples/shared/hive';

const json = (value: unknown, more: object = {}) => ({
  status: 200,
  statusText: 'OK',
  headers: [
    { name: 'Content-Type', value: 'application/json' },
    { name: 'Content-Encoding', value: 'br' },
  ],
  content: { size: 9, mimeType: 'application/json', text: JSON.stringify(value) },
  ...more,
});
const entry = (route: string, response: object, body?: unknown, more: object = {}) => {
  const [method, url] = route.split(' ');
  const address = url!.startsWith('/') ? `https://brackenfold.example${url}` : url;
  return {
    startedDateTime: '2031-05-04T08:00:00.000Z',
    time: 40,
    request: {
      method,
      url: address,
      headers: [],
      ...(body !== undefined && { postData: { mimeType: 'application/json', text: JSON.stringify(body) } }),
    },
    response,
    ...more,
  };
};
const har = (...entries: object[]) => ({
  log: { version: '1.2', creator: { name: 'a browser', version: '1' }, entries },
});
const page = entry('GET /', { status: 200, content: { mimeType: 'text/html', text: '' } });

const ask = (network: Routes, ...asks: [route: string, body?: unknown][]) =>
  open({ network, time: 'virtual' }).then(async (bench) => {
    const answers: unknown[] = [];
    for (const [route, body] of asks) {
      const [method, url] = route.split(' ');
      const asking = bench.run(() =>
        fetch(url!, {
          method,
          ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
        }).then(
          async (response) => [response.status, await response.text()],
          (error: Error) => error.name,
        ),
      );
      await bench.time.advance('50ms');
      answers.push(await asking);
    }
    return answers;
  });

describe('a recorded session', () => {
  it('plays back as routes, in turn and by what is sent', async () => {
    const session = har(
      page,
      entry('GET /logo.svg', { status: 200, content: { mimeType: 'image/svg+xml', text: '<svg/>' } }),
      entry('GET /api/hives?yard=north', json(['Anemone'])),
      entry('GET /api/hives?yard=north', json(['Anemone', 'Borage'])),
      entry('POST /api/hives', json({ id: 'h9' }, { status: 201 }), { name: 'Dahlia', yard: 'north' }),
      entry('POST /api/hives', json({ title: 'no' }, { status: 422 }), { name: '' }),
      entry('DELETE /api/hives/h9', { status: 204, content: { size: 0, mimeType: 'x-unknown' } }),
      entry('GET https://weather.example/now', json('sunny')),
      entry('GET /api/gone', { status: 0 }),
      entry('GET /api/bytes', {
        status: 200,
        content: { mimeType: 'application/octet-stream', encoding: 'base64', text: 'YmVl' },
      }),
      entry('GET /odd/(a):b*?q=*', json('odd')),
    );
    const network = fromHar(session);
    expect(Object.keys(network)).toEqual([
      'GET /api/hives?yard=north',
      'POST /api/hives',
      'DELETE /api/hives/h9',
      'GET https://weather.example/now',
      'GET /api/gone',
      'GET /api/bytes',
      'GET /odd/\\(a\\)\\:b\\*?q=\\*',
    ]);
    expect(
      await ask(
        network,
        ['GET /api/hives?yard=north'],
        ['GET /api/hives?yard=north'],
        ['GET /api/hives?yard=north'],
        ['POST /api/hives', { yard: 'north', name: 'Dahlia' }],
        ['POST /api/hives', { name: '' }],
        ['DELETE /api/hives/h9'],
        ['GET https://weather.example/now'],
        ['GET /api/gone'],
        ['GET /api/bytes'],
        ['GET /odd/(a):b*?q=*'],
      ),
    ).toEqual([
      [200, '["Anemone"]'],
      [200, '["Anemone","Borage"]'],
      [200, '["Anemone","Borage"]'],
      [201, '{"id":"h9"}'],
      [422, '{"title":"no"}'],
      [204, ''],
      [200, '"sunny"'],
      'TypeError',
      [200, 'bee'],
      [200, '"odd"'],
    ]);
  });

  it('tells operations apart by their variables, takes its time where it is asked to, and reads text', async () => {
    const operation = (within: number) => ({
      operationName: 'InFlower',
      query: 'query InFlower($within: Int) { plants }',
      variables: { within },
    });
    const session = JSON.stringify(
      har(
        entry('POST /graphql', json({ data: { plants: 1 } }), operation(500)),
        entry('POST /graphql', json({ data: { plants: 3 } }), operation(3000)),
      ),
    );
    const other = { ...operation(3000), query: 'query InFlower($within: Int) { plants   }' };
    const network = fromHar(`\uFEFF${session}`, { origin: 'https://brackenfold.example', paced: true });
    expect(await ask(network, ['POST /graphql', other])).toEqual([[200, '{"data":{"plants":3}}']]);
    const bench = await open({ network, time: 'virtual' });
    let came = false;
    const asking = bench.run(() =>
      fetch('/graphql', { method: 'POST', body: JSON.stringify(other) }).then(() => (came = true)),
    );
    await bench.time.advance('39ms');
    expect(came).toBe(false);
    await bench.time.advance('2ms');
    expect(await asking).toBe(true);
  });

  it.each([
    ['with another body', ['POST /api/hives', '{"name":"Dalia"}'], 'SIM-HAR-BODY', '{"name":"Dahlia"}'],
    [
      'whose content was not recorded',
      ['GET /api/empty'],
      'SIM-HAR-CONTENT',
      'log.entries[1].response.content',
    ],
  ] as const)('fails the test for a request %s', async (_, asked, code, told) => {
    const session = har(
      entry('POST /api/hives', json({}), { name: 'Dahlia' }),
      entry('GET /api/empty', { status: 200, content: { size: 12, mimeType: 'application/json' } }),
    );
    const bench = await open({ network: fromHar(session) });
    const [route, body] = asked as readonly string[];
    const [method, url] = route!.split(' ');
    const asking = bench.run(() => fetch(url!, { method, ...(body && { body }) }).catch(() => 0));
    const failure = await asking.then(
      () => undefined,
      (error: Error) => error,
    );
    expect(failure?.message).toContain(code);
    expect(failure?.message).toContain(told);
  });

  it.each<[string, unknown, string, string]>([
    ['text that is no JSON', 'buzz', 'it is no JSON', ''],
    ['a number', 7, 'it has no log', 'log'],
    ['a list', [], 'it has no log', 'log'],
    ['an object of another kind', { openapi: '3.1.0' }, 'it has no log', 'log'],
    ['a log without a version', { log: { entries: [] } }, 'its version is undefined', 'log.version'],
    [
      'a version from elsewhere',
      { log: { version: '2.0', entries: [] } },
      'its version is "2.0"',
      'log.version',
    ],
    ['a log without entries', { log: { version: '1.2' } }, 'it has no entries', 'log.entries'],
    ['entries that are none', har(7 as never), 'an entry has no request', 'log.entries[0].request'],
    [
      'a request without a method',
      har(page, { request: { url: 'https://a.example/' } }),
      'a request has no method',
      'log.entries[1].request.method',
    ],
    [
      'an address that is none',
      har({ request: { method: 'GET', url: '/api' } }),
      '"/api" is no address',
      'log.entries[0].request.url',
    ],
    [
      'an entry without a response',
      har({ request: { method: 'GET', url: 'https://a.example/' } }),
      'an entry has no response',
      'log.entries[0].response',
    ],
    [
      'a response without a status',
      har({ request: { method: 'GET', url: 'https://a.example/' }, response: {} }),
      'a response has no status',
      'log.entries[0].response.status',
    ],
  ])('is refused where it is %s', (_, given, why, at) => {
    expect(() => fromHar(given as object)).toThrow(
      expect.objectContaining({
        code: 'SIM-HAR',
        fields: { why: expect.stringContaining(why) as string, at },
      }) as Error,
    );
  });
});

describe('what a subject did, written as a session', () => {
  it('has every request with its answer, and plays back the same', async () => {
    const answers = stream<string>();
    const bench = await open({
      network: {
        'GET /api/hives': hives,
        'POST /api/hives': Response.json({ id: 'h9' }, { status: 201, headers: { 'x-count': '1' } }),
        'GET /api/down': fail(503),
        'GET /api/photo': new Blob([new Uint8Array([1, 2, 255])], { type: 'image/png' }),
        'GET /api/log': answers,
        'GET /api/broken': fail(),
        'POST /graphql': fromSchema('type Query { hives(yard: String): [String!]! }'),
      },
    });
    const post = { method: 'POST', headers: { 'content-type': 'application/json' } };
    await bench.run(async () => {
      await fetch('/api/hives?yard=north').then((response) => response.text());
      await fetch('/api/hives', { ...post, body: JSON.stringify({ name: 'Dahlia' }) });
      await fetch('/api/down');
      await fetch('/api/photo').then((response) => response.arrayBuffer());
      await fetch('/api/log');
      await fetch('/api/broken').catch(() => undefined);
      const operation = {
        operationName: 'Hives',
        query: 'query Hives($yard: String) { hives(yard: $yard) }',
        variables: { yard: 'north' },
      };
      await fetch('/graphql', { ...post, body: JSON.stringify(operation) });
    });
    const session = await toHar(bench.requests);
    await answers.end();
    expect(session.log.version).toBe('1.2');
    const told = session.log.entries.map(
      ({ request, response }) => `${request.method} ${request.url} ${response.status}`,
    );
    expect(told).toEqual([
      'GET http://localhost/api/hives?yard=north 200',
      'POST http://localhost/api/hives 201',
      'GET http://localhost/api/down 503',
      'GET http://localhost/api/photo 200',
      'GET http://localhost/api/log 200',
      'POST http://localhost/graphql 200',
    ]);
    const [listed, posted, , photo, log, operation] = session.log.entries;
    expect(JSON.parse(listed!.response.content.text!)).toEqual(hives);
    expect(listed!.request.queryString).toEqual([{ name: 'yard', value: 'north' }]);
    expect(posted!.request.postData).toEqual({ mimeType: 'application/json', text: '{"name":"Dahlia"}' });
    expect(posted!.response.headers).toContainEqual({ name: 'x-count', value: '1' });
    expect(photo!.response.content).toEqual({
      size: 3,
      mimeType: 'image/png',
      text: 'AQL/',
      encoding: 'base64',
    });
    expect(log!.response.content.text).toBeUndefined();
    expect(Number.isNaN(Date.parse(listed!.startedDateTime))).toBe(false);
    expect(JSON.parse(operation!.request.postData!.text!)).toMatchObject({
      operationName: 'Hives',
      variables: { yard: 'north' },
    });
    const again = await ask(
      fromHar(JSON.parse(JSON.stringify(session)) as Har),
      ['GET /api/hives?yard=north'],
      ['POST /api/hives', '{"name":"Dahlia"}'],
      ['GET /api/down'],
      ['POST /graphql', operation!.request.postData!.text],
    );
    expect(again.map((one) => (one as [number])[0])).toEqual([200, 201, 503, 200]);
    expect((again[3] as [number, string])[1]).toBe('{"data":{"hives":["Hives 1","Hives 2"]}}');
  });

  it('leaves out what is not answered yet', async () => {
    const bench = await open({ network: { 'GET /api/hives': later(100, []) }, time: 'virtual' });
    const asking = bench.run(() => fetch('/api/hives'));
    await bench.time.advance('50ms');
    expect((await toHar(bench.requests)).log.entries).toEqual([]);
    await bench.time.advance('50ms');
    await asking;
    expect((await toHar(bench.requests)).log.entries).toMatchObject([{ time: 100 }]);
  });
});
