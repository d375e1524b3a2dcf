import { QueryClient } from '@tanstack/react-query';
import axios, { type AxiosError } from 'axios';
import { ApolloClient, ApolloLink, gql, HttpLink, InMemoryCache } from '@apollo/client';
import { Client, fetchExchange } from '@urql/core';
import { createClient } from 'graphql-ws';
import ky from 'ky';
import { firstValueFrom, lastValueFrom } from 'rxjs';
import { ajax } from 'rxjs/ajax';
import { webSocket } from 'rxjs/webSocket';
import { channel, fail, hold, open, stream, type Connection } from 'simulacra';
import 'simulacra/jest';

const hive = { id: 'h1', name: 'Anemone' };
const routes = {
  'GET /api/hives/:hiveId': hive,
  'GET /api/hives': fail(503, { detail: 'The yard is closed' }),
  'POST /api/hives/:hiveId/inspections': (request: Request) => request.json(),
  'GET /api/never': hold(),
  'GET /api/broken': fail(),
};
const inspection = { varroa: 2 };
const home = 'http://localhost';

interface Library {
  readonly carrier: string;
  get(path: string): Promise<unknown>;
  post(path: string, body: object): Promise<unknown>;
  statusOf(error: unknown): unknown;
}

const clients: Record<string, Library> = {
  'axios, by its usual adapter': {
    carrier: 'XMLHttpRequest',
    get: async (path) => (await axios.get<unknown>(path)).data,
    post: async (path, body) => (await axios.post<unknown>(path, body)).data,
    statusOf: (error) => (error as AxiosError).response?.status ?? (error as AxiosError).code,
  },
  ky: {
    carrier: 'fetch',
    get: (path) => ky.get(home + path, { retry: 0 }).json(),
    post: (path, body) => ky.post(home + path, { json: body }).json(),
    statusOf: (error) => (error as { response?: Response }).response?.status ?? (error as Error).name,
  },
  "RxJS's ajax": {
    carrier: 'XMLHttpRequest',
    get: (path) => firstValueFrom(ajax.getJSON(path)),
    post: async (path, body) => (await firstValueFrom(ajax.post<unknown>(path, body))).response,
    statusOf: (error) => (error as { status: number }).status,
  },
  'TanStack Query': {
    carrier: 'fetch',
    get: async (path) => {
      const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
      const queryFn = async () => {
        const response = await fetch(path);
        if (!response.ok) throw Object.assign(new Error('refused'), { status: response.status });
        return (await response.json()) as unknown;
      };
      return queries.fetchQuery({ queryKey: [path], queryFn }).finally(() => queries.clear());
    },
    post: async (path, body) => (await fetch(path, { method: 'POST', body: JSON.stringify(body) })).json(),
    statusOf: (error) => (error as { status?: number }).status ?? (error as Error).name,
  },
};

describe.each(Object.entries(clients))('%s', (_, { carrier, get, post, statusOf }) => {
  it('reads, writes, and is told of a status and of a broken connection', async () => {
    const bench = await open({ network: routes });
    expect(await bench.run(() => get('/api/hives/h1'))).toEqual(hive);
    expect(await bench.run(() => post('/api/hives/h1/inspections', inspection))).toEqual(inspection);
    const failed = (path: string) => bench.run(() => get(path).then(() => 'answered', statusOf));
    expect(await failed('/api/hives')).toBe(503);
    expect(['ERR_NETWORK', 'TypeError', 'NetworkError', 0]).toContain(await failed('/api/broken'));
    expect(bench.requests.map((one) => [one.carrier, one.path, one.status])).toEqual([
      [carrier, '/api/hives/h1', 200],
      [carrier, '/api/hives/h1/inspections', 200],
      [carrier, '/api/hives', 503],
      [carrier, '/api/broken', 0],
    ]);
    expect(bench.requests[1]).toMatchObject({ method: 'POST', body: inspection });
  });
});

