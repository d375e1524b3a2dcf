import 'simulacra/jest';
import { fail, hold, role, spy, text, type NetworkAnswer } from 'simulacra';
import { isolate } from 'simulacra/react';
import { URLPattern } from 'urlpattern-polyfill/urlpattern';
import { compile, loadPatterns } from '../../src/network/patterns';

type Ask = () => Promise<unknown>;

/** A component that asks once a button is clicked, and shows what came of it. */
async function ask(network: Record<string, NetworkAnswer>, work: Ask) {
  let outcome: unknown;
  const Asker = () => (
    <button
      onClick={() =>
        void work().then(
          (value) => (outcome = value),
          (error: Error) => (outcome = `${error.name}: ${error.message}`),
        )
      }
    >
      Ask
    </button>
  );
  const subject = await isolate(Asker, { network: network as { 'GET /': NetworkAnswer } });
  await subject.click(role('button'));
  return { subject, outcome: () => outcome };
}

const json = (url: string, init?: RequestInit) =>
  fetch(url, init).then((response) => response.json() as Promise<unknown>);

describe('answers on the wire', () => {
  it.each<[string, NetworkAnswer, (response: Response) => unknown, unknown]>([
    ['a value as JSON', { id: 'h1' }, (r) => r.json(), { id: 'h1' }],
    ['null as JSON', null, (r) => r.json(), null],
    ['nothing as no content', undefined, (r) => r.status, 204],
    [
      'a Response',
      () => new Response('raw', { status: 201, headers: { 'x-yard': 'north' } }),
      async (r) => [r.status, r.headers.get('x-yard'), await r.text()],
      [201, 'north', 'raw'],
    ],
    [
      'a function of the parameters',
      (_: Request, { id }: Record<string, string>) => ({ id }),
      (r) => r.json(),
      { id: 'h1' },
    ],
    [
      'a failure with problem details',
      fail(422, { detail: 'no queen' }),
      async (r) => [r.ok, r.status, r.headers.get('content-type'), await r.json()],
      [
        false,
        422,
        'application/problem+json',
        { type: 'about:blank', title: 'Unprocessable Content', status: 422, detail: 'no queen' },
      ],
    ],
    ['a failure of a function', () => fail(503), (r) => r.statusText, 'Service Unavailable'],
    ['its URL', {}, (r) => r.url, 'http://localhost/api/hives/h1'],
  ])('sends %s', async (_, answer, read, expected) => {
    const { outcome } = await ask({ 'GET /api/hives/:id': answer }, async () =>
      read(await fetch('/api/hives/h1')),
    );
    expect(outcome()).toEqual(expected);
  });

  it('lets a body be read once, and one Response be sent twice', async () => {
    const twice = async () => {
      const response = await fetch('/api/once');
      await response.text();
      return [
        response.bodyUsed,
        await response.text().catch((error: Error) => error.name),
        await (await fetch('/api/once')).text(),
      ];
    };
    let sent: Response | undefined;
    const { outcome } = await ask({ 'GET /api/once': () => (sent ??= new Response('one')) }, twice);
    expect(outcome()).toEqual([true, 'TypeError', 'one']);
  });

  it('breaks the connection, and keeps the reason', async () => {
    const { outcome } = await ask({ 'GET /api/hives': fail() }, () => fetch('/api/hives'));
    expect(outcome()).toBe('TypeError: Failed to fetch');
  });

  it('hands a route the standard Request', async () => {
    const answer = spy(async (request: Request) => ({
      type: request.headers.get('content-type'),
      body: await request.text(),
      method: request.method,
    }));
    const form = new FormData();
    form.append('note', 'calm');
    const bodies: [RequestInit, object][] = [
      [
        { body: JSON.stringify({ varroa: 4 }), headers: { 'content-type': 'application/json' } },
        { type: 'application/json', body: '{"varroa":4}' },
      ],
      [
        { body: new URLSearchParams({ q: 'bor' }) },
        { type: 'application/x-www-form-urlencoded;charset=UTF-8', body: 'q=bor' },
      ],
      [
        { body: form },
        {
          type: expect.stringMatching(/^multipart\/form-data; boundary=/),
          body: expect.stringContaining('name="note"\r\n\r\ncalm'),
        },
      ],
    ];
    const { outcome, subject } = await ask({ 'POST /api/hives': answer }, () =>
      Promise.all(
        bodies.map(([init]) =>
          fetch(new Request('/api/hives', { ...init, method: 'POST' })).then(
            (r) => r.json() as Promise<unknown>,
          ),
        ),
      ),
    );
    await subject.atRest();
    expect(outcome()).toEqual(bodies.map(([, expected]) => ({ method: 'POST', ...expected })));
    expect(answer.calls.length).toBe(3);
  });

  it('aborts before, during and with a reason', async () => {
    const answer = hold();
    const before = AbortSignal.abort(new Error('never mind'));
    const during = new AbortController();
    const { outcome, subject } = await ask({ 'GET /api/hives': answer }, () => {
      setTimeout(() => during.abort(), 1);
      return Promise.all(
        [before, during.signal].map((signal) =>
          fetch('/api/hives', { signal }).catch((error: Error) => `${error.name}: ${error.message}`),
        ),
      );
    });
    await new Promise((resolve) => setTimeout(resolve, 5));
    await subject.atRest();
    expect(outcome()).toEqual(['Error: never mind', expect.stringMatching(/^AbortError/)]);
    expect(subject.chronicle.of('aborted').length).toBe(1);
  });

  it('remembers the body of a Request that was made before', async () => {
    const { subject } = await ask({ 'POST /api/hives': {} }, () =>
      fetch(new Request(new Request('/api/hives', { method: 'POST', body: '{"varroa":4}' }))),
    );
    expect(subject.requests[0]!.body).toEqual({ varroa: 4 });
  });

  it('remembers what was asked', async () => {
    const { subject } = await ask({ 'PUT /api/hives/:id': {} }, () =>
      json('/api/hives/h1?full=1', { method: 'PUT', body: '{"varroa":4}' }),
    );
    expect(subject.requests).toMatchObject([
      {
        method: 'PUT',
        url: 'http://localhost/api/hives/h1?full=1',
        route: 'PUT /api/hives/:id',
        params: { id: 'h1' },
        body: { varroa: 4 },
        status: 200,
      },
    ]);
  });
});

