import type { SimulacraError } from 'simulacra';
import { interval } from 'rxjs';
import { role, stream, takeDown } from 'simulacra';
import { isBrowser } from './real';
import type { Kit } from './specification';
import type { Play } from './time';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

/** How a test ends: the code and the message of what it is told, as one line. */
const endOfTest = (): Promise<readonly [code: string, message: string]> =>
  takeDown().then(
    () => ['passed', ''] as const,
    ({ code, message }: SimulacraError) => [code, message.replace(/\s+/g, ' ')] as const,
  );

/** What is printed meanwhile. The console's own functions are put back. */
async function printedBy(work: () => Promise<unknown>): Promise<string[]> {
  const printed: string[] = [];
  const { error, warn, debug } = console;
  console.debug = () => undefined;
  console.error = console.warn = (...args: unknown[]) => void printed.push(String(args[0]));
  try {
    await work();
    return printed;
  } finally {
    Object.assign(console, { error, warn, debug });
  }
}

/** What a test leaves or says without being asked, stated once and run for every framework. */
export function guarded(kit: Kit): void {
  const { isolate, isolateWith, components } = kit;
  const { Live } = components;
  const live = (play: Play, options: Any = {}) => isolate(Live, { props: { play }, ...options });
  const hot = { press: () => console.error('%s is overheated', 'The smoker', { degrees: 90 }) };
  const press = (subject: Any) => subject.click(role('button', 'Go'));

  describe('what is logged', () => {
    it.each<[string, Play, string, RegExp]>([
      ['an error', hot, 'SIM-LOG-UNEXPECTED', /an error[^]*The smoker is overheated \{ degrees: 90 \}/],
      ['a warning', { press: () => console.warn('frost') }, 'SIM-LOG-UNEXPECTED', /a warning[^]*frost/],
      [
        'two of them',
        { start: () => console.warn('frost'), press: () => console.error('fire') },
        'SIM-LOG-UNEXPECTED',
        /2 errors and warnings[^]*frost[^]*fire/,
      ],
      ['no more than a note', { press: () => console.debug('sunny') }, 'passed', /^$/],
    ])('fails the test for %s that nobody expects', async (_, play, code, said) => {
      const printed = await printedBy(async () => press(await live(play)));
      const end = await endOfTest();
      expect(end).toEqual([code, expect.stringMatching(said)]);
      expect(printed.length > 0).toBe(code !== 'passed');
    });

    it('names the pattern that expects it', async () => {
      await printedBy(async () => press(await live(hot)));
      const [, message] = await endOfTest();
      expect(message).toMatch(/logs: \[\/The smoker is overheated \\\{ degrees: 90 \\\}\/\]/);
    });

    it('passes where it is expected, and is not printed', async () => {
      const printed = await printedBy(async () => press(await live(hot, { logs: [/smoker .* overheated/] })));
      expect([await endOfTest(), printed]).toEqual([['passed', ''], []]);
    });

    it('has to happen where it is expected', async () => {
      await printedBy(async () => press(await live(hot, { logs: ['overheated', /overheatd/] })));
      const [code, message] = await endOfTest();
      expect([code, message]).toEqual([
        'SIM-LOG-MISSED',
        expect.stringMatching(/expected to log \/overheatd\//),
      ]);
    });

    it('is a matter of a team, whose patterns need not happen', async () => {
      const isolateQuietly = isolateWith({ logs: [/frost/, /overheated/] });
      await press(await isolateQuietly(Live, { props: { play: hot } }));
      expect(await endOfTest()).toEqual(['passed', '']);
      const printed = await printedBy(async () => press(await live(hot, { logs: 'allowed' })));
      expect([await endOfTest(), printed.length]).toEqual([['passed', ''], 1]);
    });

    it('is reported where it happens during take-down', async () => {
      const printed = await printedBy(async () => {
        await live({ start: () => () => console.error('left open') });
        const [code, message] = await endOfTest();
        expect([code, message]).toEqual(['SIM-LOG-UNEXPECTED', expect.stringMatching(/left open/)]);
      });
      expect(printed).toEqual(['left open']);
    });

    it.each([
      ['a text', 'overheated', /a list of texts and patterns/],
      ['a number in the list', [4], /option "logs" was given 4/],
    ])('refuses %s', async (_, logs, said) => {
      const failure = (await live({}, { logs }).catch((error: Error) => error)) as SimulacraError;
      expect([failure.code, failure.message.replace(/\s+/g, ' ')]).toEqual([
        'SIM-OPTION-VALUE',
        expect.stringMatching(said),
      ]);
    });
  });

  describe('what is left behind', () => {
    const ignore = () => undefined;
    const left: Record<string, { start: Play['start']; said: RegExp; isTimed?: true }> = {
      'an interval': {
        start: () => void setInterval(ignore, 4000),
        said: /left setInterval 4000 ms \((Live, )?guards\.ts:\d+\)/,
      },
      'a timer': { start: () => void setTimeout(ignore, 300), said: /left setTimeout 300 ms/ },
      'a frame': {
        start: () => void requestAnimationFrame(ignore),
        said: /left requestAnimationFrame/,
        // In real time it may have come before the test ends.
        isTimed: true,
      },
      'a listener of the window': {
        start: () => window.addEventListener('resize', () => undefined),
        said: /left a listener for "resize" on the window \((Live, )?guards\.ts:\d+\)/,
      },
      'a listener of the document': {
        start: () => document.addEventListener('keydown', () => undefined, true),
        said: /left a listener for "keydown" on the document/,
      },
      'an observer of the document': {
        start: () => new ResizeObserver(ignore).observe(document.body),
        said: /left a ResizeObserver \((Live, )?guards\.ts:\d+\)/,
      },
      'an observer of what is in view': {
        start: () => new IntersectionObserver(ignore).observe(document.documentElement),
        said: /left an IntersectionObserver/,
      },
      'a listener of a media query': {
        start: () => matchMedia('(min-width: 600px)').addEventListener('change', ignore),
        said: /left a listener (of the media query "\(min-width: 600px\)"|for "change" on the media query)/,
      },
      'a watch over the position': {
        start: () => void navigator.geolocation.watchPosition(ignore),
        said: /left a watch over the position/,
      },
      'an object URL': {
        start: () => void URL.createObjectURL(new Blob(['…'])),
        said: /left an object URL \((Live, )?guards\.ts:\d+\)/,
      },
      'an observer of changes': {
        start: () => new MutationObserver(ignore).observe(document, { childList: true, subtree: true }),
        said: /left a MutationObserver \((Live, )?guards\.ts:\d+\)[^]*leaks: \['a MutationObserver'\]/,
      },
      'an element of the body': {
        start: () => {
          const toast = document.body.appendChild(document.createElement('div'));
          toast.className = 'toast';
          toast.textContent = 'The inspection is logged';
        },
        said: /left <div class="toast"> in the body \((Live, )?guards\.ts:\d+\)/,
      },
      'a subscription to a stream': {
        start: () => void stream<number>().subscribe(ignore),
        said: /left a subscription to a stream \((Live, )?guards\.ts:\d+\)/,
      },
      "a timer of rxjs's": {
        start: () => void interval(4000).subscribe(ignore),
        said: /left setInterval 4000 ms \((Live, )?guards\.ts:\d+\)/,
      },
      // A simulated page has neither.
      ...(isBrowser && {
        'a channel': {
          start: () => void new BroadcastChannel('scales'),
          said: /left a BroadcastChannel "scales" \((Live, )?guards\.ts:\d+\)/,
        },
        'a worker': {
          start: () => void new Worker(URL.createObjectURL(new Blob(['']))),
          said: /left 2 things behind[^]*a Worker "blob:[^]*an object URL|an object URL[^]*a Worker "blob:/,
        },
      }),
      'two things': {
        start: () => {
          window.addEventListener('resize', () => undefined);
          setInterval(ignore, 4000);
        },
        said: /left 2 things behind[^]*setInterval 4000 ms[^]*"resize" on the window/,
      },
    };

    it.each(Object.entries(left))('fails the test: %s', async (_, { start, said, isTimed }) => {
      for (const time of isTimed ? ['virtual'] : [undefined, 'virtual']) {
        await live({ start } as Play, { time });
        expect(await endOfTest()).toEqual(['SIM-LEFT-BEHIND', expect.stringMatching(said)]);
        document.querySelector('.toast')?.remove();
      }
    });

    it.each<[string, Play]>([
      [
        'a timer that is cleared',
        {
          start: () => {
            const timers = [setInterval(ignore, 4000), setTimeout(ignore, 300)];
            return () => timers.forEach(clearTimeout);
          },
        },
      ],
      [
        'a frame that is called off',
        {
          start: () => {
            const id = requestAnimationFrame(ignore);
            return () => cancelAnimationFrame(id);
          },
        },
      ],
      [
        'a listener that is removed',
        {
          start: () => {
            window.addEventListener('resize', ignore, { capture: true });
            return () => window.removeEventListener('resize', ignore, true);
          },
        },
      ],
      [
        'a listener with a signal that is aborted',
        {
          start: () => {
            const controller = new AbortController();
            document.addEventListener('keydown', ignore, { signal: controller.signal });
            return () => controller.abort();
          },
        },
      ],
      [
        'observers that are ended, or of what is off the page',
        {
          start: () => {
            const own = [ResizeObserver, MutationObserver].map((Observer) => new Observer(ignore));
            for (const one of own) one.observe(document.body, { attributes: true } as object);
            const [toast, subscriptions] = [
              document.createElement('div'),
              [stream<number>(), interval(4000)].map((source) => source.subscribe(ignore)),
            ];
            document.body.append(toast, 'and a text');
            new IntersectionObserver(ignore).observe(document.querySelector('output')!);
            const list = matchMedia('(min-width: 600px)');
            list.addListener(ignore);
            const address = URL.createObjectURL(new Blob(['…']));
            const watch = navigator.geolocation.watchPosition(ignore);
            return () => {
              own.forEach((one) => one.disconnect());
              subscriptions.forEach((one) => one.unsubscribe());
              toast.nextSibling!.remove();
              toast.remove();
              list.removeListener(ignore);
              URL.revokeObjectURL(address);
              navigator.geolocation.clearWatch(watch);
            };
          },
        },
      ],
      ...(isBrowser
        ? [
            [
              'a channel and a worker that are ended',
              {
                start: () => {
                  const address = URL.createObjectURL(new Blob(['']));
                  const [channel, worker] = [new BroadcastChannel('scales'), new Worker(address)];
                  URL.revokeObjectURL(address);
                  return () => {
                    channel.close();
                    worker.terminate();
                  };
                },
              },
            ] as [string, Play],
          ]
        : []),
      ['a listener for one time', { start: () => window.addEventListener('load', ignore, { once: true }) }],
      ['a timer that has run', { start: () => void setTimeout(ignore, 2) }],
    ])('passes: %s', async (_, play) => {
      for (const time of [undefined, 'virtual'] as const) {
        const subject = await live(play, { time });
        if (time) await subject.time.advance(10);
        else await new Promise((resolve) => setTimeout(resolve, 20));
        expect(await endOfTest()).toEqual(['passed', '']);
      }
    });

    it('is not what the test itself started', async () => {
      await live({});
      const timer = setTimeout(ignore, 5000);
      window.addEventListener('resize', ignore);
      expect(await endOfTest()).toEqual(['passed', '']);
      window.removeEventListener('resize', ignore);
      clearTimeout(timer);
    });

    it('is a matter of a team', async () => {
      const start = () => void setTimeout(ignore, 300);
      await isolateWith({ leaks: 'allowed' })(Live, { props: { play: { start } } });
      expect(await endOfTest()).toEqual(['passed', '']);
      const printed = await printedBy(async () => {
        await live({ start }, { leaks: 'warn' });
        expect(await endOfTest()).toEqual(['passed', '']);
      });
      expect(printed).toEqual([expect.stringMatching(/SIM-LEFT-BEHIND[^]*setTimeout 300 ms/)]);
      await isolateWith({ leaks: [/300 ms \(.*guards/] })(Live, { props: { play: { start } }, leaks: ['x'] });
      expect(await endOfTest()).toEqual(['passed', '']);
      await live({ start }, { leaks: ['setTimeout 4000 ms'] });
      expect(await endOfTest()).toEqual(['SIM-LEFT-BEHIND', expect.stringMatching(/setTimeout 300 ms/)]);
      const failure = (await live({}, { leaks: 'ignore' }).catch((error: Error) => error)) as SimulacraError;
      expect(failure.message.replace(/\s+/g, ' ')).toMatch(
        /option "leaks" was given "ignore"[^]*'fail', 'warn', 'allowed', or a list of texts/,
      );
    });
  });
}
