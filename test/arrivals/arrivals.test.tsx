import 'simulacra/jest';
import {
  everyArrival,
  fail,
  later,
  role,
  spy,
  standIn,
  swap,
  takeDown,
  text,
  type ArrivalOptions,
  type SimulacraError,
  type Subject,
} from 'simulacra';
import { isolate } from 'simulacra/react';
import { useEffect, useState } from 'react';

/** Asks for each of some things when it is mounted, and shows the order in which they came. */
function Feed({ asks, onDone }: { asks: readonly string[]; onDone?: (all: string) => void }) {
  const [came, setCame] = useState<string[]>([]);
  useEffect(() => {
    for (const ask of asks)
      void fetch(`/api/${ask}`).then(async (response) =>
        setCame((before) => [...before, response.ok ? ask : `no ${ask}`]),
      );
  }, [asks]);
  const all = came.join(' ');
  useEffect(() => {
    if (came.length === asks.length) onDone?.(all);
  }, [came, all, asks, onDone]);
  return <output>{all}</output>;
}

const letters = (count: number) => [...'abcdefgh'].slice(0, count);
const network = { 'GET /api/:thing': (_: Request, { thing }: Record<string, string>) => thing };
/** A scenario that takes down each order it is run in. */
function recording(count: number) {
  const orders: string[] = [];
  const scenario = async () => {
    const feed = await isolate(Feed, { props: { asks: letters(count) }, network });
    orders.push(feed.find(role('status')).textContent.replaceAll(' ', ''));
  };
  return { orders, scenario };
}
const failureOf = (scenario: () => unknown, options: ArrivalOptions = {}) =>
  everyArrival(scenario, options).then(
    () => {
      throw new Error('it held');
    },
    (failure: SimulacraError) => failure,
  );
const told = ({ message }: Error) => message.replace(/\s+/g, ' ');

it.each([
  [1, 1],
  [2, 2],
  [3, 6],
  [4, 24],
  [5, 120],
])('%d answers that wait together arrive in %d orders, each once', async (count, wanted) => {
  const { orders, scenario } = recording(count);
  const result = await everyArrival(scenario);
  expect(result).toEqual({ tried: wanted, of: wanted, complete: true });
  expect(new Set(orders).size).toBe(wanted);
  expect(orders).toHaveLength(wanted);
  expect(orders[0]).toBe(letters(count).join(''));
});

it('tries those that find most where there are too many, and says how many of how many', async () => {
  const { orders, scenario } = recording(6);
  const result = await everyArrival(scenario, { most: 40 });
  expect(result).toEqual({ tried: 40, of: 720, complete: false });
  expect(orders).toContain('bcdefa');
  expect(orders).toContain('fedcba');
  expect(orders).toContain('bacdef');
  const again = recording(6);
  await everyArrival(again.scenario, { most: 40 });
  expect(again.orders).toEqual(orders);
  const other = recording(6);
  await everyArrival(other.scenario, { most: 40, seed: 7 });
  expect(other.orders).not.toEqual(orders);
});

/** Shows something wrong in some orders only. */
const wrongIn = (isWrong: (order: string) => boolean, count: number) => async () => {
  const feed = await isolate(Feed, { props: { asks: letters(count) }, network });
  if (isWrong(feed.find(role('status')).textContent)) throw new Error(`The hive is upside down`);
};

it('names the shortest order that fails, what holds, and runs it alone', async () => {
  const seeded = wrongIn((order) => order.indexOf('d') < order.indexOf('a'), 4);
  const failure = await failureOf(seeded);
  expect(failure.message.split('\n\n  What happened')[0]!.replace(/Tried \d+/, 'Tried …'))
    .toBe(`SIM-ARRIVAL  GET /api/d arrived before GET /api/a: then the scenario fails.

   1. isolate(Feed)
   2. GET /api/b arrives
   3. GET /api/c arrives
   4. GET /api/d arrives
   5. GET /api/a arrives

  The hive is upside down

  It holds where GET /api/a arrived before GET /api/d.
  Tried … of at least 24 orders. Only this one:   everyArrival(scenario, { order: '111' })`);
  const { order } = failure.fields as { order: string };
  const alone = await failureOf(seeded, { order });
  expect([alone.code, alone.fields]).toMatchObject(['SIM-ARRIVAL', { order }]);
  expect(await everyArrival(seeded, { order: '0' })).toMatchObject({ tried: 1 });
});

it('points at the line of the scenario that failed', async () => {
  const failure = await failureOf(async () => {
    const feed = await isolate(Feed, { props: { asks: ['a', 'b'] }, network });
    expect(feed).toShow(text('a b'));
  });
  expect(failure.stack).toMatch(/arrivals\.test\.tsx:\d+:\d+/);
  expect(told(failure)).toMatch(/GET \/api\/b arrived before GET \/api\/a: .* has the text "a b"/);
});

it('tells what the scenario throws anyway as it is', async () => {
  const failure = await failureOf(wrongIn(() => true, 2));
  expect(failure.message).toBe('The hive is upside down');
});

it('counts answers of all kinds: errors, late ones, those of spies', async () => {
  const failure = await failureOf(async () => {
    const done = spy<(all: string) => void>();
    await isolate(Feed, {
      props: { asks: ['a', 'b', 'c'], onDone: done },
      time: 'virtual',
      network: { 'GET /api/a': fail(503), 'GET /api/b': 'b', 'GET /api/c': later(0, 'c') },
    });
    expect(done.calls).toEqual([['no a b c']]);
  });
  expect(failure.code).toBe('SIM-ARRIVAL');
});