describe('routes', () => {
  it.each([
    ['the literal before the pattern', ['GET /api/hives/:id', 'GET /api/hives/queen'], '/api/hives/queen', 1],
    [
      'more query keys before fewer',
      ['GET /api/hives?yard=north', 'GET /api/hives'],
      '/api/hives?q=b&yard=north',
      0,
    ],
    [
      'a literal value before a pattern',
      ['GET /api/hives?yard=north', 'GET /api/hives?yard=:yard'],
      '/api/hives?yard=north',
      0,
    ],
    ['the later of two alike', ['GET /api/:a', 'GET /api/:b'], '/api/hives', 1],
    ['a wildcard over several segments', ['GET /api/*', 'GET /yards/*'], '/api/a/b/c', 0],
    ['an optional segment', ['GET /api/hives/:id?', 'GET /nothing'], '/api/hives', 0],
    [
      'another origin',
      ['GET /frames', 'GET https://photos.brackenfold.example/:name'],
      'https://photos.brackenfold.example/frames',
      1,
    ],
    ['an encoded value', ['GET /api/hives?q=:q', 'GET /api/hives?q=b%20c'], '/api/hives?q=b+c', 1],
  ])('prefers %s', async (_, routes, url, winner) => {
    const network = Object.fromEntries(routes.map((route, at) => [route, { at }]));
    const { outcome } = await ask(network, () => json(url));
    expect(outcome()).toEqual({ at: winner });
  });

  it.each([
    ['GET /api/hives?tag=a&tag=b', '/api/hives?tag=a&tag=b', true],
    ['GET /api/hives?tag=a&tag=b', '/api/hives?x=1&tag=b&tag=c&tag=a', true],
    ['GET /api/hives?tag=a&tag=b', '/api/hives?tag=a', false],
    ['GET /api/hives?tag=a&tag=a', '/api/hives?tag=a', false],
    ['GET /api/hives?q=', '/api/hives?q=', true],
  ])('%s and %s', async (route, url, fits) => {
    const { outcome } = await ask({ [route]: 'here', 'GET /api/*': 'elsewhere' }, () => json(url));
    expect(outcome()).toBe(fits ? 'here' : 'elsewhere');
  });

  it('mean to us what they mean to the standard', async () => {
    await loadPatterns();
    const patterns = [
      '/api/hives',
      '/api/:yard/hives/:id',
      '/api/a.b-c~d',
      '/',
      '/api/:id/',
      '/api//x',
      '/:a/:b_2',
    ];
    const paths = [
      ...patterns,
      '/api/north/hives/h1',
      '/api/h%201/',
      '/apixa',
      '/api/aXb-c~d',
      '/x/y',
      '/x/y/z',
      '/api/h1',
    ];
    for (const pattern of patterns) {
      const standard = new URLPattern({ pathname: pattern });
      const ours = compile(pattern);
      for (const path of paths) {
        const url = new URL(path, 'http://localhost');
        const found = standard.exec(url.href);
        const expected =
          found &&
          Object.fromEntries(
            Object.entries(found.pathname.groups).map(([name, value]) => [name, decodeURIComponent(value!)]),
          );
        expect([pattern, path, ours(url) ?? null]).toEqual([pattern, path, expected]);
      }
    }
  });

  it('answers each of two subjects by its own routes', async () => {
    const Yard = ({ yard }: { yard: string }) => (
      <button onClick={() => void json(`/api/${yard}`).then((name) => (document.title = String(name)))}>
        {yard}
      </button>
    );
    const north = await isolate(Yard, { props: { yard: 'hive' }, network: { 'GET /api/hive': 'Anemone' } });
    const east = await isolate(Yard, { props: { yard: 'hive' }, network: { 'GET /api/hive': 'Goldenrod' } });
    await north.click(role('button'));
    expect([document.title, north.requests.length, east.requests.length]).toEqual(['Anemone', 1, 0]);
    await east.click(text('hive'));
    expect(document.title).toBe('Goldenrod');
  });
});
