import { buildSchema, introspectionFromSchema } from 'graphql';
import { ApolloClient, gql, HttpLink, InMemoryCache } from '@apollo/client';
import {
  fail,
  fromSchema,
  open,
  stream,
  type Bench,
  type SchemaOptions,
  type SimulacraError,
} from 'simulacra';
import 'simulacra/jest';

const schema = /* GraphQL */ `
  scalar Date
  scalar Nectar
  enum Colour {
    BLUE
    YELLOW
  }
  interface Forage {
    id: ID!
    name: String!
  }
  type Plant implements Forage {
    id: ID!
    name: String!
    colour: Colour!
    amount(unit: String = "kg"): Float!
    flowersOn: Date
    hiveIds: [ID!]!
    photoUrl: String
    nectar: Nectar
    neighbours: [Plant!]!
  }
  type Tree implements Forage {
    id: ID!
    name: String!
    height: Int!
  }
  union Found = Plant | Tree
  input Near {
    within: Int!
  }
  type Query {
    plants(near: Near): [Plant!]!
    plant(id: ID!): Plant
    forage: [Forage!]!
    found: Found!
    keeperEmail: String!
  }
  type Mutation {
    log(id: ID!): Boolean!
  }
  type Subscription {
    alert: String!
  }
`;

const ask = async (bench: Bench, query: string, variables: object = {}) => {
  const body = JSON.stringify({ query, variables });
  const response = await bench.run(() => fetch('/graphql', { method: 'POST', body }));
  return (await response.json()) as { data: Record<string, unknown>; errors?: { message: string }[] };
};
const dataOf = async (query: string, network: object = {}, options: SchemaOptions = {}) => {
  const bench = await open({ network: { 'POST /graphql': fromSchema(schema, options), ...network } });
  const { data } = await ask(bench, query);
  await bench.takeDown();
  return data;
};
const problemOf = (query: string, network: object, given: string | object = schema) =>
  (async () => {
    const bench = await open({ network: { 'POST /graphql': fromSchema(given), ...network } });
    await ask(bench, query).catch((error: SimulacraError) =>
      error.code ? Promise.reject(error) : undefined,
    );
    await bench.takeDown();
  })().then(
    () => Promise.reject(new Error('nothing was refused')),
    (error: SimulacraError) => error,
  );

const inFlower = 'query InFlower { plants { id name amount flowersOn colour } }';

describe('a schema answers', () => {
  it('every operation, with values that fit by name and type', async () => {
    const data = await dataOf(
      'query { plants { __typename id name colour amount flowersOn hiveIds photoUrl } keeperEmail }',
    );
    expect(data).toEqual({
      plants: [1, 2].map((at) => ({
        __typename: 'Plant',
        id: `plant-${at}`,
        name: `Plant ${at}`,
        colour: expect.stringMatching(/^(BLUE|YELLOW)$/) as string,
        amount: expect.any(Number) as number,
        flowersOn: expect.stringMatching(/^2031-\d\d-\d\d$/) as string,
        hiveIds: ['hive-1', 'hive-2'],
        photoUrl: expect.stringMatching(/^data:image/) as string,
      })),
      keeperEmail: 'person1@brackenfold.example',
    });
  });

  it('with the same values each time, whatever else is selected', async () => {
    const first = await dataOf(inFlower);
    expect(await dataOf(inFlower)).toEqual(first);
    const more = await dataOf(
      'query InFlower { plants { nectar id name amount flowersOn colour neighbours { id } } }',
    );
    expect(more).toMatchObject(first);
  });

  it('interfaces, unions, fragments, mutations and lists of a length', async () => {
    const data = await dataOf(
      `query { forage { __typename name ... on Tree { height } } found { __typename ...Id } } fragment Id on Forage { id }`,
      {},
      { lists: 3 },
    );
    expect(data['forage']).toHaveLength(3);
    expect(data['found']).toMatchObject({ id: expect.stringMatching(/^(plant|tree)-1$/) as string });
    expect(await dataOf('mutation { log(id: "h1") }')).toEqual({ log: expect.any(Boolean) as boolean });
  });

  it('by type, by field, by operation and for one item, the later before the former', async () => {
    const options: SchemaOptions = {
      types: {
        Date: '2031-05-04',
        Plant: {
          name: 'Borage',
          amount: (_: object, { unit }: { unit: string }) => (unit === 'g' ? 4000 : 4),
        },
      },
    };
    const network = { 'QUERY InFlower': { plants: [{}, { name: 'Clover', colour: 'BLUE' }, {}] } };
    const query = 'query InFlower { plants { id name amount(unit: "g") flowersOn colour } }';
    const { plants } = await dataOf(query, network, options);
    expect(plants).toMatchObject([
      { id: 'plant-1', name: 'Borage', amount: 4000, flowersOn: '2031-05-04' },
      { id: 'plant-2', name: 'Clover', colour: 'BLUE' },
      { id: 'plant-3', name: 'Borage' },
    ]);
  });

  it('errors of a field and of an operation', async () => {
    const bench = await open({
      network: {
        'POST /graphql': fromSchema(schema),
        'QUERY One': { plant: new Error('withered') },
        'QUERY All': new Error('closed'),
        'QUERY Down': fail(503),
      },
    });
    expect(await ask(bench, 'query One { plant(id: "p1") { id } keeperEmail }')).toMatchObject({
      data: { plant: null, keeperEmail: 'person1@brackenfold.example' },
      errors: [{ message: 'withered', path: ['plant'] }],
    });
    expect(await ask(bench, 'query All { keeperEmail }')).toEqual({
      data: null,
      errors: [{ message: 'closed' }],
    });
    expect(await ask(bench, 'query Down { keeperEmail }')).toMatchObject({ status: 503 });
  });

  it('from an introspection, and from the object itself', async () => {
    const built = buildSchema(schema);
    for (const given of [built, introspectionFromSchema(built), { data: introspectionFromSchema(built) }]) {
      const bench = await open({ network: { 'POST /graphql': fromSchema(given) } });
      expect(await ask(bench, '{ keeperEmail }')).toEqual({
        data: { keeperEmail: 'person1@brackenfold.example' },
      });
    }
  });

  it('Apollo Client, and a subscription whose values it completes', async () => {
    const alerts = stream<object>();
    const network = { 'POST /graphql': fromSchema(schema), 'SUBSCRIPTION Alerts': alerts };
    const bench = await open({ network });
    const apollo = new ApolloClient({ cache: new InMemoryCache(), link: new HttpLink({ uri: '/graphql' }) });
    const query = gql(inFlower);
    const { data } = await bench.run(() => apollo.query<{ plants: object[] }>({ query }));
    expect(data?.plants).toHaveLength(2);
    apollo.stop();
    const body = JSON.stringify({ query: 'subscription Alerts { alert }' });
    const headers = { accept: 'text/event-stream' };
    const response = await bench.run(() => fetch('/graphql', { method: 'POST', body, headers }));
    await alerts.emit({});
    await alerts.emit({ alert: 'swarm' });
    await alerts.end();
    expect(await response.text()).toMatch(/"alert":"Alert 1"[^]*"alert":"swarm"/);
  });
});