interface Scales {
  left(): Promise<string>;
  right(): Promise<string>;
}
function Balance({ scales }: { scales: Scales }) {
  const [came, setCame] = useState<string[]>([]);
  useEffect(() => {
    for (const weighing of [scales.left(), scales.right()])
      void weighing.then((told) => setCame((before) => [...before, told]));
  }, [scales]);
  return <output>{came.join(' ')}</output>;
}

it.each<[string, () => Promise<Subject>, RegExp]>([
  [
    'a stand-in',
    () => {
      const scales = standIn<Scales>({ left: () => Promise.resolve('l'), right: () => Promise.resolve('r') });
      return isolate(Balance, { props: { scales } }) as Promise<Subject>;
    },
    /right\(\) arrived before left\(\)/,
  ],
  [
    'a swapped module',
    () => {
      const weights = swap(() => import('./weights'), { weigh: (hive) => Promise.resolve(hive) });
      return isolate(() => import('./Pair'), { swap: [weights] }) as Promise<Subject>;
    },
    /weigh\(\) \(2nd\) arrived before weigh\(\)/,
  ],
])('tries the answers of %s', async (_, isolated, words) => {
  const orders: string[] = [];
  const failure = await failureOf(async () => {
    orders.push((await isolated()).texts(role('status')).join());
    if (new Set(orders).size > 1 && orders.at(-1) !== orders[0]) throw new Error('upside down');
  });
  expect(told(failure)).toMatch(words);
});

it('lets spies that outlive a run forget it', async () => {
  const done = spy<(all: string) => void>();
  done('before');
  const result = await everyArrival(async () => {
    await isolate(Feed, { props: { asks: ['a', 'b'], onDone: done }, network });
    expect(done.calls).toHaveLength(2);
  });
  expect(result.tried).toBe(2);
  expect(done.calls).toEqual([['before']]);
});

it('leaves the page as it was, whatever comes of it', async () => {
  const page = document.body.innerHTML;
  await failureOf(wrongIn((order) => order.startsWith('b'), 2));
  expect(document.body.innerHTML).toBe(page);
  const feed = await isolate(Feed, { props: { asks: ['a', 'b'] }, network });
  expect(feed).toShow(text('a b'));
});

describe('explains', () => {
  let runs = 0;
  beforeEach(() => void (runs = 0));
  it.each<[string, () => unknown, ArrivalOptions, string, RegExp]>([
    [
      'requests that differ from run to run',
      () => isolate(Feed, { props: { asks: ['a', `b${runs++}`] }, network }),
      {},
      'SIM-ARRIVAL-DIFFERS',
      /waited in one run GET \/api\/a, GET \/api\/b0 and in the next GET \/api\/a, GET \/api\/b1/,
    ],
    [
      'a failure that does not come again',
      async () => {
        await isolate(Feed, { props: { asks: ['a', 'b'] }, network });
        if (++runs === 2) throw new Error('once');
      },
      {},
      'SIM-ARRIVAL-DIFFERS',
      /fails in one run and passes in the next/,
    ],
    [
      'a scenario that never ends',
      async () => {
        await isolate(Feed, { props: { asks: ['a', 'b'] }, network });
        await new Promise(() => undefined);
      },
      { within: 300 },
      'SIM-ARRIVAL-ENDLESS',
      /did not end within 300 ms/,
    ],
    [
      'a test that ends meanwhile',
      async () => {
        await isolate(Feed, { props: { asks: ['a', 'b'] }, network });
        if (++runs === 2) await takeDown();
      },
      {},
      'SIM-ARRIVAL-OVER',
      /ended in the order "1".*subject\.takeDown\(\), not takeDown\(\)/,
    ],
    [
      'more orders than may be tried',
      recording(5).scenario,
      { most: 100, complete: true },
      'SIM-ARRIVAL-LIMIT',
      /There are 120 orders of arrival, and no more than 100/,
    ],
    ['what is no scenario', 'search' as never, {}, 'SIM-ARRIVAL-GIVEN', /"search": it takes a function/],
    [
      'an option with a letter off',
      recording(1).scenario,
      { mots: 3 } as never,
      'SIM-ARRIVAL-GIVEN',
      /"mots"/,
    ],
    ['a limit of none', recording(1).scenario, { most: 0 }, 'SIM-ARRIVAL-GIVEN', /most: 0/],
    ['an order that is none', recording(2).scenario, { order: '?' }, 'SIM-ARRIVAL-GIVEN', /the order "\?"/],
    [
      'a call within another',
      () => everyArrival(recording(1).scenario),
      {},
      'SIM-ARRIVAL-GIVEN',
      /one scenario is tried at a time/,
    ],
  ])('%s', async (_, scenario, options, code, words) => {
    const failure = await failureOf(scenario, options);
    expect(failure.code).toBe(code);
    expect(told(failure)).toMatch(words);
    expect(document.body.innerHTML).toBe('');
  });

  it('a subject that is there already', async () => {
    await isolate(Feed, { props: { asks: [] } });
    const failure = await failureOf(recording(1).scenario);
    expect(failure.code).toBe('SIM-ARRIVAL-UP');
  });
});
