/* Compiled, never run: what the public interface must take and must refuse. */
import {
  fail,
  hold,
  inTurn,
  later,
  role,
  SimulacraError,
  spy,
  standIn,
  stream,
  swap,
  type CodedFailure,
  type Happening,
  type Held,
  type Place,
  type Spy,
  type StandIn,
} from 'simulacra';
import type { Client } from '../seam/fixture/src/api';
import { isolate, isolateWith, stub } from 'simulacra/react';
import 'simulacra/jest';
import { createContext, forwardRef, lazy, memo, type ReactNode } from 'react';
import type { Hive } from '../../examples/shared/hive';

interface CardProps {
  hive: Hive;
  onOpen?: (id: string, at: number) => void;
}
declare function Card(props: CardProps): ReactNode;
declare function Bare(props: { title?: string }): ReactNode;
declare const Units: React.Context<'kg' | 'lb'>;
const Session = createContext<{ keeper: string; log(id: string): Promise<number> } | undefined>(undefined);
declare const hive: Hive;

type Equal<A, B> = (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : false;
const same = <T extends true>(_?: T) => undefined;

async function props() {
  await isolate(Card, { props: { hive } });
  await isolate(Bare);
  await isolate(Bare, { props: { title: 'x' } });
  await isolate(memo(Card), { props: { hive } });
  await isolate(
    forwardRef<HTMLElement, CardProps>(() => null),
    { props: { hive } },
  );
  await isolate(
    lazy(() => Promise.resolve({ default: Card })),
    { props: { hive } },
  );
  const subject = await isolate(Card, { props: { hive } });
  await subject.update({ hive });
  same<Equal<ReturnType<typeof subject.part<typeof Card>>['props'], CardProps[]>>();
  await subject.part(Card).tell('onOpen', 'h1', 1);
  // @ts-expect-error a prop of another type
  await isolate(Card, { props: { hive: 'h1' } });
  // @ts-expect-error a required prop is missing
  await isolate(Card, { props: {} });
  // @ts-expect-error the props are missing
  await isolate(Card);
  // @ts-expect-error an unknown option
  await isolate(Bare, { stubs: [Card] });
  // @ts-expect-error a prop that is not there
  await subject.update({ hives: [] });
  // @ts-expect-error an argument of another type
  await subject.part(Card).tell('onOpen', 7, 1);
  // @ts-expect-error a prop that is no function
  await subject.part(Card).tell('hive');
}

async function surroundings() {
  await isolate(Bare, {
    provide: [
      [Units, 'kg'],
      [Session, { keeper: 'Imke', log: async () => 1 }],
    ],
  });
  await isolateWith({ provide: [[Units, 'lb']] })(Card, { props: { hive } });
  await isolateWith({ props: { hive } })(Card);
  await isolateWith({ props: { hive } })(Card, { props: { hive } });
  // @ts-expect-error a prop that the defaults do not have
  await isolateWith({ props: { yard: 'north' } })(Card);
  // @ts-expect-error a value of another type
  await isolate(Bare, { provide: [[Units, 'stone']] });
  await isolate(Bare, {
    provide: [
      [Units, 'kg'],
      // @ts-expect-error one of two values is wrong
      [Session, { keeper: 7 }],
    ],
  });
  // @ts-expect-error a context without its value
  await isolate(Bare, { provide: [Units] });
  await isolate(Bare, { wrap: [Bare, [Bare, { title: 'x' }], <Bare key="b" />] });
  const subject = await isolate(Bare, {
    provide: [[Session, { keeper: 'Imke', log: spy<(id: string) => Promise<number>>(hold()) }]],
  });
  const { calls } = subject.given(Session).log;
  calls satisfies [id: string][];
}

async function stubs() {
  await isolate(Bare, {
    stub: [
      Card,
      'Other',
      stub(Card),
      stub(Card, ({ hive: { name } }) => name),
      stub('Pad', { handle: ['focus'] }),
    ],
    depth: 1,
    keep: [Card, 'Pad'],
  });
  // @ts-expect-error a rendering of other props
  stub(Card, ({ name }: { name: string }) => name);
  // @ts-expect-error no component
  await isolate(Bare, { stub: [7] });
  // @ts-expect-error a depth is a number
  await isolate(Bare, { depth: 'one' });
}

async function network() {
  await isolate(Bare, {
    network: {
      'GET /api/hives': [hive],
      'GET /api/hives/:id': (request, { id }) => ({ id, url: request.url }),
      'POST /api/hives': inTurn(fail(422, { title: 'x' }), later(5, hive), hold()),
      'DELETE /api/hives/:id': undefined,
    },
  });
  // @ts-expect-error no method of HTTP
  await isolate(Bare, { network: { 'FETCH /api/hives': [] } });
  // @ts-expect-error no method at all
  await isolate(Bare, { network: { '/api/hives': [] } });
}

function doubles() {
  interface Service {
    log(id: string): Promise<number>;
    weigh(): number;
    readonly open: boolean;
  }
  const service = standIn<Service>({
    log: inTurn(fail(503), hold(), later(1, 7), async () => 7),
    weigh: inTurn(1, 2),
    open: true,
  });
  abstract class Lookup {
    abstract readonly isVerified: boolean;
    abstract find(id: string): string;
  }
  standIn(Lookup, { isVerified: true, find: () => 'Anemone' });
  // @ts-expect-error nothing tells that this is a method when the test runs
  standIn(Lookup, { find: 'Anemone' });
  // @ts-expect-error the same of an interface
  standIn<Service>({ weigh: 7 });
  same<Equal<typeof service, StandIn<Service>>>();
  same<Equal<typeof service.log.calls, [id: string][]>>();
  const typed: Service = service;
  const held: Held<Hive[]> = hold<Hive[]>();
  const onOpen: Spy<(id: string) => void> = spy();
  const given: CardProps = { hive, onOpen: spy() };
  // @ts-expect-error a released value of another type
  void held.release('hives');
  // @ts-expect-error a function that returns at once cannot be held
  standIn<Service>({ weigh: hold() });
  // @ts-expect-error a method the service does not have
  standIn<Service>({ logg: hold() });
  // @ts-expect-error an answer of another type
  standIn<Service>({ weigh: 'heavy' });
  // @ts-expect-error a name the service does not have
  standIn<Service>(['logg']);
  return [typed, given, onOpen];
}

function mending(error: unknown) {
  if (!(error instanceof SimulacraError)) throw error;
  const failure: CodedFailure = error;
  switch (failure.code) {
    case 'SIM-PROP-MISSING':
      return failure.fields.missing satisfies string[];
    case 'SIM-WRAP-MISSING':
      return [failure.fields.chain, failure.fields.provider?.requires[0]?.name] satisfies [
        readonly { hook: string; package: string }[] | undefined,
        string | undefined,
      ];
    case 'SIM-PAGE-LACKS':
      return failure.fields.feature satisfies string;
    case 'SIM-REQUEST-UNMATCHED':
      return failure.fields.requests[0]?.at?.line satisfies number | undefined;
    case 'SIM-RENDER-THREW':
      return [failure.thrown?.at, failure.happened[0]] satisfies [Place | undefined, Happening | undefined];
    default:
      // @ts-expect-error a fact of another failure
      return failure.fields.feature as unknown;
  }
}

function swaps() {
  const module = () => import('../seam/fixture/src/useScale');
  const api = () => import('../seam/fixture/src/api');
  const feed = () => import('../seam/fixture/src/ScaleFeed');
  const scale = swap(module, {
    useScale: { kilograms: 31.2, live: true },
    toPounds: (kilograms) => kilograms * 2,
  });
  swap(module, {
    useScale: inTurn({ kilograms: 1, live: true }, { kilograms: 2, live: false }),
    unit: 'stone',
  });
  swap(api, { fetchHives: hold<string[]>(), watch: stream<number>(), yards: ['south'] }, { rest: 'refused' });
  swap(api, { fetchHives: inTurn(fail(503), later(5, ['Anemone'])), client: standIn<Client>(['get']) });
  // @ts-expect-error a name the module does not export
  swap(module, { useScael: { kilograms: 31.2, live: true } });
  // @ts-expect-error an answer of another type
  swap(module, { useScale: { kilograms: 'heavy', live: true } });
  // @ts-expect-error a function that returns at once cannot be held
  swap(module, { useScale: hold() });
  // @ts-expect-error a constant of another type
  swap(module, { unit: 3 });
  // @ts-expect-error a stream of another type
  swap(api, { watch: stream<string>() });
  void isolate(feed, { props: { hiveId: 'h1' }, swap: [scale] }).then((subject) => {
    same<Equal<Parameters<typeof subject.update>[0], Partial<{ hiveId: string; of?: string }>>>();
    subject.given(scale).useScale.calls satisfies [hiveId: string][];
  });
  void isolate(() => import('../seam/fixture/src/Barrelled'));
  void isolate(() => import('../seam/fixture/src/several').then(({ Second }) => Second));
  // @ts-expect-error a prop the loaded component does not have
  void isolate(feed, { props: { hive: 'h1' } });
  // @ts-expect-error a prop that is missing
  void isolate(feed);
}

function matchers() {
  expect({}).toShow(role('button'), { times: 3 });
  expect({}).not.toHaveShown(role('alert', /late/));
  // @ts-expect-error a string is no locator
  expect({}).toShow('button');
  // @ts-expect-error a level is a number
  role('heading', { level: 'one' });
}

export { props, surroundings, stubs, network, doubles, mending, swaps, matchers };
