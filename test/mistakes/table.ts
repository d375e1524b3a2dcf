import {
  channel,
  css,
  fromOpenApi,
  hold,
  label,
  later,
  part,
  role,
  standIn,
  swap,
  takeDown,
  testId,
  text,
  type Subject,
} from 'simulacra';
import { hives } from '../../examples/shared/hive';

/* eslint-disable @typescript-eslint/no-explicit-any -- these are mistakes the compiler would not let pass */
type Any = any;

const tides = () => import('./modules/tides');

export interface Mistake {
  readonly title: string;
  /** The line that is wrong, as a user writes it. */
  readonly code: string;
  make(): Promise<unknown>;
  /** True where the message is another one while modules are not rewritten. */
  readonly rewritten?: boolean;
  /** What of the failure a program can read, as data. */
  readonly facts?: object;
  /** The codes of what the end of the test has to say of it as well. */
  readonly leaves?: readonly string[];
}

/** A place in a file, as a failure tells of it. */
export const at = (file: string, line: number) => ({
  file: expect.stringMatching(new RegExp(`/${file}$`)) as string,
  line,
});

/** What a framework brings along: the components of its example, and some that are wrong in its idiom. */
export interface MistakeKit {
  isolate(component: Any, options?: Any): Promise<Subject<Any, Any>>;
  isolateWith(options: Any): (component: Any, options?: Any) => Promise<Subject<Any, Any>>;
  stub(component: Any, how?: Any): Any;
  readonly HiveBoard: Any;
  readonly HiveCard: Any;
  /** Another component of the same name. */
  readonly anotherHiveCard: Any;
  readonly YardGate: Any;
  /** What a session is provided for, one of nobody and one of Imke. */
  readonly Session: Any;
  readonly nobody: Any;
  readonly imke: Any;
  /** Something else that can be provided. */
  readonly Weather: Any;
  /** How a parent listens to what is told. */
  readonly listens: string;
  /** "Now 31.2 kg" in two elements; a button "Tare" hidden from assistive technology; one not displayed. */
  readonly Scale: Any;
  /** A heading "Inspections" that becomes a strong by the button "Open". */
  readonly Retitled: Any;
  /** Wraps a Row that wraps a Sick, which throws a TypeError while rendering. */
  readonly Tray: Any;
  /** Renders without end. */
  readonly Loop: Any;
  /** Leads to a component that takes `phase` of modules/tides as it is loaded, and `height` as it is rendered. */
  readonly shore: Any;
  readonly Desk: Any;
  readonly Pad: Any;
  /** Puts two Frames into a Rack; a Frame needs what a Rack gives it. */
  readonly Box: Any;
  readonly Rack: Any;
  /** Makes a BroadcastChannel as it is made itself. */
  readonly Radio: Any;
}

class HiveStore {
  load() {}
  save() {}
}

