import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fail, fromOpenApi, open, type Bench, type SimulacraError } from 'simulacra';
import 'simulacra/jest';
import { hives } from '../../examples/shared/hive';
import { drifts, renamed, right } from './drifts';

const text = readFileSync(join(__dirname, '../../examples/shared/openapi.yaml'), 'utf8');
const [anemone] = hives as [(typeof hives)[0]];

const ask = async (bench: Bench, path: string, init?: RequestInit): Promise<readonly [number, unknown]> => {
  const response = await bench.run(() => fetch(path, init));
  const body = await response.text();
  return [response.status, body && (JSON.parse(body) as unknown)];
};
const answered = async (path: string, document: string | object = text, init?: RequestInit) => {
  const bench = await open({ network: { 'ANY /api/*': fromOpenApi(document) } });
  const answer = await ask(bench, path, init);
  await bench.takeDown();
  return answer;
};
/** What the test is told; undefined where nothing is wrong. */
const problemOf = async (
  network: object,
  path = '/api/hives',
  init?: RequestInit,
  document: string | object = text,
): Promise<SimulacraError | undefined> => {
  try {
    const bench = await open({ network: { 'ANY /api/*': fromOpenApi(document), ...network } });
    await bench.run(() =>
      fetch(path, init).then(
        (response) => response.text(),
        () => undefined,
      ),
    );
    await bench.takeDown();
    return undefined;
  } catch (error) {
    return error as SimulacraError;
  }
};
const post = (body: unknown, type = 'application/json'): RequestInit => ({
  method: 'POST',
  body: JSON.stringify(body),
  headers: { 'content-type': type },
});

describe('a document answers', () => {
  it('with values that fit, the same each time', async () => {
    const [status, body] = await answered('/api/hives?yard=north');
    expect(status).toBe(200);
    expect(body).toMatchObject([
      { id: 'h1', name: 'Hive 1', queen: { year: expect.any(Number) as number } },
      { name: 'Hive 2', lastInspection: expect.stringMatching(/^2031-\d\d-\d\d$/) as string },
    ]);
    expect(await answered('/api/hives?yard=north')).toEqual([status, body]);
  });

  it('with its examples, with no content, and by each method', async () => {
    expect(await answered('/api/photos', text, { method: 'POST' })).toEqual([201, { url: '/api/photos/p1' }]);
    expect(await answered('/api/hives/h1/inspections', text, post({ varroa: 2 }))).toEqual([201, '']);
    expect(await answered('/api/hives/h7')).toMatchObject([200, { id: 'h7' }]);
  });

  it('what the test says first, and that fits', async () => {
    const network = {
      'GET /api/hives': hives,
      'GET /api/hives/:hiveId': fail(404),
      'POST /api/hives/:hiveId/inspections': fail(422, { detail: 'x' }),
    };
    const bench = await open({ network: { ...network, 'ANY /api/*': fromOpenApi(text) } });
    expect(await ask(bench, '/api/hives')).toEqual([200, hives]);
    expect(await ask(bench, '/api/hives/h1')).toMatchObject([404, { status: 404 }]);
    expect(await ask(bench, '/api/hives/h1/inspections', post({ varroa: 2 }))).toMatchObject([
      422,
      { detail: 'x' },
    ]);
  });

  it('of very many paths as fast as of few, and reads what it needs', async () => {
    const paths = Object.fromEntries(
      Array.from({ length: 5000 }, (_, at) => [
        `/things/${at}/{id}`,
        {
          get: {
            responses: {
              200: { content: { 'application/json': { schema: { $ref: '#/components/schemas/Lost' } } } },
            },
          },
        },
      ]),
    );
    const hive = {
      get: {
        responses: { 200: { content: { 'application/json': { schema: { type: 'string', const: 'x' } } } } },
      },
    };
    const document = { openapi: '3.0.3', paths: { ...paths, '/api/one': hive } };
    expect(await answered('/api/one', document)).toEqual([200, 'x']);
  });

  it('a schema that contains itself', async () => {
    const Node = {
      type: 'object',
      properties: {
        name: { type: 'string' },
        next: { $ref: '#/components/schemas/Node' },
        all: { type: 'array', items: { $ref: '#/components/schemas/Node' } },
      },
    };
    const content = { 'application/json': { schema: { $ref: '#/components/schemas/Node' } } };
    const document = {
      openapi: '3.1.0',
      paths: { '/api/a': { get: { responses: { 200: { content } } } } },
      components: { schemas: { Node } },
    };
    expect(await answered('/api/a', document)).toMatchObject([
      200,
      { name: 'Node 1', next: { name: 'Node 1' } },
    ]);
  });
});