test('axios: time-out, progress of an upload, a request called off', async () => {
  const bench = await open({
    time: 'virtual',
    network: { ...routes, 'PUT /api/photos/p1': async (request: Request) => (await request.blob()).size },
  });
  const shown: unknown[] = [];
  const never = (config: object) =>
    void axios.get('/api/never', config).catch((error: AxiosError) => shown.push(error.code));
  const calling = new AbortController();
  await bench.run(() => {
    never({ timeout: 2000 });
    never({ signal: calling.signal });
  });
  calling.abort();
  await (bench.time as { advance(span: string): Promise<void> }).advance('2s');
  expect(shown).toEqual(['ERR_CANCELED', 'ECONNABORTED']);
  const photo = new File(['frame 7'], 'frame.png', { type: 'image/png' });
  const told: number[] = [];
  const { data } = await bench.run(() =>
    axios.put<number>('/api/photos/p1', photo, { onUploadProgress: ({ loaded }) => told.push(loaded) }),
  );
  expect([data, told.at(-1)]).toEqual([7, 7]);
});

const inFlower = gql`
  query InFlower($within: Int!) {
    plants(within: $within) {
      id
      name
    }
  }
`;
const plants = [{ __typename: 'Plant', id: 'p1', name: 'Borage' }];

test('Apollo Client over fetch, and urql', async () => {
  const bench = await open({
    network: {
      'POST /graphql': async (request: Request) => {
        const { operationName, variables } = (await request.json()) as {
          operationName: string;
          variables: object;
        };
        return operationName === 'InFlower'
          ? { data: { plants } }
          : { errors: [{ message: String(variables) }] };
      },
    },
  });
  const apollo = new ApolloClient({
    cache: new InMemoryCache(),
    link: ApolloLink.from([new HttpLink({ uri: '/graphql' })]),
  });
  const { data } = await bench.run(() => apollo.query({ query: inFlower, variables: { within: 800 } }));
  expect(data).toEqual({ plants });
  apollo.stop();
  const urql = new Client({ url: `${home}/graphql`, exchanges: [fetchExchange], preferGetMethod: false });
  const answered = await bench.run(() => urql.query(inFlower, { within: 800 }).toPromise());
  expect(answered.data).toEqual({ plants });
  expect(bench.requests).toMatchObject([
    { body: { operationName: 'InFlower', variables: { within: 800 } } },
    { body: { operationName: 'InFlower', variables: { within: 800 } } },
  ]);
});

test('graphql-ws, and the sockets of RxJS', async () => {
  const server = (connection: Connection<object, { id?: string; type: string }>) => {
    connection.listen(({ id, type }) => {
      if (type === 'connection_init') connection.send({ type: 'connection_ack' });
      if (type !== 'subscribe') return;
      connection.send({ id, type: 'next', payload: { data: { alert: 'swarm' } } });
      connection.send({ id, type: 'complete' });
    });
  };
  const scales = channel<object, object>();
  const bench = await open({ network: { 'WS /graphql': server, 'WS /live/scales': scales } });
  const heard: unknown[] = [];
  const client = createClient({ url: 'ws://localhost/graphql' });
  await bench.run(
    () =>
      new Promise<void>((resolve) => {
        const sink = { next: (value: unknown) => heard.push(value), error: heard.push, complete: resolve };
        client.subscribe({ query: 'subscription { alert }' }, sink);
      }),
  );
  await bench.run(() => client.dispose());
  expect(heard).toEqual([{ data: { alert: 'swarm' } }]);
  const socket = webSocket<object>('ws://localhost/live/scales');
  const first = lastValueFrom(socket);
  await bench.run(() => socket.next({ subscribe: 'h1' }));
  expect(scales.received).toEqual([{ subscribe: 'h1' }]);
  await scales.send({ kilograms: 31.2 });
  await scales.close();
  expect(await first).toEqual({ kilograms: 31.2 });
});

test('a stream is read as it comes, by a fetch that asks for events', async () => {
  const alerts = stream<string>();
  const bench = await open({ network: { 'GET /live/alerts': alerts } });
  const response = await bench.run(() => fetch('/live/alerts', { headers: { accept: 'text/event-stream' } }));
  const reader = response.body!.getReader();
  await alerts.emit('frost\ntonight');
  const { value } = await reader.read();
  expect(new TextDecoder().decode(value)).toBe('data: frost\ndata: tonight\n\n');
  await alerts.end();
  expect(await reader.read()).toEqual({ done: true, value: undefined });
});
