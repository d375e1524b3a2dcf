import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import {
  fail,
  hold,
  inTurn,
  label,
  part,
  role,
  SimulacraError,
  spy,
  swap,
  takeDown,
  text,
  type State,
  type Subject,
} from 'simulacra';
import 'simulacra/jest';
import { hives, type Hive } from '../../examples/shared/hive';
import { accessible } from './access';
import { wire } from './wire';
import { handled } from './gestures';
import { guarded } from './guards';
import { housed } from './page';
import { declared } from './states';
import { racing } from './races';
import { timely } from './time';
import { trust } from './trust';

setFlagsFromString('--expose_gc');
const collect = runInNewContext('gc') as () => void;

const heapAfterCollection = () => {
  collect();
  return process.memoryUsage().heapUsed;
};

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

/** What a framework brings along: its `isolate`, its `stub`, and the same components in its own idiom. */
export interface Kit {
  readonly framework: string;
  isolate(component: Any, options?: Any): Promise<Subject<Any>>;
  isolateWith(options: Any): (component: Any, options?: Any) => Promise<Subject<Any>>;
  stub(component: Any, how?: Any): Any;
  states(component: Any, common: Any, declared: Any): Record<string, State<Any>>;
  /** A rendering for a stub: an element with the role note and the name of the hive. */
  readonly note: Any;
  /** A wrapper that says "Yard open" above what it wraps, and one that says "Gate". */
  readonly wrappers: readonly [outer: Any, inner: Any];
  /** Gives the name of the keeper. */
  readonly Keeper: Any;
  /** How a parent listens to what is told by a name, and by which name it is told: `onOpen` and `open`. */
  readonly listens: (name: string) => string;
  readonly tells: (name: string) => string;
  /** Something else that can be provided, and that no component asks for. */
  readonly Unread: Any;
  /** Leads to a component that renders `readScale(hiveId).kilograms`, `unit` and what `fetchWeight` comes to. */
  readonly scaleFeed: () => Promise<unknown>;
  readonly components: {
    /** Loads the hives of `yard`, renders a Card each; "Try again" on failure; calls `onOpen`. */
    readonly Board: Any;
    /** Renders `hive`, `children` and a Weight; its button calls `onOpen` with the id of the hive. */
    readonly Card: Any;
    /** The weight of a hive; two levels below the board. */
    readonly Weight: Any;
    /** Greets the provided keeper; throws without one. */
    readonly Greeting: Any;
    /** A button "Write" that focuses its child Pad through a ref. */
    readonly Desk: Any;
    readonly Pad: Any;
    /** Throws while rendering when `ill` is true. */
    readonly Patient: Any;
    /** A form: textbox "Note", number "Varroa", select "Yard", checkbox "Marked", radios "Calm" and "Angry", button "Log" that is disabled without a note; calls `onLog` with all of it. */
    readonly Log: Any;
    /** Wraps a Patient. */
    readonly Ward: Any;
    /** Calls `work` when it is mounted and by its button "Run", catches what it throws, and shows what it comes to. */
    readonly Runner: Any;
    /** Does what `play` says when it is mounted and by its button "Go", and shows the text it is told to. */
    readonly Live: Any;
    /** Tells what is done to it, by `onTold`. */
    readonly Bench: Any;
  };
}

const route = 'GET /api/hives?yard=:yard';
const names = (subject: Subject<Any>, card: Any) =>
  (subject.part(card).props as { hive: Hive }[]).map(({ hive }) => hive.name);

const codeOf = async (work: () => unknown): Promise<string> => {
  try {
    await work();
  } catch (error) {
    if (error instanceof SimulacraError) return error.code;
    throw error;
  }
  return 'nothing was thrown';
};

/** What a page's global objects hold, property by property. */
function readGlobals() {
  const read = (object: object, name: string) =>
    Object.entries(Object.getOwnPropertyDescriptors(object)).map(
      ([key, descriptor]) => [`${name}.${key}`, descriptor] as const,
    );
  return new Map([
    ...read(globalThis, 'window'),
    ...read(console, 'console'),
    ...read(navigator, 'navigator'),
    ['body', { value: document.body.innerHTML }] as const,
  ]);
}