describe('a double that has drifted is told', () => {
  it.each(drifts)('%s', async (_, change, path) => {
    const list = hives.map((hive, at) => (at === 1 ? change({ ...hive }) : hive));
    const failure = await problemOf({ 'GET /api/hives': list });
    expect(failure?.code).toBe('SIM-CONTRACT-DRIFT');
    const told = (failure?.fields as { drifts: { path: string }[] }).drifts.map((drift) => drift.path);
    expect(told).toContain(path);
  });

  it.each<[string, object, string | undefined, RegExp]>([
    ['a status', { 'GET /api/hives': fail(404) }, undefined, /the status: 404 is not promised \(200, 503\)/],
    [
      'another success',
      { 'GET /api/hives': () => new Response('[]', { status: 206 }) },
      undefined,
      /206 is not promised/,
    ],
    [
      'a content type',
      { 'GET /api/hives': () => new Response('[]', { headers: { 'content-type': 'text/html' } }) },
      undefined,
      /text\/html is not promised \(application\/json\)/,
    ],
    [
      'a body that is no JSON',
      { 'GET /api/hives': () => new Response('[', { headers: { 'content-type': 'application/json' } }) },
      undefined,
      /the body: it is no JSON/,
    ],
    ['a body that is missing', { 'GET /api/hives': undefined }, undefined, /204 is not promised/],
    ['an object for a list', { 'GET /api/hives': anemone }, undefined, /must be array/],
    ['a list for an object', { 'GET /api/hives/:id': [anemone] }, '/api/hives/h1', /must be object/],
    [
      'an address that there is not',
      { 'GET /api/hive/:id': anemone },
      '/api/hive/h1',
      /no operation for GET \/api\/hive\/h1/,
    ],
  ])('%s', async (_, network, path, words) => {
    const failure = await problemOf(network, path);
    expect(failure?.message.replace(/\s+/g, ' ')).toMatch(words);
  });

  it('with the nearest, by path and difference', async () => {
    const failure = await problemOf(
      { 'GET /api/hives/:id': renamed('weight', 'wieght')({ ...anemone }) },
      '/api/hives/h1',
    );
    expect(failure?.message.replace(/\s+/g, ' ')).toMatch(
      /The answer of GET \/api\/hives\/:id is not what its contract promises, at "weight" and "wieght"\. weight: it is missing.*Did you mean wieght/,
    );
  });
});

describe('a double that fits is let be', () => {
  it.each(right)('%s', async (_, change) => {
    const list = hives.map((hive, at) => (at === 1 ? change({ ...hive }) : hive));
    expect(await problemOf({ 'GET /api/hives': list })).toBeUndefined();
    expect(
      await problemOf({ 'GET /api/hives/:hiveId': change({ ...anemone }) }, '/api/hives/h1'),
    ).toBeUndefined();
  });

  it('a server that is out of order, and one that cannot be reached', async () => {
    for (const answer of [fail(503), fail(500), fail()])
      expect(await problemOf({ 'GET /api/hives': answer })).toBeUndefined();
  });
});

describe('what is sent is checked', () => {
  it.each<[string, string, RequestInit | undefined, RegExp]>([
    [
      'a query',
      '/api/hives?yard=west',
      undefined,
      /the query parameter "yard": "west" must be equal to one of the allowed values \(north, east, south\)/,
    ],
    ['a path', '/api/hives/x1', undefined, /the path parameter "hiveId": "x1" must match pattern/],
    ['a body', '/api/hives/h1/inspections', post({ varroa: 200 }), /varroa: 200 must be <= 100/],
    [
      'a body that lacks a field',
      '/api/hives/h1/inspections',
      post({ note: 'calm' }),
      /varroa: it is missing/,
    ],
    ['a body that is missing', '/api/hives/h1/inspections', { method: 'POST' }, /the body: it is missing/],
    [
      'a content type',
      '/api/hives/h1/inspections',
      post({ varroa: 2 }, 'text/csv'),
      /text\/csv is not taken \(application\/json\)/,
    ],
  ])('%s', async (_, path, init, words) => {
    const failure = await problemOf({}, path, init);
    expect(failure?.code).toBe('SIM-CONTRACT-REQUEST');
    expect(failure?.message.replace(/\s+/g, ' ')).toMatch(words);
  });
});

describe('a document that cannot be used is told', () => {
  const pathsOf = (schema: object) => ({
    '/api/hives': { get: { responses: { 200: { content: { 'application/json': { schema } } } } } },
  });
  it.each<[string, string | object, RegExp]>([
    ['what is none', { hello: 1 }, /it has no field "openapi"/],
    ['an older version', { openapi: '2.0', paths: {} }, /its version is 2\.0/],
    ['no paths', { openapi: '3.1.0' }, /it has no paths/],
    ['neither JSON nor YAML', '{ "openapi": ', /it is neither JSON nor YAML/],
    [
      'YAML that grows',
      `a: &a [x, x]\nb: &b [*a, *a]\n${'cdefghijkl'
        .split('')
        .map((name, at) => `${name}: &${name} [${`*${'bcdefghijk'[at]}, `.repeat(9)}x]`)
        .join('\n')}`,
      /neither JSON nor YAML|no field/,
    ],
    [
      'a reference that leads nowhere',
      { openapi: '3.1.0', paths: pathsOf({ $ref: '#/components/schemas/Hive' }) },
      /leads nowhere.*#\/components\/schemas\/Hive/,
    ],
    [
      'a reference to itself',
      {
        openapi: '3.1.0',
        paths: pathsOf({ $ref: '#/components/schemas/A' }),
        components: { schemas: { A: { $ref: '#/components/schemas/A' } } },
      },
      /leads in a circle/,
    ],
  ])('%s', async (_, document, words) => {
    const failure = await problemOf({}, '/api/hives', undefined, document);
    expect(failure?.code).toBe('SIM-CONTRACT-DOCUMENT');
    expect(failure?.message.replace(/\s+/g, ' ')).toMatch(words);
  });
});