describe('a schema refuses', () => {
  it.each<[string, string, object, RegExp]>([
    [
      'a field that was renamed',
      inFlower,
      { plants: [{ titel: 'Borage' }] },
      /plants\[0\]\.titel: Plant has no field "titel"/,
    ],
    [
      'a wrong type',
      inFlower,
      { plants: [{ amount: 'four' }] },
      /plants\[0\]\.amount: Float cannot represent/,
    ],
    [
      'a number for a text',
      inFlower,
      { plants: [{ name: { text: 'x' } }] },
      /plants\[0\]\.name: String cannot represent/,
    ],
    [
      'a wrong enum',
      inFlower,
      { plants: [{ colour: 'RED' }] },
      /plants\[0\]\.colour: Enum "Colour" cannot represent/,
    ],
    [
      'null where nothing may be missing',
      inFlower,
      { plants: [{ name: null }] },
      /plants\[0\]\.name: Cannot return null/,
    ],
    ['an object for a list', inFlower, { plants: { id: 'p1' } }, /plants: Expected Iterable/],
    ['a field at the root', inFlower, { plant_s: [] }, /plant_s: Query has no field "plant_s"/],
  ])('%s, with its path', async (_, query, answer, words) => {
    const { code, message } = await problemOf(query, { 'QUERY InFlower': answer });
    expect(code).toBe('SIM-CONTRACT-DRIFT');
    expect(message.replace(/\s+/g, ' ')).toMatch(words);
  });

  it('a field close to one that there is, with the nearest', async () => {
    const { fields } = await problemOf(inFlower, { 'QUERY InFlower': { plants: [{ nane: 'Borage' }] } });
    expect(fields).toMatchObject({ drifts: [{ path: 'plants[0].nane', nearest: 'name' }] });
  });

  it('nothing that fits', async () => {
    const plants = [
      { id: 'p1', name: 'Borage', colour: 'BLUE', amount: 4, flowersOn: null },
      { __typename: 'Plant', nectar: { any: 1 } },
    ];
    expect(await dataOf(inFlower, { 'QUERY InFlower': { plants } })).toMatchObject({
      plants: [{ amount: 4 }, {}],
    });
  });

  it.each<[string, string, string]>([
    [
      'a field that there is not',
      '{ plants { nam } }',
      'Cannot query field "nam" on type "Plant". Did you mean "name"',
    ],
    [
      'a variable of another type',
      'query ($id: Int) { plant(id: $id) { id } }',
      'Variable "$id" of type "Int" used in position',
    ],
    ['a document that cannot be read', '{ plants { id } ', 'Syntax Error: Expected Name'],
  ])('%s, with the place', async (_, query, words) => {
    const { code, message } = await problemOf(query, {});
    expect(code).toBe('SIM-GRAPHQL-DOCUMENT');
    expect(message.replace(/\s+/g, ' ')).toContain(words);
  });

  it.each<[string, string | object, RegExp]>([
    ['what is none', 'type Query {', /Syntax Error: Expected Name/],
    ['a type that is missing', 'type Query { hive: Hive }', /Unknown type "Hive"/],
    ['no introspection', { hello: 1 }, /cannot be read/],
  ])('to be read: %s', async (_, given, words) => {
    const { code, message } = await problemOf('{ a }', {}, given);
    expect(code).toBe('SIM-SCHEMA');
    expect(message.replace(/\s+/g, ' ')).toMatch(words);
  });
});
