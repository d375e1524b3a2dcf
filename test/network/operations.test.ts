import { ApolloClient, gql, HttpLink, InMemoryCache } from '@apollo/client';
import { GraphQLWsLink } from '@apollo/client/link/subscriptions';
import { Client, fetchExchange } from '@urql/core';
import { createClient } from 'graphql-ws';
import {
  channel,
  fail,
  hold,
  inTurn,
  open,
  stream,
  takeDown,
  type Bench,
  type SimulacraError,
} from 'simulacra';
import 'simulacra/jest';

const IN_FLOWER = gql`
  query InFlower($within: Int!, $withAmounts: Boolean = false) {
    plants(within: $within) {
      id
      ...Named
      amount @include(if: $withAmounts)
      ... on Tree {
        height
      }
    }
  }
  fragment Named on Plant {
    called: name
  }
`;
const query = IN_FLOWER.loc!.source.body;
const borage = { __typename: 'Plant', id: 'p1', called: 'Borage' };

/** Sends an operation as any client does. */
const send = async (bench: Bench, body: unknown, init: RequestInit = {}) => {
  const response = await bench.run(() =>
    fetch('/graphql', { method: 'POST', body: JSON.stringify(body), ...init }),
  );
  return [response.status, await response.json()] as const;
};
const inFlower = (variables: object = { within: 800 }) => ({ operationName: 'InFlower', query, variables });
const problemOf = (work: () => Promise<unknown>): Promise<SimulacraError> =>
  work()
    .catch((error: SimulacraError) => (error.code ? Promise.reject(error) : undefined))
    .then(takeDown)
    .then(
      () => Promise.reject(new Error('nothing was refused')),
      (error: SimulacraError) => error,
    );

describe('operations are answered by their names', () => {
  const plants = [borage];
  it.each<[string, object, readonly [number, unknown]]>([
    ['data', { plants }, [200, { data: { plants } }]],
    ['a status', fail(503), [503, { type: 'about:blank', title: 'Service Unavailable', status: 503 }]],
    ['an error', new Error('closed'), [200, { data: null, errors: [{ message: 'closed' }] }]],
    [
      'an error of a field',
      { plants: [borage, new Error('withered')] },
      [200, { data: { plants: [borage, null] }, errors: [{ message: 'withered', path: ['plants', 1] }] }],
    ],
    [
      'a function of the variables',
      ({ within }: { within: number }) => ({ plants: within > 500 ? plants : [] }),
      [200, { data: { plants } }],
    ],
    ['one after the other', inTurn({ plants: [] }), [200, { data: { plants: [] } }]],
  ])('with %s', async (_, answer, expected) => {
    const bench = await open({ network: { 'QUERY InFlower': answer as never } });
    expect(await send(bench, inFlower())).toEqual(expected);
    expect(bench.requests).toMatchObject([
      {
        method: 'QUERY',
        path: 'InFlower',
        route: 'QUERY InFlower',
        body: { within: 800 },
        url: 'http://localhost/graphql',
      },
    ]);
    expect(bench.requests.of('QUERY InFlower')).toHaveLength(1);
    expect(String(bench.chronicle)).toMatch(/asked +QUERY InFlower +\{ within: 800 \}/);
  });

  it('and variables, in a batch, by GET, without a name, and by a hash alone', async () => {
    const bench = await open({
      network: {
        'QUERY InFlower?within=800': { plants },
        'QUERY InFlower?within=:within': ({ within }: { within: number }) => ({
          plants: [{ ...borage, id: String(within) }],
        }),
        'MUTATION Log': { log: { id: 'i1' } },
        'QUERY *': { yard: 'north' },
        'POST /rest': { rest: true },
      },
    });
    const log = { operationName: 'Log', query: 'mutation Log { log { id } }' };
    expect(await send(bench, [inFlower(), inFlower({ within: 5 }), log])).toEqual([
      200,
      [{ data: { plants } }, { data: { plants: [{ ...borage, id: '5' }] } }, { data: { log: { id: 'i1' } } }],
    ]);
    expect(await send(bench, { query: '{ yard }' })).toEqual([200, { data: { yard: 'north' } }]);
    const hashed = {
      operationName: 'InFlower',
      variables: { within: 800 },
      extensions: { persistedQuery: { version: 1, sha256Hash: 'f00' } },
    };
    expect(await send(bench, hashed)).toEqual([200, { data: { plants } }]);
    const address = `/graphql?${String(new URLSearchParams({ query, variables: '{"within":800}' }))}`;
    expect(await (await bench.run(() => fetch(address))).json()).toEqual({ data: { plants } });
    // A route of an address comes first, and what only looks like an operation is none.
    const rest = await bench.run(() =>
      fetch('/rest', { method: 'POST', body: JSON.stringify({ query: '{ yard }' }) }),
    );
    expect(await rest.json()).toEqual({ rest: true });
  });

  it('when the test says so', async () => {
    const answer = hold<object>();
    const bench = await open({ network: { 'QUERY InFlower': answer } });
    let data: unknown;
    await bench.run(() => {
      void fetch('/graphql', { method: 'POST', body: JSON.stringify(inFlower()) })
        .then((response) => response.json())
        .then((result) => (data = result));
    });
    expect(answer.waiting).toMatchObject([{ asked: 'QUERY InFlower' }]);
    await answer.release({ plants });
    expect(data).toEqual({ data: { plants } });
  });
});

