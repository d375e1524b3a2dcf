/** @jest-environment node */
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse } from 'yaml';
import { fromJsonSchema, fromOpenApi, fromSchema, open, type Routes } from 'simulacra';
import { fromHar } from 'simulacra/har';
import 'simulacra/jest';
import { hives } from '../../examples/shared/hive';
import { survives } from './survives';

const openapi = readFileSync(join(__dirname, '../../examples/shared/openapi.yaml'), 'utf8');
const schema =
  'type Query { hives(yard: String): [Hive!]! } type Hive { id: ID! name: String near: [Hive!]! }';

const dangerous = fc.constantFrom(
  '__proto__',
  'constructor',
  'prototype',
  'toString',
  'polluted',
  '$ref',
  '',
);
const key = fc.oneof(dangerous, fc.string());
const json = fc.oneof(
  fc.jsonValue(),
  fc.letrec((tie) => ({
    value: fc.oneof(
      { maxDepth: 4 },
      fc.constant(1),
      fc.constant(null),
      fc.constant('#/components/schemas/Hive'),
      tie('list'),
      tie('object'),
    ),
    list: fc.array(tie('value'), { maxLength: 3 }),
    object: fc.dictionary(key, tie('value'), { maxKeys: 4 }),
  })).value,
);

/** The same with one of its parts taken out or replaced. */
const mutated = (given: object) =>
  fc.tuple(fc.array(fc.nat(), { minLength: 1, maxLength: 8 }), fc.option(json)).map(([steps, value]) => {
    const copy = structuredClone(given) as Record<string, unknown>;
    let at = copy;
    for (const [step, turn] of steps.entries()) {
      const keys = Object.keys(at);
      if (keys.length === 0) break;
      const chosen = keys[turn % keys.length]!;
      const inside = at[chosen];
      if (step < steps.length - 1 && typeof inside === 'object' && inside !== null) at = inside as typeof at;
      else {
        if (value === null) Reflect.deleteProperty(at, chosen);
        else at[chosen] = value;
        break;
      }
    }
    return copy;
  });

// The same on every run; SEED=7 RUNS=5000 looks further.
const { SEED = '2031', RUNS } = process.env;
const check = async <T>(values: fc.Arbitrary<T>, survive: (value: T) => Promise<void>, numRuns = 80) =>
  fc.assert(fc.asyncProperty(values, survive), { seed: Number(SEED), numRuns: Number(RUNS ?? numRuns) });

