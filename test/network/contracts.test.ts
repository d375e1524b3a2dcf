import { fromJsonSchema, fromSchema, open, type Routes, type SimulacraError } from 'simulacra';
import 'simulacra/jest';
import { parse } from 'yaml';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { hives } from '../../examples/shared/hive';
import { drifts, right } from './drifts';

const shared = (name: string) => readFileSync(join(__dirname, '../../examples/shared', name), 'utf8');
const { components } = parse(shared('openapi.yaml')) as { components: { schemas: { Hive: object } } };
const { Hive } = components.schemas;
const jsonSchema = { type: 'array', items: { $ref: '#/$defs/Hive' }, $defs: { Hive } };

const query = `query Hives { hives { id yard name colour brood stores weight varroa lastInspection tasks queen { year marked } } }`;
const schema = `
  type Query { hives: [Hive!]! }
  enum Yard { north east south }
  type Queen { year: Int! marked: Boolean! }
  scalar Date @specifiedBy(url: "https://www.rfc-editor.org/rfc/rfc3339")
  type Hive {
    id: ID! yard: Yard! name: String! colour: String! queen: Queen! brood: Int! stores: Int! weight: Float!
    varroa: Float! lastInspection: Date tasks: [String!]!
  }`;

/** What the test is told of a request; undefined where nothing is wrong. */
async function problemOf(
  network: Routes,
  path: string,
  init?: RequestInit,
): Promise<SimulacraError | undefined> {
  const bench = await open({ network });
  const asking = bench.run(() =>
    fetch(path, init).then(
      (response) => response.text(),
      () => '',
    ),
  );
  try {
    await asking;
    await bench.takeDown();
    return undefined;
  } catch (error) {
    await bench.takeDown().catch(() => undefined);
    return error as SimulacraError;
  }
}
const changed = (change: (hive: Record<string, unknown>) => unknown) =>
  hives.map((hive, at) => (at === 1 ? change({ ...hive }) : hive));
const pathsOf = (failure: SimulacraError | undefined) => {
  const { drifts: found = [], lacking = [] } = (failure?.fields ?? {}) as {
    drifts?: { path: string }[];
    lacking?: string[];
  };
  return [...found.map(({ path }) => path), ...lacking];
};

describe('a double that has drifted from a JSON Schema is told', () => {
  const told = (value: unknown) =>
    problemOf({ 'GET /api/hives': fromJsonSchema(jsonSchema, value) }, '/api/hives');

  it.each(drifts)('%s', async (_, change, path) => {
    const failure = await told(changed(change));
    expect(failure?.code).toBe('SIM-CONTRACT-DRIFT');
    expect(pathsOf(failure)).toContain(path);
  });
  it.each(right)('and one that has not, is not: %s', async (_, change) => {
    expect(await told(changed(change))).toBeUndefined();
  });
});

describe('a double that has drifted from a schema of GraphQL is told', () => {
  const post = { method: 'POST', body: JSON.stringify({ query }) };
  const bySchema = (value: unknown) =>
    problemOf({ 'POST /graphql': fromSchema(schema), 'QUERY Hives': { hives: value } }, '/graphql', post);
  // Without a schema every selected field has to be there; with one, what is missing is made up.
  const bySelection = (value: unknown) => problemOf({ 'QUERY Hives': { hives: value } }, '/graphql', post);
  const unknownToGraphQL = /below the least|an empty text|an id of another form|a moment for a date/;
  const own: typeof drifts = [
    ['true for a text', (hive) => ({ ...hive, name: true }), '[1].name'],
    ['true for a number', (hive) => ({ ...hive, brood: true }), '[1].brood'],
    ['a number for true', (hive) => ({ ...hive, queen: { year: 2025, marked: 1 } }), '[1].queen.marked'],
    ['a text in digits for a fraction', (hive) => ({ ...hive, varroa: '2' }), '[1].varroa'],
    ['null in a list', (hive) => ({ ...hive, tasks: [null] }), '[1].tasks[0]'],
    ['an id that is an object', (hive) => ({ ...hive, id: { value: 'h1' } }), '[1].id'],
    [
      'an unknown field inside',
      (hive) => ({ ...hive, queen: { year: 2025, marked: true, age: 1 } }),
      '[1].queen.age',
    ],
  ];
  const table = [...drifts.filter(([what]) => !unknownToGraphQL.test(what)), ...own];

  it('in at least fifty ways', () => expect(table.length).toBeGreaterThanOrEqual(50));
  it.each(table)('%s', async (_, change, path) => {
    const found = [
      ...pathsOf(await bySchema(changed(change))),
      ...pathsOf(await bySelection(changed(change))),
    ];
    expect(found).toContain(`hives${path}`);
  });
  it.each(right)('and one that has not, is not: %s', async (_, change) => {
    expect(await bySchema(changed(change))).toBeUndefined();
    expect(await bySelection(changed(change))).toBeUndefined();
  });
});