describe('what a double of an operation lacks is told', () => {
  const lacking = (answer: object, variables?: object) =>
    problemOf(async () =>
      send(await open({ network: { 'QUERY InFlower': answer as never } }), inFlower(variables)),
    );

  it.each<[string, object, object | undefined, string[], string | undefined]>([
    [
      'a field',
      { plants: [borage, { __typename: 'Plant', id: 'p2', calld: 'Clover' }] },
      undefined,
      ['plants[1].called'],
      'calld',
    ],
    ['the root', { plant: [] }, undefined, ['plants'], 'plant'],
    [
      'what is included',
      { plants: [borage] },
      { within: 1, withAmounts: true },
      ['plants[0].amount'],
      undefined,
    ],
    [
      'what one type has',
      { plants: [{ ...borage, __typename: 'Tree' }] },
      undefined,
      ['plants[0].height'],
      undefined,
    ],
  ])('%s, by its path', async (_, answer, variables, paths, near) => {
    const { code, fields, message } = await lacking(answer, variables);
    expect(code).toBe('SIM-GRAPHQL-LACKS');
    expect(fields).toMatchObject({ route: 'QUERY InFlower', lacking: paths });
    expect((fields as { nearest?: string }).nearest).toBe(near);
    expect(message.replace(/\s+/g, ' ')).toContain(`The answer of QUERY InFlower lacks "${paths[0]}"`);
  });

  it('an operation that no route answers, with the nearest', async () => {
    const { code, message } = await problemOf(async () =>
      send(await open({ network: { 'QUERY InFlowr': {} } }), inFlower()),
    );
    expect(code).toBe('SIM-REQUEST-UNMATCHED');
    expect(message).toMatch(/No route answers QUERY InFlower\.[^]*'QUERY InFlower': …/);
  });

  it('a document that no server reads', async () => {
    const document = { operationName: 'InFlower', query: 'query InFlower {\n  plants {\n    id,,}\n' };
    const { code, message } = await problemOf(async () =>
      send(await open({ network: { 'QUERY InFlower': {} } }), document),
    );
    expect(code).toBe('SIM-GRAPHQL-DOCUMENT');
    expect(message).toMatch(/Expected Name, found <EOF>/);
  });
});

test('clients as they are: Apollo Client, urql', async () => {
  const bench = await open({ network: { 'QUERY InFlower': { plants: [borage] } } });
  const apollo = new ApolloClient({ cache: new InMemoryCache(), link: new HttpLink({ uri: '/graphql' }) });
  const { data } = await bench.run(() => apollo.query({ query: IN_FLOWER, variables: { within: 800 } }));
  expect(data).toEqual({ plants: [borage] });
  apollo.stop();
  const urql = new Client({
    url: 'http://localhost/graphql',
    exchanges: [fetchExchange],
    preferGetMethod: false,
  });
  const answered = await bench.run(() => urql.query(IN_FLOWER, { within: 800 }).toPromise());
  expect(answered.data).toEqual({ plants: [borage] });
});

const ALERTS = gql`
  subscription Alerts {
    alert {
      text
    }
  }
`;
const alertOf = (text: string) => ({ alert: { __typename: 'Alert', text } });

describe('a subscription', () => {
  it.each(['stream', 'channel'] as const)('over a socket, emitted by a %s', async (kind) => {
    const alerts = kind === 'stream' ? stream<object>() : channel<object>();
    const emit = (value: object) => ('emit' in alerts ? alerts.emit(value) : alerts.send(value));
    const bench = await open({ network: { 'SUBSCRIPTION Alerts': alerts }, leaks: 'allowed' });
    const socket = createClient({ url: 'ws://localhost/graphql' });
    const apollo = new ApolloClient({ cache: new InMemoryCache(), link: new GraphQLWsLink(socket) });
    const heard: unknown[] = [];
    const subscription = await bench.run(() =>
      apollo
        .subscribe({ query: ALERTS })
        .subscribe({ next: ({ data }) => heard.push(data), complete: () => heard.push('over') }),
    );
    await emit(alertOf('swarm'));
    await emit(alertOf('frost'));
    if ('emit' in alerts) await alerts.end();
    else await alerts.close();
    await bench.atRest();
    expect(heard).toEqual([alertOf('swarm'), alertOf('frost'), 'over']);
    subscription.unsubscribe();
    await bench.run(() => socket.dispose());
    apollo.stop();
  });

  it('over a stream of events', async () => {
    const alerts = stream<object>();
    const bench = await open({ network: { 'SUBSCRIPTION Alerts': alerts } });
    const body = JSON.stringify({ operationName: 'Alerts', query: ALERTS.loc!.source.body });
    const headers = { accept: 'text/event-stream' };
    const response = await bench.run(() => fetch('/graphql', { method: 'POST', body, headers }));
    await alerts.emit({ alert: { text: 'swarm' } });
    await alerts.end();
    expect(await response.text()).toBe(
      'event: next\ndata: {"data":{"alert":{"text":"swarm"}}}\n\nevent: complete\ndata:\n\n',
    );
  });
});