function differences(before: ReturnType<typeof readGlobals>, after: ReturnType<typeof readGlobals>) {
  return [...new Set([...before.keys(), ...after.keys()])].filter((key) => {
    const [one, other] = [before.get(key), after.get(key)] as [PropertyDescriptor?, PropertyDescriptor?];
    return (['value', 'get', 'set'] as const).some((part) => !Object.is(one?.[part], other?.[part]));
  });
}

/** Every behaviour, stated once and run for every framework. */
export function conform(kit: Kit): void {
  const { isolate, stub, components, listens, tells, scaleFeed } = kit;
  const { Board, Card, Weight, Greeting, Desk, Pad, Patient, Ward, Log } = components;
  const loaded = { props: { yard: 'north' }, network: { [route]: hives } };

  const { where = '' } = globalThis as { where?: string };
  describe(`${kit.framework}${where}`, () => {
    describe('states', () => {
      it('stays loading while the answer is held, then shows what was released', async () => {
        const answer = hold<Hive[]>();
        const board = await isolate(Board, { props: { yard: 'north' }, network: { [route]: answer } });
        expect(board).toShow(role('status', 'Loading hives'));
        await board.atRest();
        expect(board).toShow(role('status', 'Loading hives'));
        expect(answer.asked).toBe(1);
        await answer.release(hives);
        expect(board).not.toShow(role('status'));
        expect(board).toShow(role('article'), { times: 3 });
      });

      it('passes through loading when the answer is there at once', async () => {
        const board = await isolate(Board, loaded);
        expect(board).not.toShow(role('status'));
        expect(board).toHaveShown(role('status', 'Loading hives'));
        expect(board).not.toHaveShown(role('alert'));
        expect(String(board.chronicle)).toMatch(/status "Loading hives"[^]*answered[^]*Anemone/);
      });

      it('fails, and recovers when asked again', async () => {
        const board = await isolate(Board, { ...loaded, network: { [route]: inTurn(fail(503), hives) } });
        await board.click(role('button', 'Try again'));
        expect(board).toShow(text('Anemone'));
        expect(board.requests.map(({ status }) => status)).toEqual([503, 200]);
        expect(board.requests[0]!.from).toBe('Board');
      });

      it.each([
        ['a status', fail(404, { detail: 'No such yard' })],
        ['a broken connection', fail()],
        ['a held answer that fails', hold()],
      ])('fails with %s', async (_, answer) => {
        const board = await isolate(Board, { ...loaded, network: { [route]: answer } });
        if (answer.simulacra === 'hold') await answer.fail(500);
        expect(board).toShow(role('alert', /could not be loaded/));
      });

      it('is empty with an empty answer', async () => {
        const board = await isolate(Board, { ...loaded, network: { [route]: [] } });
        expect(board).toShow(text('No hives'));
      });

      it('lets answers overtake each other', async () => {
        const [north, east] = [hold<Hive[]>(), hold<Hive[]>()];
        const board = await isolate(Board, {
          ...loaded,
          network: { 'GET /api/hives?yard=north': north, 'GET /api/hives?yard=east': east },
        });
        await board.update({ yard: 'east' });
        await east.release([hives[2]!]);
        await north.release(hives);
        expect(board.findAll(role('article')).length).toBe(1);
        expect(board).toShow(text('Clover'));
      });
    });

    describe('stubs', () => {
      it('replaces by reference, keeps what each was given in order, and runs none of the child', async () => {
        const board = await isolate(Board, { ...loaded, stub: [Card] });
        expect(board).toShow(part(Card), { times: 3 });
        expect(names(board, Card)).toEqual(['Anemone', 'Borage', 'Clover']);
        expect(board.findAll(part(Card).inside(role('region')))[0]!.getAttribute('data-part')).toBe('Card');
      });

      it('replaces by name, and deeper than the first level', async () => {
        const board = await isolate(Board, { ...loaded, stub: ['Weight'] });
        expect(board).toShow(part('Weight'), { times: 3 });
        expect(board.part(Weight).props[0]).toMatchObject({ kilograms: 31.2 });
      });

      it('replaces every child at one level, but for those kept', async () => {
        const board = await isolate(Board, { ...loaded, depth: 1 });
        expect(board).toShow(part(Card), { times: 3 });
        expect(board).not.toShow(part(Weight));
        const kept = await isolate(Board, { ...loaded, depth: 1, keep: [Card] });
        expect(kept).toShow(role('article'), { times: 3 });
        expect(kept).toShow(part(Weight), { times: 3 });
        expect(kept.find(part(Weight).inside(role('article', 'Anemone'))).getAttribute('data-part')).toBe(
          'Weight',
        );
        expect(kept).not.toShow(text('31.2 kg'));
      });

      it('replaces by a rendering of the user', async () => {
        const board = await isolate(Board, { ...loaded, stub: [stub(Card, kit.note)] });
        expect(board.findAll(role('note')).map(({ textContent }) => textContent)).toEqual([
          'Anemone',
          'Borage',
          'Clover',
        ]);
      });

      it('keeps what the parent puts into the child', async () => {
        const board = await isolate(Board, { ...loaded, stub: [Card] });
        expect(board).toShow(text('Tasks: 1').inside(part(Card)));
      });

      it('lets a parent reach the handle, and records it', async () => {
        const desk = await isolate(Desk, { stub: [stub(Pad, { handle: ['focus'] })] });
        await desk.click(role('button', 'Write'));
        expect(desk.part(Pad).handle['focus']!.calls).toEqual([[]]);
      });

      it('explains a handle that is missing', async () => {
        const desk = await isolate(Desk, { stub: [Pad] });
        expect(await codeOf(() => desk.click(role('button', 'Write')))).toBe('SIM-STUB-HANDLE');
      });

      it('tells the parent what the real child would', async () => {
        const opened = spy();
        const props = { yard: 'north', [listens('open')]: opened };
        const board = await isolate(Board, { ...loaded, props, stub: [Card] });
        await (board.part(Card) as Any).at(1).tell(tells('open'), 'h2');
        expect(opened.calls).toEqual([['h2']]);
        expect((board.outputs as Any)[tells('open')]).toEqual([['h2']]);
        expect(board.outputs).toEqual({ [tells('open')]: [['h2']] });
        expect(board).toShow(text('Opened h2'));
      });

      it('treats one child differently in two live subjects', async () => {
        const [stubbed, real] = await Promise.all([
          isolate(Board, { ...loaded, stub: [Card] }),
          isolate(Board, loaded),
        ]);
        expect(stubbed.container.querySelectorAll('article').length).toBe(0);
        expect(real.container.querySelectorAll('article').length).toBe(3);
        await stubbed.update({ yard: 'east' });
        expect(stubbed).toShow(part(Card), { times: 3 });
        expect(real).toShow(role('article'), { times: 3 });
      });

      it('has defaults of a team, which need not be of use in every test', async () => {
        const isolateBoard = kit.isolateWith({
          stub: [Card],
          network: { [route]: hold() },
          props: { yard: 'north' },
        });
        const board = await isolateBoard(Board, { network: { [route]: hives } });
        expect(board).toShow(part(Card), { times: 3 });
        expect(await isolateBoard(Board)).toShow(role('status'));
        await takeDown();
      });

      it.each([
        ['never rendered', () => [Pad], 'SIM-STUB-UNUSED'],
        ['another case', () => ['card'], 'SIM-STUB-NAME'],
        ['a letter off', () => ['Crad'], 'SIM-STUB-NAME'],
      ])('refuses a stub that is %s', async (_, make, code) => {
        expect(
          await codeOf(async () => {
            await isolate(Board, { ...loaded, stub: make() });
            await takeDown();
          }),
        ).toBe(code);
      });
    });

    describe('surroundings', () => {
      it('provides a value', async () => {
        const greeting = await isolate(Greeting, { provide: [[kit.Keeper, 'Imke']] });
        expect(greeting).toShow(text('Good day, Imke'));
        expect(greeting.given(kit.Keeper)).toBe('Imke');
      });

      it('wraps, outermost first', async () => {
        const greeting = await isolate(Greeting, {
          provide: [[kit.Keeper, 'Imke']],
          wrap: [...kit.wrappers],
        });
        expect(greeting.container.textContent).toMatch(/^Yard open.*Gate.*Good day, Imke$/);
      });

      it('gives the later of two values for one token, a test before its team', async () => {
        const twice = await isolate(Greeting, {
          provide: [
            [kit.Keeper, 'Imke'],
            [kit.Keeper, 'Joris'],
          ],
        });
        expect(twice).toShow(text('Good day, Joris'));
        const isolateAsTeam = kit.isolateWith({ provide: [[kit.Keeper, 'Imke']] });
        expect(await isolateAsTeam(Greeting, { provide: [[kit.Keeper, 'Noor']] })).toShow(
          text('Good day, Noor'),
        );
        expect(await isolateAsTeam(Greeting)).toShow(text('Good day, Imke'));
      });

      it('explains a provider that is missing', async () => {
        expect(await codeOf(() => isolate(Greeting))).toBe('SIM-PROVIDE-MISSING');
        expect(document.body.children.length).toBe(0);
      });

      it('takes other props later, and keeps the rest', async () => {
        const card = await isolate(Card, { props: { hive: hives[0], [listens('open')]: spy() } });
        await card.update({ hive: hives[1] });
        expect(card).toShow(role('heading', 'Borage'));
        await card.click(role('button', 'Open'));
      });

      it('explains a component that throws, also when it does so later', async () => {
        expect(await codeOf(() => isolate(Ward, { props: { ill: true } }))).toBe('SIM-RENDER-THREW');
        const ward = await isolate(Ward, { props: { ill: false } });
        expect(await codeOf(() => ward.update({ ill: true }))).toBe('SIM-RENDER-THREW');
        expect(await isolate(Ward, { props: { ill: true }, stub: [Patient] })).toShow(part(Patient));
      });
    });

    describe('acting', () => {
      it('fills in a form as a person does', async () => {
        const logged = spy();
        const log = await isolate(Log, { props: { [listens('log')]: logged } });
        await log.type(label('Note'), 'calm, 3 frames');
        await log.clear(label('Note'));
        await log.type(label('Note'), 'calm');
        await log.type(label('Varroa'), '12');
        await log.press('Backspace', label('Varroa'));
        await log.choose(label('Yard'), 'East');
        await log.choose(label('Marked'));
        await log.choose(label('Angry'));
        await log.click(role('button', 'Log'));
        expect(logged.calls).toEqual([
          [{ note: 'calm', varroa: '1', yard: 'east', marked: true, mood: 'angry' }],
        ]);
      });

      it('sends a form by the Enter key, and moves by Tab', async () => {
        const logged = spy();
        const log = await isolate(Log, { props: { [listens('log')]: logged } });
        await log.type(label('Note'), 'x');
        await log.press('Tab');
        expect(document.activeElement).toBe(log.find(label('Varroa')));
        await log.press('Shift+Tab');
        await log.press('Enter');
        expect(logged.calls.length).toBe(1);
      });

      it('reports what a listener throws to the step that set it off', async () => {
        const boom = () => {
          throw new RangeError('39.5 degrees');
        };
        const card = await isolate(Card, { props: { hive: hives[0], [listens('open')]: boom } });
        expect(await codeOf(() => card.click(role('button', 'Open')))).toBe('SIM-HANDLER-THREW');
      });

      it('refuses what a person could not do', async () => {
        const log = await isolate(Log, { props: { [listens('log')]: spy() } });
        expect(await codeOf(() => log.click(role('button', 'Log')))).toBe('SIM-ACT-DISABLED');
        expect(await codeOf(() => log.type(role('heading'), 'x'))).toBe('SIM-ACT-FIELD');
        expect(await codeOf(() => log.choose(label('Yard'), 'Wset'))).toBe('SIM-ACT-OPTION');
        expect(await codeOf(() => log.press('Entre'))).toBe('SIM-ACT-KEY');
      });
    });

    describe('what modules export', () => {
      const scale = () => import('./scale');
      // Another test may have loaded the original before.
      const connections = () => (globalThis as { connections?: string[] }).connections?.length ?? 0;
      const at = (kilograms: number, fetchWeight: Any = 30) =>
        swap(scale, { readScale: { kilograms }, fetchWeight, unit: 'stone' });
      const feed = (...swaps: Any[]) => isolate(scaleFeed, { props: { hiveId: 'h1' }, swap: swaps });

      it('is swapped for a test, and the original never run', async () => {
        const given = at(5, Promise.resolve(30));
        const before = connections();
        const subject = await feed(given);
        expect(subject).toShow(text('5 stone. On average 30.'));
        expect(connections()).toBe(before);
        expect(subject.given(given).readScale.calls[0]).toEqual(['h1']);
        expect(subject.chronicle.of('called').map(({ what }) => what)).toContain('fetchWeight');
      });

      it('takes every answer, and is itself again in the next test', async () => {
        const answer = hold<number>();
        const held = await feed(at(6, answer));
        expect(held).toShow(text('6 stone. Asking.'));
        await answer.release(31);
        expect(held).toShow(text('6 stone. On average 31.'));
        await takeDown();
        expect(await feed(at(7, fail('No scale')))).toShow(text('7 stone. No scale.'));
        await takeDown();
        expect(await feed()).toShow(text('2 kg. On average 2.'));
      });

      it('is told apart where two subjects are rendered', async () => {
        const one = await feed(swap(scale, { readScale: { kilograms: 1 } }));
        const two = await feed(swap(scale, { readScale: { kilograms: 2 } }));
        await one.update({ hiveId: 'h12' });
        expect([one, two].map(({ container }) => container.textContent?.trim())).toEqual([
          '1 kg. On average 3.',
          '2 kg. On average 2.',
        ]);
      });

      it('is refused, or missed, with an explanation', async () => {
        const refusing = swap(scale, { readScale: { kilograms: 1 } }, { rest: 'refused' });
        expect(await codeOf(() => feed(refusing))).toBe('SIM-SWAP-REFUSED');
        await isolate(Board, { ...loaded, swap: [at(1)] });
        expect(await codeOf(takeDown)).toBe('SIM-SWAP-UNUSED');
      });
    });

    trust(kit);
    timely(kit);
    guarded(kit);
    declared(kit);
    racing(kit);
    accessible(kit);
    wire(kit);
    handled(kit);
    housed(kit);

    describe('the end of a test', () => {
      it('reports a request that nobody answered', async () => {
        const board = await isolate(Board, { props: { yard: 'north' }, network: { 'POST /api/hives': [] } });
        expect(board).toShow(role('alert'));
        expect(await codeOf(takeDown)).toBe('SIM-REQUEST-UNMATCHED');
      });

      it('leaves the heap as it was after hundreds of subjects', async () => {
        const once = async (answer: unknown) => {
          await isolate(Board, {
            ...loaded,
            stub: answer === hives ? [Card] : [],
            network: { [route]: answer },
          });
          await takeDown();
        };
        const heaps: number[] = [];
        for (let round = 0; round < 5; round++) {
          for (let n = 0; n < 40; n++) {
            await once(hives);
            await once(hold());
          }
          heaps.push(heapAfterCollection());
        }
        // Caches fill in the first round; after it the heap may not grow with the number of subjects.
        expect((heaps[4]! - heaps[1]!) / 240).toBeLessThan(4000);
      }, 90_000);

      it('leaves nothing behind, property by property', async () => {
        const before = readGlobals();
        await isolate(Board, { ...loaded, network: { [route]: hold() } });
        await takeDown();
        expect(differences(before, readGlobals())).toEqual([]);
      });

      it('refuses a subject that is gone', async () => {
        const board = await isolate(Board, loaded);
        await takeDown();
        expect(await codeOf(() => board.find(role('region')))).toBe('SIM-SUBJECT-GONE');
      });

      it('has an outline that compares at one level', async () => {
        const full = await isolate(Board, loaded);
        const shallow = await isolate(Board, { ...loaded, depth: 1 });
        expect(full.outline({ depth: 1 })).toBe(shallow.outline({ depth: 1 }));
        expect(full.outline()).toContain('heading "Anemone"');
        expect(shallow.outline()).not.toContain('heading "Anemone"');
      });
    });
  });
}