/** Every mistake that can be made in any framework, made. */
export function mistakes(kit: MistakeKit): Mistake[] {
  const { isolate, isolateWith, stub, HiveBoard, HiveCard, anotherHiveCard, YardGate, Weather } = kit;
  const { Session, nobody, imke, Scale, Retitled, Tray, Loop, Desk, Pad, Box, Rack, Radio, listens, shore } =
    kit;
  const props = { yard: 'north' };
  const network = { 'GET /api/hives': hives };
  const loaded = { props, network };
  const atEnd = async (component: Any, options: Any) => {
    await isolate(component, options);
    await takeDown();
  };
  return [
    { title: 'The component is undefined', code: 'isolate(undefined)', make: () => isolate(undefined) },
    {
      title: 'A whole module where a component belongs',
      code: "import * as module from './HiveCard';\nisolate(module)",
      make: () => isolate({ HiveCard }),
    },
    {
      title: 'An unknown option',
      code: 'isolate(HiveBoard, { props, stubs: [HiveCard] })',
      make: () => isolate(HiveBoard, { props, stubs: [HiveCard] }),
    },
    {
      title: 'An option of another shape',
      code: 'isolate(YardGate, { provide: [SessionContext, session] })',
      make: () => isolate(YardGate, { provide: [Session, nobody] }),
    },
    {
      title: 'A stub that is undefined',
      code: 'isolate(HiveBoard, { props, stub: [undefined] })',
      make: () => isolate(HiveBoard, { props, stub: [undefined] }),
    },
    {
      title: 'A stub that matched nothing',
      code: 'isolate(HiveBoard, { props, network, stub: [YardGate] })',
      make: () => atEnd(HiveBoard, { ...loaded, stub: [YardGate] }),
    },
    {
      title: 'A stub of another component of the same name',
      code: 'isolate(HiveBoard, { props, network, stub: [anotherHiveCard] })',
      make: () => atEnd(HiveBoard, { ...loaded, stub: [anotherHiveCard] }),
    },
    {
      title: 'A stub name in the wrong case',
      code: "isolate(HiveBoard, { props, network, stub: ['hivecard'] })",
      make: () => isolate(HiveBoard, { ...loaded, stub: ['hivecard'] }),
    },
    {
      title: 'A stub name that is a letter off',
      code: "isolate(HiveBoard, { props, network, stub: ['HiveCrad'] })",
      make: () => isolate(HiveBoard, { ...loaded, stub: ['HiveCrad'] }),
    },
    {
      title: 'A ref into a stub that has no handle',
      code: 'isolate(Parent, { stub: [Child] })   // Parent calls ref.current.focus()',
      make: async () => {
        const desk = await isolate(Desk, { stub: [stub(Pad, { handle: ['select'] })] });
        await desk.click(role('button', 'Write'));
      },
    },
    {
      title: 'Options where an update takes props',
      code: "board.update({ props: { yard: 'east' } })",
      make: async () => (await isolate(HiveBoard, loaded)).update({ props: { yard: 'east' } }),
    },
    {
      title: 'An option by another name',
      code: 'isolate(HiveBoard, { plugins: [] })',
      make: () => isolate(HiveBoard, { plugins: [] }),
    },
    {
      title: 'A child that throws while rendering',
      code: 'isolate(Tray)',
      make: () => isolate(Tray),
      facts: {
        fields: { subject: 'Tray', thrower: 'Sick' },
        thrown: {
          name: 'TypeError',
          message: 'queen is undefined',
          at: { line: expect.any(Number) as number },
        },
        happened: expect.arrayContaining([
          expect.objectContaining({ kind: 'mounted', what: 'Tray' }),
        ]) as unknown,
      },
    },
    {
      title: 'A browser feature that the page lacks',
      code: 'isolate(Radio)   // new BroadcastChannel(…)',
      make: () => isolate(Radio),
    },
    {
      title: 'A swap of a module that nobody imports',
      code: "isolate(HiveBoard, { props, network, swap: [swap(() => import('./tides'), { height: 3 })] })",
      make: () => atEnd(HiveBoard, { ...loaded, swap: [swap(tides, { height: 3 })] }),
    },
    {
      title: 'A swap of an export that nobody imports',
      code: "isolate(() => import('./Shore'), { swap: [swap(() => import('./tides'), { hieght: 3 })] })",
      make: () => atEnd(shore, { swap: [swap(tides, { hieght: 3 } as Any)] }),
    },
    {
      title: 'An export that was refused',
      code: "isolate(() => import('./Shore'), { swap: [swap(() => import('./tides'), {}, { rest: 'refused' })] })",
      make: async () => {
        // What it takes while it is loaded is another mistake.
        await isolate(shore).then(takeDown);
        await isolate(shore, { swap: [swap(tides, {}, { rest: 'refused' })] });
      },
    },
    {
      title: 'A swap that comes too late',
      code: "isolate(Shore, { swap: [swap(() => import('./tides'), { phase: 'ebb' })] })   // const taken = phase; at its top",
      make: async () => {
        await isolate(shore).then(takeDown);
        await isolate(shore, { swap: [swap(tides, { phase: 'ebb' })] });
      },
    },
    {
      title: 'A swap of what is no module',
      code: "isolate(HiveBoard, { swap: [swap('./tides', { height: 3 })] })",
      make: async () => isolate(HiveBoard, { ...loaded, swap: [swap('./tides' as Any, { height: 3 })] }),
    },
    {
      title: 'A swap without exports',
      code: "isolate(HiveBoard, { swap: [swap(() => import('./tides'))] })",
      make: async () => isolate(HiveBoard, { ...loaded, swap: [(swap as Any)(tides)] }),
    },
    {
      title: 'Something else for a swap',
      code: 'isolate(HiveBoard, { swap: [{ height: 3 }] })',
      make: () => isolate(HiveBoard, { ...loaded, swap: [{ height: 3 }] }),
    },
    {
      title: 'A subject that cannot be loaded',
      code: "isolate(() => import('./sunk'))",
      make: () => isolate(() => import('./modules/sunk')),
    },
    {
      title: 'A subject that exports no component',
      code: "isolate(() => import('./tides'))",
      make: () => isolate(tides),
    },
    {
      title: 'A request that no route answers',
      code: 'isolate(HiveBoard, { props })',
      make: () => atEnd(HiveBoard, { props }),
      facts: {
        fields: {
          routes: [],
          requests: [{ method: 'GET', url: 'http://localhost/api/hives?yard=north', from: 'HiveBoard' }],
        },
      },
    },
    {
      title: 'A route whose method differs',
      code: "isolate(HiveBoard, { props, network: { 'POST /api/hives': hives } })",
      make: () => atEnd(HiveBoard, { props, network: { 'POST /api/hives': hives } }),
    },
    {
      title: 'A route whose path is a letter off',
      code: "isolate(HiveBoard, { props, network: { 'GET /api/hive': hives } })",
      make: () => atEnd(HiveBoard, { props, network: { 'GET /api/hive': hives } }),
    },
    {
      title: 'A route without the beginning of the path',
      code: "isolate(HiveBoard, { props, network: { 'GET /hives': hives } })",
      make: () => atEnd(HiveBoard, { props, network: { 'GET /hives': hives } }),
    },
    {
      title: 'A route with another query key',
      code: "isolate(HiveBoard, { props, network: { 'GET /api/hives?yards=north': hives } })",
      make: () => atEnd(HiveBoard, { props, network: { 'GET /api/hives?yards=north': hives } }),
    },
    {
      title: 'A route with another query value',
      code: "isolate(HiveBoard, { props, network: { 'GET /api/hives?yard=south': hives } })",
      make: () => atEnd(HiveBoard, { props, network: { 'GET /api/hives?yard=south': hives } }),
    },
    {
      title: 'A route without a method',
      code: "isolate(HiveBoard, { props, network: { '/api/hives': hives } })",
      make: () => isolate(HiveBoard, { props, network: { '/api/hives': hives } }),
    },
    {
      title: 'A route that was never asked for',
      code: "const board = await isolate(HiveBoard, { props, network: { …, 'GET /api/hives/:hiveId': hives[0] } });\nboard.everyRouteAsked()",
      make: async () =>
        (
          await isolate(HiveBoard, { props, network: { ...network, 'GET /api/hives/:hiveId': hives[0]! } })
        ).everyRouteAsked(),
    },
    {
      title: 'Nothing found, but something near',
      code: "board.find(role('button', 'Open Anemony'))",
      make: async () => (await isolate(HiveBoard, loaded)).find(role('button', 'Open Anemony')),
    },
    {
      title: 'Nothing found, because a request failed',
      code: "board.find(role('article', 'Anemone'))",
      make: async () => (await isolate(HiveBoard, { props })).find(role('article', 'Anemone')),
      leaves: ['SIM-REQUEST-UNMATCHED'],
    },
    {
      title: 'Nothing found, because the answer is held',
      code: "board.find(text('Anemone'))   // network: { 'GET /api/hives': hold() }",
      make: async () =>
        (await isolate(HiveBoard, { props, network: { 'GET /api/hives': hold() } })).find(text('Anemone')),
    },
    {
      title: 'Nothing found, because the answer comes later',
      code: "board.find(text('Anemone'))   // network: { 'GET /api/hives': later(60_000, hives) }",
      make: async () => {
        const answer = later(60_000, hives);
        (await isolate(HiveBoard, { props, network: { 'GET /api/hives': answer } })).find(text('Anemone'));
      },
    },
    {
      title: 'Nothing found, because it is inside of a stub',
      code: "board.find(role('button', 'Open Anemone').inside(part(HiveCard)))   // stub: [HiveCard]",
      make: async () =>
        (await isolate(HiveBoard, { ...loaded, stub: [HiveCard] })).find(
          role('button', 'Open Anemone').inside(part(HiveCard)),
        ),
    },
    {
      title: 'Nothing found, and a child is stubbed',
      code: "board.find(role('button', 'Open Anemone'))   // depth: 1",
      make: async () =>
        (await isolate(HiveBoard, { ...loaded, depth: 1 })).find(role('button', 'Open Anemone')),
    },
    {
      title: 'A heading of another level',
      code: "board.find(role('heading', 'Anemone', { level: 2 }))",
      make: async () => (await isolate(HiveBoard, loaded)).find(role('heading', 'Anemone', { level: 2 })),
    },
    {
      title: 'A part of a name',
      code: "board.find(role('button', 'Open'))",
      make: async () =>
        (await isolate(HiveBoard, { props, network: { 'GET /api/hives': hives.slice(0, 1) } })).find(
          role('button', 'Open'),
        ),
    },
    {
      title: 'A child inside of a stub that needs the real one',
      code: 'isolate(Box, { stub: [Rack] })   // <Rack><Frame /></Rack>',
      make: () => isolate(Box, { stub: [Rack] }),
    },
    {
      title: 'A number where words belong',
      code: 'board.find(text(31));',
      make: async () => (await isolate(HiveBoard, loaded)).find(text(31 as never)),
    },
    {
      title: 'A level in place of a name',
      code: "board.find(role('heading', 3));",
      make: async () => (await isolate(HiveBoard, loaded)).find(role('heading', 3 as never)),
    },
    {
      title: 'A selector in place of a locator',
      code: "board.find(role('button').inside('article'));",
      make: async () => (await isolate(HiveBoard, loaded)).find(role('button').inside('article' as never)),
    },
    {
      title: 'A promise in place of a subject',
      code: 'expect(isolate(HiveBoard, …)).toShow(text("Anemone"));',
      make: async () => {
        const board = isolate(HiveBoard, loaded);
        await board;
        expect(board).toShow(text('Anemone'));
      },
    },
    {
      title: 'A step that is not awaited',
      code: "board.click(role('button', 'Open Anemone'));   // the test ends here",
      make: async () => {
        void (await isolate(HiveBoard, loaded)).click(role('button', 'Open Anemone'));
        await takeDown();
      },
    },
    {
      title: 'A value that nobody reads',
      code: 'isolate(HiveBoard, { props, network, provide: [[Weather, null]] })',
      make: () => atEnd(HiveBoard, { ...loaded, provide: [[Weather, null]] }),
    },
    {
      title: 'A held answer that is let go twice',
      code: 'await answer.release(hives);\nawait answer.release([])',
      make: async () => {
        const answer = hold();
        await isolate(HiveBoard, { props, network: { 'GET /api/hives': answer } });
        await answer.release(hives);
        await answer.release([]);
      },
    },
    {
      title: 'A route whose function throws',
      code: "network: { 'GET /api/hives': () => JSON.parse('hives') }",
      make: () =>
        isolate(HiveBoard, {
          props,
          network: {
            'GET /api/hives': () => {
              throw new TypeError('hives is not iterable');
            },
          },
        }),
    },
    {
      title: 'A route that cannot be sent',
      code: "network: { 'GET /api/hives': new Map() }",
      make: () => isolate(HiveBoard, { props, network: { 'GET /api/hives': new Map() } }),
    },
    {
      title: 'A request while no subject is up',
      code: "fetch('/api/hives')   // after await board.takeDown()",
      make: async () => {
        await (await isolate(HiveBoard, loaded)).takeDown();
        await fetch('/api/hives').catch(() => undefined);
        await takeDown();
      },
    },
    {
      title: 'A route that is asked too often',
      code: "board.everyRouteAsked({ 'GET /api/hives': 0 })",
      make: async () => (await isolate(HiveBoard, loaded)).everyRouteAsked({ 'GET /api/hives': 0 }),
    },
    {
      title: 'Requests of a route that does not exist',
      code: "board.requests.of('GET /api/hive')",
      make: async () => (await isolate(HiveBoard, loaded)).requests.of('GET /api/hive'),
    },
    {
      title: 'An operation whose answer lacks a field',
      code: "network: { 'QUERY InFlower': { plants: [{ id: 'p1', nam: 'Borage' }] } }   // query InFlower { plants { id name } }",
      make: async () => {
        const network = { ...loaded.network, 'QUERY InFlower': { plants: [{ id: 'p1', nam: 'Borage' }] } };
        const board = await isolate(HiveBoard, { props, network });
        const body = JSON.stringify({ query: 'query InFlower { plants { id name } }' });
        void fetch('/graphql', { method: 'POST', body });
        await board.atRest();
      },
    },
    {
      title: 'An operation that no route answers',
      code: "network: { 'QUERY Flower': { plants: [] } }   // query InFlower { plants { id } }",
      make: async () => {
        const board = await isolate(HiveBoard, {
          props,
          network: { ...loaded.network, 'QUERY Flower': { plants: [] } },
        });
        const body = JSON.stringify({ query: 'query InFlower { plants { id } }' });
        void fetch('/graphql', { method: 'POST', body }).catch(() => undefined);
        await board.takeDown();
      },
    },
    {
      title: 'A double that has drifted from its contract',
      code: "network: { 'ANY /api/*': fromOpenApi(document), 'GET /api/hives': [{ …, yard: 'nroth' }] }",
      make: async () => {
        const Hive = {
          type: 'object',
          properties: { yard: { enum: ['north', 'east', 'south'] } },
          additionalProperties: {},
        };
        const content = { 'application/json': { schema: { type: 'array', items: Hive } } };
        const document = {
          openapi: '3.1.0',
          paths: { '/api/hives': { get: { responses: { 200: { content } } } } },
        };
        const [anemone] = loaded.network['GET /api/hives'];
        const network = {
          'ANY /api/*': fromOpenApi(document),
          'GET /api/hives': [{ ...anemone, yard: 'nroth' }],
        };
        await isolate(HiveBoard, { props, network });
      },
    },
    {
      title: 'A socket that no route answers',
      code: "new WebSocket('/live/scales')   // in HiveBoard, or three levels below",
      make: async () => {
        const board = await isolate(HiveBoard, loaded);
        void new WebSocket('/live/scales');
        await board.takeDown();
      },
    },
    {
      title: 'A socket that is answered with data',
      code: "network: { 'WS /live/scales': [31.2] }",
      make: () => isolate(HiveBoard, { props, network: { ...loaded.network, 'WS /live/scales': [31.2] } }),
    },
    {
      title: 'Events that are answered with data',
      code: "new EventSource('/live/alerts')   // network: { 'GET /live/alerts': ['swarm'] }",
      make: async () => {
        const network = { ...loaded.network, 'GET /live/alerts': ['swarm'] };
        const board = await isolate(HiveBoard, { props, network });
        void new EventSource('/live/alerts');
        await board.atRest();
      },
    },
    {
      title: 'A channel that nobody connected to',
      code: "await scales.send({ kilograms: 31.2 })   // network: { 'WS /live/scales': scales }",
      make: async () => {
        const scales = channel();
        await isolate(HiveBoard, { props, network: { ...loaded.network, 'WS /live/scales': scales } });
        await scales.send({ kilograms: 31.2 });
      },
    },
    {
      title: 'A request that blocks the page',
      code: "request.open('GET', '/api/hives', false)",
      make: async () => {
        const board = await isolate(HiveBoard, loaded);
        const request = new XMLHttpRequest();
        request.open('GET', '/api/hives', false);
        try {
          request.send();
        } catch {
          await board.atRest();
        }
      },
    },
    {
      title: 'A selector that is none',
      code: "board.find(css('p:::x'))",
      make: async () => (await isolate(HiveBoard, loaded)).find(css('p:::x')),
    },
    {
      title: 'Several found',
      code: "board.find(role('button', /Open/))",
      make: async () => (await isolate(HiveBoard, loaded)).find(role('button', /Open/)),
    },
    {
      title: 'A role that does not exist',
      code: "board.find(role('buton', 'Open Anemone'))",
      make: async () => (await isolate(HiveBoard, loaded)).find(role('buton', 'Open Anemone')),
    },
    {
      title: 'A label that does not exist',
      code: "board.find(label('Search'))",
      make: async () => (await isolate(HiveBoard, loaded)).find(label('Search')),
    },
    {
      title: 'An element hidden from assistive technology',
      code: "scale.find(role('button', 'Tare'))",
      make: async () => (await isolate(Scale)).find(role('button', 'Tare')),
    },
    {
      title: 'Text that is split over elements',
      code: "scale.find(text('31.2 kg'))",
      make: async () => (await isolate(Scale)).find(text('31.2 kg')),
    },
    {
      title: 'A tag that changed while the text stayed',
      code: "expect(page).toShow(role('heading', 'Inspections'))",
      make: async () => {
        const page = await isolate(Retitled);
        await page.click(role('button', 'Open'));
        page.find(role('heading', 'Inspections'));
      },
    },
    {
      title: 'A test id that does not exist',
      code: "gate.find(testId('keepers'))",
      make: async () => (await isolate(YardGate, { provide: [[Session, imke]] })).find(testId('keepers')),
    },
    {
      title: 'A selector that matches nothing',
      code: "board.find(css('table'))",
      make: async () => (await isolate(HiveBoard, loaded)).find(css('table')),
    },
    {
      title: 'A part that is not on the page',
      code: 'board.find(part(YardGate))',
      make: async () => (await isolate(HiveBoard, loaded)).find(part(YardGate)),
    },
    {
      title: 'A part that there are not so many of',
      code: 'board.part(HiveCard).at(5)',
      make: async () => (await isolate(HiveBoard, loaded)).part(HiveCard).at(5),
    },
    {
      title: 'A string where a locator belongs',
      code: "board.find('Anemone')",
      make: async () => (await isolate(HiveBoard, loaded)).find('Anemone' as Any),
    },
    {
      title: 'Waiting in vain',
      code: "await board.appears(text('Anemone'), { within: 500 })",
      make: async () =>
        (await isolate(HiveBoard, { props, network: { 'GET /api/hives': hold() } })).appears(
          text('Anemone'),
          {
            within: 500,
          },
        ),
    },
    {
      title: 'Waiting for what cannot come',
      code: "await board.appears(text('Heather'))",
      make: async () => (await isolate(HiveBoard, loaded)).appears(text('Heather')),
    },
    {
      title: 'Waiting for what comes later',
      code: "isolate(HiveBoard, { props, network: { 'GET /api/hives': later(4000, hives) } }), then appears()",
      make: async () =>
        (await isolate(HiveBoard, { props, network: { 'GET /api/hives': later(4000, hives) } })).appears(
          text('Anemone'),
        ),
    },
    {
      title: 'A check that never holds',
      code: 'await board.eventually(() => board.requests.length === 2)',
      make: async () => {
        const board = await isolate(HiveBoard, loaded);
        await board.eventually(() => board.requests.length === 2);
      },
    },
    {
      title: 'A log that never happens',
      code: 'isolate(HiveBoard, { logs: [/overheated/] })',
      make: async () => {
        await isolate(HiveBoard, { ...loaded, logs: [/overheated/] });
        await takeDown();
      },
    },
    {
      title: 'A log that nobody expects',
      code: "console.error('The smoker is overheated')",
      make: async () => {
        const board = await isolate(HiveBoard, loaded);
        const { error } = console;
        console.error = () => undefined;
        console.error('The smoker is overheated: %d degrees', 90);
        console.error = error;
        await board.takeDown();
      },
    },
    {
      title: 'Moving a clock that is real',
      code: "await board.time.advance('4s')",
      make: async () => (await isolate(HiveBoard, loaded)).time.advance('4s'),
    },
    {
      title: 'A span of time in words',
      code: "await board.time.advance('4 seconds')",
      make: async () => (await isolate(HiveBoard, { ...loaded, time: 'virtual' })).time.advance('4 seconds'),
    },
    {
      title: 'A time zone that does not exist',
      code: "isolate(HiveBoard, { time: { zone: 'Europe/Pariss' } })",
      make: () => isolate(HiveBoard, { ...loaded, time: { zone: 'Europe/Pariss' } }),
    },
    {
      title: 'A click on a disabled button',
      code: "gate.click(role('button', 'Sign in'))",
      make: async () =>
        (await isolate(YardGate, { provide: [[Session, nobody]] })).click(role('button', 'Sign in')),
    },
    {
      title: 'A click on what is not displayed',
      code: "scale.click(css('button[style]', { hidden: true }))",
      make: async () => (await isolate(Scale)).click(css('button[style]', { hidden: true })),
    },
    {
      title: 'Typing into what is no field',
      code: "board.type(role('heading', /Hives/), 'bor')",
      make: async () => (await isolate(HiveBoard, loaded)).type(role('heading', /Hives/), 'bor'),
    },
    {
      title: 'A key that does not exist',
      code: "board.press('Return')",
      make: async () => (await isolate(HiveBoard, loaded)).press('Return'),
    },
    {
      title: 'A key by another name',
      code: "await board.press('Ctrl+K')",
      make: async () => (await isolate(HiveBoard, loaded)).press('Ctrl+K'),
    },
    {
      title: 'A locator where a key belongs',
      code: "await board.press(role('button', 'Log inspection'))",
      make: async () => (await isolate(HiveBoard, loaded)).press(role('button', 'Log inspection') as Any),
    },
    {
      title: 'Asking a subject that was taken down',
      code: 'await takeDown();\nboard.find(…)',
      make: async () => {
        const board = await isolate(HiveBoard, loaded);
        await takeDown();
        board.find(text('Anemone'));
      },
    },
    {
      title: 'Telling a parent what it does not listen to',
      code: "board.part(HiveCard).at(0).tell('onOpened', 'h1')",
      make: async () =>
        (
          await isolate(HiveBoard, {
            ...loaded,
            props: { yard: 'north', [listens]: () => undefined },
            stub: [HiveCard],
          })
        )
          .part(HiveCard)
          .at(0)
          .tell('onOpened' as never, 'h1' as never),
    },
    {
      title: 'Telling by several children at once',
      code: "board.part(HiveCard).tell('onOpen', 'h1')",
      make: async () =>
        (await isolate(HiveBoard, { ...loaded, stub: [HiveCard] }))
          .part(HiveCard)
          .tell('onOpen' as never, 'h1' as never),
    },
    {
      title: 'Asking for what was not provided',
      code: 'board.given(SessionContext)',
      make: async () => (await isolateWith({ provide: [[Weather, null]] })(HiveBoard, loaded)).given(Session),
    },
    {
      title: 'A stand-in asked for what the class does not have',
      code: 'standIn(HiveStore, { laod: hold() })',
      make: async () => standIn(HiveStore, { laod: hold() } as Any),
    },
    {
      title: 'A stand-in asked for what it was not given',
      code: "standIn<HiveStore>(['load']).save()",
      make: async () => standIn<HiveStore>(['load']).save(),
    },
    { title: 'A component that never comes to rest', code: 'isolate(Loop)', make: () => isolate(Loop) },
  ];
}