describe('whatever is given, it answers or explains', () => {
  const part = fc.constantFrom(
    '/',
    ':',
    '*',
    '{',
    '}',
    '(',
    ')',
    '?',
    '=',
    '&',
    '\\',
    'a',
    '%',
    'é',
    'GET ',
    ' ',
    '+',
    '.',
  );
  const pattern = fc.array(part, { maxLength: 12 }).map((parts) => parts.join(''));
  it(
    'a route',
    () =>
      check(
        fc.oneof(
          fc.string(),
          pattern.map((text) => `GET /${text}`),
          key,
        ),
        (route) => survives({ [route]: hives }, '/a/b?a=b'),
      ),
    60_000,
  );

  it('an address', () =>
    check(
      fc.oneof(
        pattern,
        fc.webPath(),
        fc.webQueryParameters().map((query) => `/?${query}`),
      ),
      (path) =>
        survives(
          { 'GET /:a/:b?': hives, 'GET /*?a=:a': 1 },
          URL.canParse(path, 'http://localhost/') ? path : '/',
        ),
    ));

  it('a pattern that others backtrack over', () =>
    check(
      fc.integer({ min: 1, max: 400 }),
      (count) => survives({ 'GET /:a*/:b*/:c*/end': 1, 'GET /(a+)+': 1 }, `/${'a/'.repeat(count)}x`),
      20,
    ));

  it('headers and a body', () => {
    const header = fc.tuple(fc.string(), fc.string());
    const sent = fc.oneof(
      fc.string(),
      json.map((value) => JSON.stringify(value)),
      fc.uint8Array(),
    );
    const request = fc.record({ headers: fc.array(header, { maxLength: 4 }), body: sent });
    return check(request, async ({ headers, body }) => {
      const given = new Headers();
      for (const [name, value] of headers)
        try {
          given.append(name, value);
        } catch {
          // No page can send it.
        }
      const network = { 'ANY /api/*': fromOpenApi(openapi), 'POST /graphql': fromSchema(schema) };
      await survives(network, '/api/hives/h1/inspections', {
        method: 'POST',
        headers: given,
        body: body as BodyInit,
      });
      await survives(network, '/graphql', { method: 'POST', headers: given, body: body as BodyInit });
    });
  }, 60_000);

  it('an answer', () =>
    check(
      fc.anything({
        withDate: true,
        withMap: true,
        withBigInt: true,
        withTypedArray: true,
        withSparseArray: true,
      }),
      (answer) => survives({ 'GET /api/hives': answer, 'ANY /api/*': fromOpenApi(openapi) }),
    ));

  it(
    'a document',
    () =>
      check(
        fc.oneof(json, fc.string(), mutated(parse(openapi) as object)),
        (document) =>
          survives({ 'ANY /api/*': fromOpenApi(document as object), 'GET /api/hives': hives }).then(() =>
            survives({ 'ANY /api/*': fromOpenApi(document as object) }),
          ),
        250,
      ),
    120_000,
  );

  it(
    'a schema',
    () =>
      check(
        fc.oneof(
          json,
          mutated({
            type: 'object',
            required: ['a'],
            properties: { a: { type: 'string', format: 'date' }, b: { type: 'array', items: { $ref: '#' } } },
          }),
        ),
        async (given) => {
          if (typeof given !== 'object' || given === null) return;
          await survives({ 'GET /api/hives': fromJsonSchema(given) });
          await survives({ 'GET /api/hives': fromJsonSchema(given, hives) });
        },
      ),
    60_000,
  );

  it('an operation', () => {
    const word = fc.constantFrom(
      '{',
      '}',
      'query',
      'hives',
      'name',
      'near',
      '(',
      ')',
      'yard:',
      '"a"',
      '$a',
      '...',
      'on',
      'Hive',
      '@skip',
      '#',
      '\n',
      '!',
    );
    const text = fc.array(word, { maxLength: 14 }).map((words) => `query A { hives { ${words.join(' ')} } }`);
    return check(fc.oneof(text, fc.string()), (query) =>
      survives(
        { 'POST /graphql': fromSchema(schema), 'QUERY A': { hives: [{ name: 'Borage' }] } },
        '/graphql',
        { method: 'POST', body: JSON.stringify({ query }) },
      ),
    );
  }, 60_000);

  it('a language of schemas', () =>
    check(
      fc.oneof(
        json,
        fc.string().map((text) => `${schema} ${text}`),
      ),
      (given) =>
        survives({ 'POST /graphql': fromSchema(given as object) }, '/graphql', {
          method: 'POST',
          body: '{"query":"{ hives { id } }"}',
        }),
    ));

  it('a recorded session', () => {
    const response = {
      status: 200,
      headers: [{ name: 'a', value: 'b' }],
      content: { mimeType: 'application/json', text: '[1]', size: 3 },
    };
    const entry = (method: string) => ({
      time: 1,
      request: { method, url: 'http://localhost/api/hives', headers: [], postData: { text: '{"a":1}' } },
      response,
    });
    const session = { log: { version: '1.2', entries: [entry('GET'), entry('POST')] } };
    return check(
      fc.oneof(json, fc.string(), mutated(session)),
      async (har) => {
        let routes: object;
        try {
          routes = fromHar(har as object);
        } catch (error) {
          expect((error as { code?: string }).code ?? error).toBe('SIM-HAR');
          return;
        }
        await survives(routes);
        await survives(routes, '/api/hives', { method: 'POST', body: '{"a":1}' });
      },
      250,
    );
  }, 60_000);
});

it('one of many routes answers as it does among few', () => {
  const path = fc.array(fc.constantFrom('a', 'b', ':x', ':y', '*', ''), { minLength: 1, maxLength: 3 });
  const routes = fc.uniqueArray(
    path.map((parts) => `GET /${parts.join('/')}`),
    { minLength: 1, maxLength: 6 },
  );
  const asked = fc.array(fc.constantFrom('a', 'b', 'c', ''), { minLength: 1, maxLength: 3 });
  const others = Object.fromEntries(Array.from({ length: 40 }, (_, at) => [`GET /other/${at}`, at]));
  return check(fc.tuple(routes, asked), async ([keys, parts]) => {
    // A name may occur once.
    const wanted = keys.filter((route) => !/:(\w).*:\1/.test(route));
    const network = Object.fromEntries(
      wanted.map((route) => [route, (_: Request, params: object) => [route, params]]),
    );
    const answer = async (given: object) => {
      const bench = await open({ network: given as Routes });
      const got = await bench
        .run(() => fetch(`http://localhost/${parts.join('/')}`).then((response) => response.json()))
        .catch(() => 'none');
      await bench.takeDown().catch(() => undefined);
      return got as unknown;
    };
    expect(await answer({ ...network, ...others })).toEqual(await answer(network));
  });
});
