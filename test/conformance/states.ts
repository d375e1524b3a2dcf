import {
  cases,
  fail,
  hold,
  inTurn,
  later,
  part,
  role,
  SimulacraError,
  takeDown,
  text,
  verifyStates,
  type StatesReport,
} from 'simulacra';
import { hives } from '../../examples/shared/hive';
import type { Kit } from './specification';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

const route = 'GET /api/hives?yard=:yard';
const failureOf = async (work: () => unknown): Promise<SimulacraError> => {
  try {
    await work();
  } catch (error) {
    if (error instanceof SimulacraError) return error as SimulacraError;
    throw error;
  }
  throw new Error('nothing was thrown');
};
const told = (failure: Error | undefined) => failure?.message.replace(/\s+/g, ' ') ?? '';

/** What declared states do, stated once and run for every framework. */
export function declared(kit: Kit): void {
  const { isolate, states } = kit;
  const { Board, Card } = kit.components;
  const common = { props: { yard: 'north' }, stub: [Card] };
  const four = {
    loading: { network: { [route]: hold() }, shows: [role('status', 'Loading hives')] },
    failed: { network: { [route]: fail(503) }, shows: [role('button', 'Try again')] },
    empty: { network: { [route]: [] }, shows: [text('No hives')], lacks: [role('status')] },
    loaded: { network: { [route]: hives }, counts: [[part(Card), 3]] },
  };
  const of = (more: Any, also: Any = {}) => states(Board, { ...common, ...also }, more);
  const codes = ({ states: all, failures }: StatesReport) =>
    [...all.map(({ failure }) => failure), ...failures].flatMap((failure) =>
      failure ? [(failure as SimulacraError).code] : [],
    );

  describe('declared states', () => {
    it('come about one by one, and are told apart', async () => {
      const report = await verifyStates(of(four), { outlines: true });
      expect(report.component).toBe('Board');
      expect(report.states.map(({ name, holds }) => [name, holds])).toEqual(
        Object.keys(four).map((name) => [name, true]),
      );
      expect(report.states[1]!.outline).toContain('button "Try again"');
      expect(report.states.every(({ milliseconds }) => milliseconds > 0)).toBe(true);
      expect([report.pairs, report.failures]).toEqual([{ compared: 12, apart: 12 }, []]);
    });

    it('are plain data: to declare them renders and asks nothing', async () => {
      const page = document.body.innerHTML;
      const asked = hold();
      const board = of({ loading: { network: { [route]: asked }, shows: [role('status')] } });
      expect([asked.asked, document.body.innerHTML]).toEqual([0, page]);
      expect([board['loading']!.name, board['loading']!.of]).toEqual(['loading', 'Board']);
      await takeDown();
    });

    it('begin a test', async () => {
      const board = of(four);
      const subject = await isolate(board['failed']);
      expect(subject).toShow(role('alert'));
      const other = await isolate(board['failed'], { network: { [route]: [] } });
      expect(other).toShow(text('No hives'));
    });

    it('build on another, with what is done to get there', async () => {
      const board = of({
        ...four,
        retried: {
          from: 'failed',
          network: { [route]: inTurn(fail(503), hold()) },
          after: (subject: Any) => subject.click(role('button', 'Try again')),
          shows: [role('status')],
          looksLike: ['loading'],
        },
        gone: {
          from: 'retried',
          network: { [route]: inTurn(fail(503), fail(503)) },
          shows: [role('alert')],
          looksLike: ['failed'],
        },
      });
      expect(codes(await verifyStates(board))).toEqual([]);
      const subject = await isolate(board['retried']);
      expect(subject.requests).toHaveLength(2);
      expect(await isolate(board['gone'])).toShow(role('alert'));
    });

    it('are made of a table', async () => {
      const cards = states(Card, {}, {
        ...cases('{name} of {queen.year}', hives, (hive) => ({
          props: { hive },
          shows: [role('heading', hive.name)],
        })),
        ...cases('colour {}', ['blue'], () => ({ props: { hive: hives[0] }, shows: [role('button')] })),
      } as Any);
      expect(Object.keys(cards)).toEqual([
        ...hives.map(({ name, queen }) => `${name} of ${queen.year}`),
        'colour blue',
      ]);
      const report = await verifyStates(cards);
      expect(report.states.every(({ holds }) => holds)).toBe(true);
      // What all cards have tells nothing apart.
      expect(report.pairs).toEqual({ compared: 12, apart: 8 });
    });

    it('with a late answer are as they are when it has come', async () => {
      const board = of(
        {
          late: {
            network: { [route]: later(4000, hives) },
            after: (subject: Any) => subject.time.advance('4s'),
            counts: [[part(Card), 3]],
          },
        },
        { time: 'virtual' },
      );
      expect(codes(await verifyStates(board))).toEqual([]);
    });

    it('come about in every order of arrival, where that is asked for', async () => {
      const { Live } = kit.components;
      const search = (isMended: boolean) => {
        const play = () => {
          let last = '';
          const words = ['a', 'an'];
          return {
            press: (show: (text: string) => void) => {
              const q = (last = words.shift()!);
              const take = (found: string) => (!isMended || last === q) && show(found);
              void fetch(`/api/hives?q=${q}`).then(async (response) =>
                take((await response.json()) as string),
              );
            },
          };
        };
        // Each run has a play of its own.
        let now = play();
        const press = (subject: Any) => subject.click(role('button', 'Go'));
        return states(
          Live,
          {
            props: {
              play: { start: () => (now = play()) && undefined, press: (show: Any) => now.press(show) },
            },
          },
          {
            found: {
              network: { 'GET /api/hives?q=a': 'Borage', 'GET /api/hives?q=an': 'Anemone' },
              after: async (subject: Any) => {
                await press(subject);
                await press(subject);
              },
              shows: [role('status', 'Anemone')],
              everyArrival: true,
            },
          },
        );
      };
      const [seeded, mended] = [await verifyStates(search(false)), await verifyStates(search(true))];
      expect(codes(seeded)).toEqual(['SIM-ARRIVAL']);
      expect(told(seeded.states[0]!.failure)).toMatch(
        /q=an arrived before GET \/api\/hives\?q=a: .* does not look as its state "found" says/,
      );
      expect(codes(mended)).toEqual([]);
    });

    it('may declare what the first of two answers brings', async () => {
      const ask = (what: string) => fetch(`/api/${what}`).then((answer) => answer.json() as Promise<string>);
      const start = (show: Any) =>
        void ask('hive').then(async (hive) => {
          show(hive);
          show(`${hive} by the ${await ask('yard')}`);
        });
      const network = { 'GET /api/hive': 'Anemone', 'GET /api/yard': 'brook' };
      const known = { network, shows: [role('status', /^Anemone/)] };
      const report = await verifyStates(
        states(kit.components.Live, { props: { play: { start } } }, { known }),
        {
          outlines: true,
        },
      );
      expect(codes(report)).toEqual([]);
      expect(report.states[0]!.outline).toContain('Anemone by the brook');
    });

    const { loading, failed, empty, loaded } = four;
    const alone = { loading, failed, empty };
    it.each<[string, Any, string[], RegExp]>([
      [
        'that do not show what they declare',
        { ...alone, failed: { ...failed, shows: [role('button', 'Try agin')] } },
        ['SIM-STATE-WRONG'],
        /Board does not look as its state "failed" says\. .*"Try agin"\..*Did you mean role\('button', 'Try again'\)/,
      ],
      [
        'that show what they lack',
        { ...alone, failed: { ...failed, lacks: [role('alert')] } },
        ['SIM-STATE-WRONG'],
        /state "failed" says\. Something on the page has the role "alert", and nothing should/,
      ],
      [
        'that show more of it',
        { ...alone, loaded: { ...loaded, counts: [[part(Card), 2]] } },
        ['SIM-STATE-WRONG'],
        /3 elements on the page are a Card; the test expects 2/,
      ],
      [
        'that hold before their answer has come',
        { ...alone, loaded: { ...loaded, counts: [], shows: [role('region', 'Hives')] } },
        ['SIM-STATE-EARLY'],
        /"loaded" of Board declares was so before GET \/api\/hives\?yard=north was answered.*role\('region', 'Hives'\).*shows: \[part\(Card\)/,
      ],
      [
        'whose request nobody answers',
        { ...alone, loaded: { ...loaded, network: { 'GET /api/hive': hives } } },
        ['SIM-STATE-WRONG'],
        /GET \/api\/hives\?yard=north/,
      ],
      [
        'that cannot be told apart',
        { loading, failed, refused: { network: { [route]: fail(404) }, shows: [role('alert')] } },
        ['SIM-STATE-ALIKE'],
        /Board.*"(?:failed|refused)".*Their pages are alike.*looksLike: \['(?:failed|refused)'\]/,
      ],
      [
        'of which one declares less than it shows',
        { loaded, some: { network: { [route]: hives.slice(1) }, shows: [part(Card)] } },
        ['SIM-STATE-ALIKE'],
        /Board in the state "loaded" has all that "some" declares.*not as often in "loaded": some: \{ counts: \[\[part\(Card\), 2\]/,
      ],
      [
        'of which another has what tells it apart',
        { failed, any: { network: { [route]: [] }, shows: [text(/hives/i)], lacks: [role('status')] } },
        ['SIM-STATE-ALIKE'],
        /Board in the state "failed" has all that "any" declares.*any: \{ shows: \[text\('No hives'\)\] \} .*any: \{ lacks: \[.*role\('button', 'Try again'\)/,
      ],
      [
        'that say they look like another, and do not',
        { ...alone, empty: { ...empty, looksLike: ['failed'] } },
        ['SIM-STATE-APART'],
        /"empty" of Board says that it looks like "failed"/,
      ],
      [
        'with a route that none needs',
        { loading, failed: { ...failed, network: { [route]: fail(503), 'GET /api/yards': [] } } },
        ['SIM-STATE-UNUSED'],
        /None of the 2 states of Board.*network: 'GET \/api\/yards' was never asked for/,
      ],
    ])('%s are reported', async (_, given, wanted, words) => {
      // What is stubbed for a state that is not there would be of no use.
      const needsCard = JSON.stringify(Object.keys(given as object)).match(/loaded|some/);
      const report = await verifyStates(states(Board, needsCard ? common : { props: common.props }, given));
      expect(codes(report)).toEqual(wanted);
      const failure = report.states.find((state) => state.failure)?.failure ?? report.failures[0];
      expect(told(failure)).toMatch(words);
    });

    it('report what none of them needs: a stub, a value', async () => {
      const [first, second] = [kit.Keeper, kit.Unread];
      const given = {
        ...common,
        provide: [
          [first, 'Imke'],
          [second, 'x'],
        ],
      };
      const report = await verifyStates(states(Board, given, { loading, failed }));
      expect(codes(report)).toEqual(['SIM-STATE-UNUSED']);
      expect(told(report.failures[0])).toMatch(/stub: Card was never rendered.*provide: .* was never read/);
    });

    it('leave nothing behind where one fails', async () => {
      const page = document.body.innerHTML;
      await verifyStates(of({ ...four, loaded: { ...loaded, counts: [[part(Card), 9]] } }));
      expect(document.body.innerHTML).toBe(page);
    });

    it.each<[string, () => unknown, string, RegExp]>([
      [
        'a key with a letter off',
        () => of({ loading: { ...loading, show: [] } }),
        'SIM-OPTION-UNKNOWN',
        /the state "loading".*Did you mean shows/,
      ],
      ['an option of all', () => of(four, { stubs: [] }), 'SIM-OPTION-UNKNOWN', /Did you mean stub/],
      ['a state that shows nothing', () => of({ loading: { network: {} } }), 'SIM-STATE-NONE', /"loading"/],
      ['a state that is none', () => of({ loading: 7 }), 'SIM-STATE-CHECK', /has 7/],
      [
        'a text for a locator',
        () => of({ loading: { shows: ['Loading'] } }),
        'SIM-STATE-CHECK',
        /has "Loading" under "shows".*role\('button'/,
      ],
      [
        'a count without a number',
        () => of({ loading: { counts: [[role('status'), '3']] } }),
        'SIM-STATE-CHECK',
        /counts: \[\[part\(HiveCard\), 3\]\]/,
      ],
      [
        'a step that is none',
        () => of({ loading: { ...loading, after: role('button') } }),
        'SIM-STATE-CHECK',
        /under "after"/,
      ],
      [
        'a state to build on that is not there',
        () => of({ ...four, again: { ...loading, from: 'faled' } }),
        'SIM-STATE-UNKNOWN',
        /names a state "faled" \(from\).*Did you mean from: 'failed'/,
      ],
      [
        'states that build on each other',
        () => of({ one: { ...loading, from: 'two' }, two: { ...loading, from: 'one' } }),
        'SIM-STATE-CIRCLE',
        /"one" → "two" → "one"/,
      ],
      ['what is no component', () => states(undefined, {}, four), 'SIM-COMPONENT-MISSING', /undefined/],
      [
        'a name for two rows',
        () => cases('hive', hives, () => loading),
        'SIM-STATE-TWICE',
        /cases\('hive', …\) get the same name: "hive"/,
      ],
      ['no states at all', () => verifyStates({ ...of(four) }), 'SIM-STATES-GIVEN', /verifyStates\(\) takes/],
    ])('explain %s', async (_, work, code, words) => {
      const failure = await failureOf(work);
      expect(failure.code).toBe(code);
      expect(told(failure)).toMatch(words);
    });
  });
}