describe('a JSON Schema', () => {
  const answered = async (given: object, answer?: unknown) => {
    const bench = await open({ network: { 'GET /api/hives/:hiveId': fromJsonSchema(given, answer) } });
    const response = await bench.run(() => fetch('/api/hives/h1'));
    return response.json() as Promise<unknown>;
  };

  it('answers with a value that fits it, the same each time', async () => {
    const made = await answered(jsonSchema);
    expect(made).toMatchObject([
      { id: 'h1', name: 'Hive 1' },
      { id: 'h2', name: 'Hive 2' },
    ]);
    expect(await answered(jsonSchema)).toEqual(made);
    expect(
      await problemOf({ 'GET /api/hives': fromJsonSchema(jsonSchema, made) }, '/api/hives'),
    ).toBeUndefined();
  });

  it.each([
    ['^h\\d+$', 'h1', 'h2'],
    ['^[A-Z]{3}-\\d{4}$', 'AAA-0001', 'AAA-0002'],
    ['^(north|east|south)$', 'north', 'north'],
    ['^\\+\\d{1,3} \\d+$', '+1 1', '+2 2'],
    ['^(?:a|b)?[^a]{2}x*$', 'AA', 'AA'],
    ['^#(?:[0-9a-f]{3}){1,2}$', '#aaa', '#aaa'],
    ['[.]png$', '.png', '.png'],
    ['^v(?<major>\\d+)\\.\\d+\\.\\d+$', 'v1.1.1', 'v2.2.2'],
  ])('makes a text that matches %s', async (pattern, first, second) => {
    const list = { type: 'array', items: { type: 'string', pattern } };
    expect(await answered(list)).toEqual([first, second]);
    expect(await problemOf({ 'GET /a': fromJsonSchema(list, [first, second]) }, '/a')).toBeUndefined();
  });

  it('leaves a text as it is where no match is made, or it matches already', async () => {
    const answer = (pattern: string) =>
      answered({ type: 'object', properties: { name: { type: 'string', pattern } } });
    expect(await answer('^(?=z)')).toEqual({ name: 'Hive 1' });
    expect(await answer('^Hive')).toEqual({ name: 'Hive 1' });
    expect(await answer('(')).toEqual({ name: 'Hive 1' });
  });

  it('may be of an older draft, and have an id of its own', async () => {
    const old = {
      $schema: 'http://json-schema.org/draft-07/schema#',
      $id: 'https://brackenfold.example/hive.json',
      definitions: { Name: { type: 'string' } },
      type: 'object',
      required: ['name'],
      properties: { name: { $ref: '#/definitions/Name' } },
    };
    expect(await answered(old)).toEqual({ name: 'Name 1' });
    expect(await answered(old, { name: 'Borage' })).toEqual({ name: 'Borage' });
    expect((await problemOf({ 'GET /a': fromJsonSchema(old, { name: 7 }) }, '/a'))?.code).toBe(
      'SIM-CONTRACT-DRIFT',
    );
  });

  it.each<[string, unknown, string, RegExp]>([
    ['that is a list', [], 'SIM-CONTRACT-DOCUMENT', /a schema is an object/],
    [
      'whose reference leads nowhere',
      { $ref: '#/$defs/Hive' },
      'SIM-CONTRACT-DOCUMENT',
      /leads nowhere\..*#\/\$defs\/Hive/,
    ],
    [
      'whose reference leads in a circle',
      { $ref: '#/$defs/A', $defs: { A: { $ref: '#/$defs/A' } } },
      'SIM-CONTRACT-DOCUMENT',
      /in a circle/,
    ],
  ])('%s is refused', async (_, given, code, words) => {
    const failure = await problemOf({ 'GET /a': fromJsonSchema(given as object) }, '/a');
    expect(failure?.code).toBe(code);
    expect(failure?.message.replace(/\s+/g, ' ')).toMatch(words);
  });
});
