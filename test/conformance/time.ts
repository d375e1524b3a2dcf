import { fail, hold, inTurn, later, record, role, spy, stream, takeDown, text } from 'simulacra';
import { hives } from '../../examples/shared/hive';
import { Clock, now, startTimer } from './captured';
import type { Kit } from './specification';
import { failureOf } from './trust';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

type Show = (text: string) => void;

/** What the component `Live` does: when it is mounted, and when its button is pressed. */
export interface Play {
  start?(show: Show): void | (() => void);
  press?(show: Show): void;
}

const every = (milliseconds: number, work: () => void) => {
  const timer = setInterval(work, milliseconds);
  return () => clearInterval(timer);
};

function poll(show: Show): () => void {
  const ask = async () => show(((await (await fetch('/api/scale')).json()) as { kg: number }).kg.toFixed(1));
  void ask();
  return every(5000, () => void ask());
}

/** Ways in which components use time: what is done, and what is shown after each step. */
const plays: Record<
  string,
  { play: Play; network?: Any; steps: (readonly [span: string | number, shown: string])[] }
> = {
  'an interval': {
    play: {
      start: (show) => {
        let ticks = 0;
        return every(4000, () => show(`tick ${++ticks}`));
      },
    },
    steps: [
      ['3999ms', ''],
      [1, 'tick 1'],
      ['8s', 'tick 3'],
    ],
  },
  'a chain of timers that starts itself again': {
    play: {
      start: (show) => {
        let left = 3;
        const next = () => {
          show(String(left));
          if (left-- > 0) setTimeout(next, 1000);
        };
        next();
      },
    },
    steps: [
      ['1s', '2'],
      ['1min', '0'],
    ],
  },
  'promises between timers': {
    play: {
      start: (show) => {
        const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
        void (async () => {
          for (let n = 1; n <= 100; n++) {
            await sleep(10);
            await Promise.resolve();
            show(`step ${n}`);
          }
        })();
      },
    },
    steps: [
      [10, 'step 1'],
      ['989ms', 'step 99'],
      [1, 'step 100'],
    ],
  },
  'a poll that asks every five seconds': {
    play: { start: poll },
    network: { 'GET /api/scale': inTurn({ kg: 31 }, { kg: 32 }, { kg: 33 }) },
    steps: [
      [0, '31.0'],
      ['5s', '32.0'],
      ['5s', '33.0'],
    ],
  },
  'a retry that waits longer each time': {
    play: {
      start: (show) => {
        const ask = async (wait: number): Promise<void> => {
          const response = await fetch('/api/scale');
          if (response.ok) return show('answered');
          show(`again in ${wait}`);
          setTimeout(() => void ask(wait * 2), wait);
        };
        void ask(1000);
      },
    },
    network: { 'GET /api/scale': inTurn(fail(503), fail(503), fail(503), { kg: 31 }) },
    steps: [
      [0, 'again in 1000'],
      ['1s', 'again in 2000'],
      ['2s', 'again in 4000'],
      ['3.9s', 'again in 4000'],
      ['100ms', 'answered'],
    ],
  },
  'a time-out that is faster than the answer': {
    play: {
      start: (show) => {
        fetch('/api/scale', { signal: AbortSignal.timeout(3000) }).then(
          () => show('answered'),
          (error: Error) => show(error.name),
        );
      },
    },
    network: { 'GET /api/scale': later(5000, { kg: 31 }) },
    steps: [
      ['2.9s', ''],
      ['100ms', 'TimeoutError'],
      ['10s', 'TimeoutError'],
    ],
  },
  'an answer that is faster than the time-out': {
    play: {
      start: (show) => {
        const slow = new Promise<string>((resolve) => setTimeout(resolve, 3000, 'too late'));
        const answer = fetch('/api/scale').then(() => 'answered');
        void Promise.race([slow, answer]).then(show);
      },
    },
    network: { 'GET /api/scale': later(2000, { kg: 31 }) },
    steps: [
      ['1999ms', ''],
      [1, 'answered'],
      ['10s', 'answered'],
    ],
  },
  'a spring, frame by frame': {
    play: {
      start: (show) => {
        let [at, speed, before] = [0, 0, performance.now()];
        const step = (time: number) => {
          const span = (time - before) / 1000;
          before = time;
          speed += (-180 * (at - 100) - 24 * speed) * span;
          at += speed * span;
          const isOver = Math.abs(at - 100) < 0.1 && Math.abs(speed) < 0.1;
          show(isOver ? 'at rest' : `moving ${at > 90 ? 'slowly' : 'fast'}`);
          if (!isOver) requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      },
    },
    steps: [
      [16, 'moving fast'],
      ['300ms', 'moving slowly'],
      ['5s', 'at rest'],
    ],
  },
  'an endless chain of timers without delay': {
    play: {
      start: (show) => {
        let turns = 0;
        let timer: unknown;
        const again = () => {
          show(++turns > 20 ? 'many' : 'few');
          timer = setTimeout(again, 0);
        };
        again();
        return () => clearTimeout(timer as number);
      },
    },
    steps: [
      [0, 'few'],
      ['1s', 'many'],
    ],
  },
};

/** Components that wait for a person: the button is pressed before each span passes. */
const pressed: Record<string, { play: () => Play; steps: (readonly [span: string, shown: string])[] }> = {
  'a debounce': {
    play: () => {
      let timer: unknown;
      let presses = 0;
      return {
        press: (show) => {
          clearTimeout(timer as number);
          presses++;
          timer = setTimeout(() => show(`searched after ${presses}`), 300);
        },
      };
    },
    steps: [
      ['200ms', ''],
      ['299ms', ''],
      ['300ms', 'searched after 3'],
    ],
  },
  'a throttle': {
    play: () => {
      let last = -Infinity;
      let runs = 0;
      return {
        press: (show) => {
          if (Date.now() - last < 1000) return;
          last = Date.now();
          show(`run ${++runs}`);
        },
      };
    },
    steps: [
      ['400ms', 'run 1'],
      ['500ms', 'run 1'],
      ['100ms', 'run 1'],
      ['0ms', 'run 2'],
    ],
  },
};

/** What is said of time, stated once and run for every framework. */
export function timely(kit: Kit): void {
  const { isolate, isolateWith, components } = kit;
  const { Live, Board } = components;
  const live = (play: Play, options: Any = {}) =>
    isolate(Live, { props: { play }, time: 'virtual', ...options });
  const shown = (subject: Any): string => subject.find(role('status')).textContent as string;

  describe('virtual time', () => {
    it.each(Object.entries(plays))('moves %s', async (_, { play, network, steps }) => {
      const subject = await live(play, network && { network });
      for (const [span, wanted] of steps) {
        await subject.time.advance(span);
        expect([span, shown(subject)]).toEqual([span, wanted]);
      }
    });

    it.each(Object.entries(pressed))('moves %s', async (_, { play, steps }) => {
      const subject = await live(play());
      for (const [span, wanted] of steps) {
        await subject.click(role('button', 'Go'));
        await subject.time.advance(span);
        expect([span, shown(subject)]).toEqual([span, wanted]);
      }
    });

    it('shows the page at rest after each timer', async () => {
      const subject = await live(
        { start: (show) => every(1000, () => show(new Date().toISOString())) },
        { time: { startsAt: '2031-05-04T08:00Z' } },
      );
      await subject.time.advance('3s');
      for (const second of [1, 2, 3]) expect(subject).toHaveShown(text(`2031-05-04T08:00:0${second}.000Z`));
      expect(String(subject.chronicle)).toMatch(
        /1000 ms +rendered[^]*2000 ms +rendered[^]*3000 ms +rendered/,
      );
    });

    it('begins at a date, in a zone, and everything that tells the time agrees', async () => {
      const read = (show: Show) => {
        const at = new Date();
        const formatted = new Intl.DateTimeFormat('en-GB', { timeStyle: 'short' }).format();
        const stamp = new Event('read').timeStamp - performance.now();
        const origin = Math.round(performance.timeOrigin + performance.now()) - Date.now();
        show(
          [
            at.toISOString(),
            at.getHours(),
            at.toLocaleTimeString('en-GB'),
            formatted,
            stamp,
            origin,
            Date().slice(0, 24),
          ].join(' '),
        );
      };
      const subject = await live(
        { press: read },
        { time: { startsAt: '2031-05-04T08:00Z', zone: 'Asia/Tokyo' } },
      );
      await subject.time.advance('90min');
      await subject.click(role('button', 'Go'));
      expect(shown(subject)).toBe('2031-05-04T09:30:00.000Z 18 18:30:00 18:30 0 0 Sun May 04 2031 18:30:00');
      await subject.time.advanceTo('2031-12-24T18:00');
      expect(subject.time.now).toEqual(new Date('2031-12-24T09:00Z'));
      await subject.click(role('button', 'Go'));
      expect(shown(subject)).toMatch(/^2031-12-24T09:00:00.000Z 18 18:00:00/);
    });

    it('is the same for everything that reads it, Temporal too where the page has it', async () => {
      const read = (show: Show) => {
        const { Temporal } = globalThis as { Temporal?: { Now: Record<string, (zone?: string) => object> } };
        const told = Object.entries({
          instant: 'Z',
          plainDateTimeISO: '',
          plainDateISO: 'T09:30:00',
          plainTimeISO: '',
        });
        const now = new Date().toISOString().slice(0, 19);
        const times = told.map(([name, end]) => {
          const time = Temporal ? String(Temporal.Now[name]!('UTC')) : '';
          return name === 'plainTimeISO'
            ? `${now.slice(0, 11)}${time}`
            : `${time.replace('Z', '')}${end.replace('Z', '')}`;
        });
        const zoned = (Temporal?.Now['zonedDateTimeISO']!() as { epochMilliseconds: number } | undefined)
          ?.epochMilliseconds;
        show([now, ...(Temporal ? [...times, new Date(zoned!).toISOString().slice(0, 19)] : [])].join(' '));
      };
      const subject = await live({ press: read }, { time: { startsAt: '2031-05-04T08:00Z' } });
      await subject.time.advance('90min');
      await subject.click(role('button', 'Go'));
      expect(new Set(shown(subject)!.split(' '))).toEqual(new Set(['2031-05-04T09:30:00']));
      expect(shown(subject)!.split(' ')).toHaveLength('Temporal' in globalThis ? 6 : 1);
    });

    it('holds for what was captured when a file was loaded', async () => {
      const subject = await live(
        { start: (show) => void startTimer(() => show(`${now()} ${new Clock().getTime()}`), 4000) },
        { time: { startsAt: 4000 } },
      );
      await subject.time.advance('4s');
      expect(shown(subject)).toBe('8000 8000');
      expect(new Date() instanceof Clock && new Clock() instanceof Date).toBe(true);
      expect(new Date().constructor).toBe(Date);
    });

    it('lists what is due', async () => {
      const subject = await live(
        {
          start: (show) => {
            setTimeout(show, 3000, 'late');
            requestAnimationFrame(() => show('frame'));
            return every(4000, () => show('tick'));
          },
          press: () => void fetch('/api/scale'),
        },
        { network: { 'GET /api/scale': later(2000, {}) }, time: { startsAt: 0 }, leaks: 'allowed' },
      );
      await subject.click(role('button', 'Go'));
      const due = subject.time.due as Any[];
      expect(due.map(({ kind, in: left, at }) => [kind, left, Number(at)])).toEqual([
        ['frame', 16, 16],
        ['answer', 2000, 2000],
        ['timeout', 3000, 3000],
        ['interval', 4000, 4000],
      ]);
      expect(due.map(({ what }) => what)).toContain('GET /api/scale');
      expect(due[3].line).toMatch(/^time\.ts:\d+$/);
    });

    it('runs out, and names what never ends', async () => {
      const ends = await live({
        start: (show) => void setTimeout(() => setTimeout(show, 60_000, 'over'), 1000),
      });
      await ends.time.runOut();
      expect(shown(ends)).toBe('over');
      await takeDown();
      const endless = await live({ start: (show) => every(4000, () => show('tick')) });
      const { code, message } = await failureOf(() => endless.time.runOut());
      expect(code).toBe('SIM-TIME-ENDLESS');
      expect(message).toMatch(/an interval of 4s \((Live, )?time\.ts:\d+\) ran 1000 times/);
    });

    it('is the time of answers, and of waiting', async () => {
      const real = performance.timeOrigin;
      const begin = process.hrtime.bigint();
      const board = await isolate(Board, {
        props: { yard: 'north' },
        network: { 'GET /api/hives?yard=:yard': later(30_000, hives) },
        time: 'virtual',
      });
      expect(board).toShow(role('status', 'Loading hives'));
      await board.appears(text('Anemone'), { within: 40_000 });
      expect(board.time.due).toEqual([]);
      expect(Number(process.hrtime.bigint() - begin) / 1e6).toBeLessThan(10_000);
      expect(performance.timeOrigin).not.toBe(real);
    });

    it('is the time of recordings and of what streams play', async () => {
      const readings = stream<number>();
      const subject = await live({
        start: (show) => readings.subscribe((kg) => show(`${kg} kg`)).unsubscribe,
      });
      const recording = record(readings);
      readings.play('300ms 31.2; 1min 30s 31.4; 2min end');
      await subject.time.advance('300ms');
      expect(shown(subject)).toBe('31.2 kg');
      await subject.time.runOut();
      expect(shown(subject)).toBe('31.4 kg');
      expect(String(recording)).toBe('300ms 31.2; 1min 30s 31.4; 2min end');
    });

    it('is real again afterwards, and nothing of it runs on', async () => {
      const ticked = spy();
      const date = Date.now();
      const before = performance.now();
      const zone = new Date(0).getTimezoneOffset();
      const subject = await live(
        { start: () => void setInterval(ticked, 100) },
        { time: { startsAt: 0, zone: 'Asia/Tokyo' }, leaks: 'allowed' },
      );
      await subject.time.advance('10m');
      expect(performance.now() - before).toBeGreaterThan(600_000);
      await takeDown();
      expect(performance.now() - before).toBeGreaterThan(600_000);
      expect(Math.abs(Date.now() - date)).toBeLessThan(60_000);
      expect(new Date(0).getTimezoneOffset()).toBe(zone);
      const { length } = ticked.calls;
      await new Promise((resolve) => setTimeout(resolve, 250));
      expect(ticked.calls).toHaveLength(length);
    });

    it('is shared by subjects that are up at once', async () => {
      const tick = (show: Show) => every(1000, () => show(new Date().toISOString().slice(17, 19)));
      const time = { startsAt: '2031-05-04T08:00Z', zone: 'Asia/Tokyo' };
      const first = await live({ start: tick }, { time });
      const second = await live({ start: tick }, { time: undefined });
      await first.time.advance('2s');
      expect([shown(first), shown(second)]).toEqual(['02', '02']);
      const third = { time: { startsAt: '2031-05-04T09:00Z' } };
      expect((await failureOf(() => live({}, third))).code).toBe('SIM-TIME-SHARED');
      await (await live({}, { time })).takeDown();
      await first.takeDown();
      await second.time.advance('1s');
      expect([shown(second), new Date(0).getHours()]).toEqual(['03', 9]);
    });

    it('is set by a team once', async () => {
      const isolateThen = isolateWith({ time: { startsAt: '2031-05-04T08:00Z' } });
      const subject = await isolateThen(Live, {
        props: { play: { start: (show: Show) => show(new Date().toISOString()) } },
      });
      expect(shown(subject)).toBe('2031-05-04T08:00:00.000Z');
    });

    it('counts each span in full where steps overlap', async () => {
      const subject = await live(
        { start: (show) => every(1000, () => show(new Date().toISOString())) },
        { time: { startsAt: 0 } },
      );
      await Promise.all([subject.time.advance('2s'), subject.time.advance('3s')]);
      expect(shown(subject)).toBe('1970-01-01T00:00:05.000Z');
    });

    it('fails where a timer throws, and stays at that moment', async () => {
      const subject = await live({
        start: () =>
          void setTimeout(() => {
            throw new RangeError('the scale is empty');
          }, 1000),
      });
      const { code, message } = await failureOf(() => subject.time.advance('5s'));
      expect([code, message.includes('the scale is empty')]).toEqual(['SIM-HANDLER-THREW', true]);
      await subject.time.advance('4s');
    });

    it.each<[string, (subject: Any) => unknown, string, RegExp]>([
      ['no unit', (s) => s.time.advance('4 sconds'), 'SIM-TIME-SPAN', /Did you mean time\.advance\('4s'\)/],
      ['a step back', (s) => s.time.advance(-4000), 'SIM-TIME-SPAN', /Did you mean time\.advance\(4000\)/],
      ['no span at all', (s) => s.time.advance('soon'), 'SIM-TIME-SPAN', /time\.advance\("soon"\)/],
      [
        'a date that has passed',
        (s) => s.time.advanceTo('2001-05-04T08:00Z'),
        'SIM-TIME-PAST',
        /that moment has passed/,
      ],
      ['no date', (s) => s.time.advanceTo('2031-5-4, at eight'), 'SIM-TIME-DATE', /'2031-05-04T08:00Z'/],
      [
        'a date to begin',
        () => live({}, { time: { startsAt: 'noon' } }),
        'SIM-TIME-DATE',
        /startsAt: "noon" is no date/,
      ],
      [
        'a zone',
        () => live({}, { time: { zone: 'Europe/Pariss' } }),
        'SIM-TIME-ZONE',
        /zone: 'Europe\/Paris'/,
      ],
      ['an option', () => live({}, { time: { start: 0 } }), 'SIM-OPTION-UNKNOWN', /startsAt: …/],
      ['a word', () => live({}, { time: 'fake' }), 'SIM-OPTION-VALUE', /It takes 'virtual'/],
    ])('refuses %s, and says what is possible', async (what, work, code, said) => {
      if (/^(a date to begin|a zone|an option|a word)$/.test(what)) {
        const failure = await failureOf(() => work(undefined));
        expect([failure.code, failure.message]).toEqual([code, expect.stringMatching(said)]);
        expect(Math.abs(Date.now() - Number(new Date()))).toBeLessThan(5000);
        return;
      }
      const failure = await failureOf(async () =>
        work(await live({}, { time: { startsAt: '2031-05-04T08:00Z' } })),
      );
      expect([failure.code, failure.message]).toEqual([code, expect.stringMatching(said)]);
    });
  });

  describe('real time', () => {
    const press = { press: (show: Show) => void setTimeout(show, 30, 'late') };

    it('is not moved, and says how to', async () => {
      const subject = await live(press, { time: undefined });
      const { code, message } = await failureOf(() => subject.time.advance('4s'));
      expect([code, message]).toEqual([
        'SIM-TIME-REAL',
        expect.stringMatching(/isolate\(Live, \{ time: 'virtual' \}\)/),
      ]);
    });

    it('wakes a wait when something happens', async () => {
      const subject = await live(press, { time: undefined });
      const log: string[] = [];
      await subject.click(role('button', 'Go'));
      await subject.appears(text('late'));
      setTimeout(() => log.push('logged'), 30);
      await subject.eventually(() => expect(log).toEqual(['logged']));
      expect(await subject.eventually(() => log.length)).toBe(1);
    });

    it('gives a wait up at once when nothing can change any more', async () => {
      const subject = await live(press, { time: undefined });
      const begin = performance.now();
      const failure = await failureOf(() => subject.appears(text('late'), { within: 60_000 }));
      expect(failure.message).toMatch(
        /Nothing can change any more, and still nothing on the page has the text "late"/,
      );
      const check = await failureOf(() => subject.eventually(() => expect(1).toBe(2), { within: 60_000 }));
      expect([check.code, check.message]).toEqual(['SIM-WAIT-CHECK', expect.stringMatching(/toBe/)]);
      expect(performance.now() - begin).toBeLessThan(5000);
    });

    it('names the timer that is due later, and how to let it pass', async () => {
      const subject = await live({ start: (show) => every(4000, () => show('tick')) }, { time: undefined });
      const begin = performance.now();
      const { message } = await failureOf(() => subject.appears(text('tick')));
      expect(message).toMatch(
        /Nothing will change within 1000 ms[^]*Due next: an interval \(setInterval 4000 ms\) in [^]*isolate\(Live, \{ time: 'virtual' \}\), then await subject\.time\.advance\('4s'\)/,
      );
      expect(performance.now() - begin).toBeLessThan(900);
    });

    it('gives a wait up in the end where another subject is up', async () => {
      for (const time of [undefined, 'virtual']) {
        const [first] = await Promise.all([live({}, { time }), live({}, { time })]);
        const { message } = await failureOf(() => first.appears(text('late'), { within: 50 }));
        expect(message).toMatch(/After 50 ms still nothing/);
        await takeDown();
      }
    });

    it('waits on where the test itself goes on', async () => {
      const answer = hold<typeof hives>();
      const board = await isolate(Board, {
        props: { yard: 'north' },
        network: { 'GET /api/hives?yard=:yard': answer },
      });
      const comes = board.appears(text('Anemone'));
      await new Promise((resolve) => setTimeout(resolve, 40));
      await answer.release(hives);
      await comes;
    });
  });
}
