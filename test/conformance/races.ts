import { channel, everyArrival, fail, later, role, spy, stream, text, type SimulacraError } from 'simulacra';
import type { Kit } from './specification';
import type { Play } from './time';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;
type Show = (text: string) => void;

/** Asks for a text, as a component would. */
const ask = async (path: string, init?: RequestInit): Promise<string> => {
  const response = await fetch(path, init);
  if (!response.ok) throw new Error(`${response.status}`);
  return (await response.json()) as string;
};

/** What a component does with its button, press by press; `isMended` for the twin without the fault. */
interface Race {
  /** What each press does, in turn. */
  readonly presses: (show: Show, isMended: boolean) => (() => unknown)[];
  readonly start?: (show: Show, isMended: boolean) => void | (() => void);
  readonly network?: () => Any;
  /** What the test does; presses the button as often as there are presses, where this is not said. */
  readonly steps?: (subject: Any, network: Any) => Promise<unknown>;
  readonly time?: 'virtual';
  readonly shows: string | RegExp;
}

/** Calls only the last of those that were made. */
function lastOnly() {
  let last = 0;
  return <T>(
    work: Promise<T>,
    done: (value: T) => void,
    failed: (error: Error) => void = () => undefined,
  ) => {
    const own = ++last;
    work.then(
      (value) => own === last && done(value),
      (error: Error) => own === last && failed(error),
    );
  };
}
/** Calls each, whichever came last. */
const each = <T>(
  work: Promise<T>,
  done: (value: T) => void,
  failed: (error: Error) => void = () => undefined,
): void => void work.then(done, failed);
const either = (isMended: boolean) => (isMended ? lastOnly() : each);

const byQuery = { 'GET /api/:thing': (request: Request) => new URL(request.url).search.slice(3) };
const ok = (path: string) => ({ [`GET ${path}`]: path });

const races: Record<string, Race> = {
  'a stale search': {
    presses: (show, isMended) => {
      const take = either(isMended);
      return ['a', 'an', 'ane'].map((q) => () => take(ask(`/api/hives?q=${q}`), show));
    },
    network: () => byQuery,
    shows: 'ane',
  },
  'a stale search that is not called off': {
    presses: (show, isMended) => {
      let controller = new AbortController();
      return ['b', 'bo'].map((q) => () => {
        if (isMended) controller.abort();
        controller = new AbortController();
        each(ask(`/api/hives?q=${q}`, { signal: controller.signal }), show);
      });
    },
    network: () => byQuery,
    shows: 'bo',
  },
  'saving twice': {
    presses: (show, isMended) => {
      const take = either(isMended);
      return ['1', '2'].map((body) => () => take(ask('/api/note', { method: 'PUT', body }), show));
    },
    network: () => ({ 'PUT /api/note': async (request: Request) => `version ${await request.text()}` }),
    shows: 'version 2',
  },
  'deleting while loading': {
    presses: (show, isMended) => {
      const take = either(isMended);
      return [
        () => take(ask('/api/hives'), show),
        () => take(ask('/api/hives/h1', { method: 'DELETE' }), () => show('none')),
      ];
    },
    network: () => ({ 'GET /api/hives': 'Anemone', 'DELETE /api/hives/h1': 'gone' }),
    shows: 'none',
  },
  'an optimistic update that is refused': {
    presses: (show, isMended) => {
      let count = 0;
      const put = (n: number) => () => {
        const before = count;
        show(`${++count}`);
        ask(`/api/likes/${n}`, { method: 'PUT' }).catch(() => {
          count = isMended ? count - 1 : before;
          show(`${count}`);
        });
      };
      return [put(1), put(2)];
    },
    network: () => ({ 'PUT /api/likes/1': fail(409), 'PUT /api/likes/2': 'ok' }),
    shows: '1',
  },
  'an answer to what was closed': {
    presses: (show, isMended) => {
      let isOpen = true;
      return [
        () => each(ask('/api/hives'), (text) => (!isMended || isOpen) && show(text)),
        () => {
          isOpen = false;
          show('closed');
        },
      ];
    },
    network: () => ok('/api/hives'),
    shows: 'closed',
  },
  'a retry beside a success': {
    presses: (show, isMended) => {
      const take = either(isMended);
      const load = (n: number) => () => take(ask(`/api/scale/${n}`), show, () => show('failed'));
      return [load(1), load(2)];
    },
    network: () => ({ 'GET /api/scale/1': fail(503), 'GET /api/scale/2': '31 kg' }),
    shows: '31 kg',
  },
  'pages out of order': {
    presses: (show, isMended) => {
      const pages: string[] = [];
      const more = (n: number) => () =>
        ask(`/api/pages/${n}`).then((page) => {
          if (isMended) pages[n - 1] = page;
          else pages.push(page);
          show(pages.filter(Boolean).join(' '));
        });
      return [more(1), more(2)];
    },
    network: () => ({ 'GET /api/pages/:n': (_: Request, { n }: { n: string }) => n }),
    shows: '1 2',
  },
  'a tab that is switched while it loads': {
    presses: (show, isMended) => {
      let tab = '';
      return ['north', 'south'].map((name) => () => {
        tab = name;
        each(ask(`/api/yards?q=${name}`), (hives) => (!isMended || tab === name) && show(`${tab}: ${hives}`));
      });
    },
    network: () => byQuery,
    shows: 'south: south',
  },
  'a message before the first load': {
    start: (show, isMended) => {
      let isLive = false;
      const socket = new WebSocket('/live/scale');
      socket.onmessage = ({ data }) => {
        isLive = true;
        show(data as string);
      };
      each(ask('/api/scale'), (kg) => (!isMended || !isLive) && show(kg));
      return () => socket.close();
    },
    presses: () => [],
    network: () => ({ 'WS /live/scale': channel<string>(), 'GET /api/scale': '31' }),
    steps: (_, network) => network['WS /live/scale'].send('32'),
    shows: '32',
  },
  'a debounce against an answer': {
    presses: (show, isMended) => {
      const take = either(isMended);
      let timer: ReturnType<typeof setTimeout> | undefined;
      return ['c', 'cl'].map((q) => () => {
        clearTimeout(timer);
        timer = setTimeout(() => take(ask(`/api/hives?q=${q}`), show), 200);
      });
    },
    network: () => byQuery,
    time: 'virtual',
    steps: async (subject) => {
      for (let at = 0; at < 2; at++) {
        await subject.click(role('button', 'Go'));
        await subject.time.advance('200ms');
      }
    },
    shows: 'cl',
  },
  'a sum that is read before an answer and written after it': {
    presses: (show, isMended) => {
      let sum = 0;
      const add = (n: number) => async () => {
        if (isMended) {
          const weight = Number(await ask(`/api/scales/${n}`));
          sum += weight;
        } else {
          const before = sum;
          sum = before + Number(await ask(`/api/scales/${n}`));
        }
        show(`${sum} kg`);
      };
      return [add(1), add(2)];
    },
    network: () => ({ 'GET /api/scales/1': '30', 'GET /api/scales/2': '12' }),
    // One after the other, no fault is seen: the second reads what the first has written.
    shows: '42 kg',
  },
  'a cache that the older answer fills': {
    presses: (show, isMended) => {
      const cache = new Map<string, { at: number; value: string }>();
      let clock = 0;
      const load = (n: number) => () => {
        const at = ++clock;
        each(ask(`/api/queen?q=${n}`), (value) => {
          if (!isMended || (cache.get('queen')?.at ?? 0) < at) cache.set('queen', { at, value });
          show(cache.get('queen')!.value);
        });
      };
      return [load(2025), load(2026)];
    },
    network: () => byQuery,
    shows: '2026',
  },
  'an error that another success takes away': {
    presses: (show, isMended) => {
      const errors = new Set<string>();
      const load = (what: string) => () =>
        ask(`/api/${what}`).then(
          () => {
            if (isMended) errors.delete(what);
            else errors.clear();
            show([...errors].join() || 'fine');
          },
          () => {
            errors.add(what);
            show([...errors].join());
          },
        );
      return [load('hives'), load('weather')];
    },
    network: () => ({ 'GET /api/hives': 'x', 'GET /api/weather': fail(503) }),
    shows: 'weather',
  },
  'a keeper who signs in as another': {
    presses: (show, isMended) => {
      let keeper = '';
      return ['Imke', 'Tilde'].map((name) => async () => {
        keeper = name;
        const notes = await ask(`/api/notes?q=${name}`);
        if (!isMended || keeper === name) show(`${keeper} has the notes of ${notes}`);
      });
    },
    network: () => byQuery,
    shows: 'Tilde has the notes of Tilde',
  },
  'an undo that is overtaken': {
    presses: (show, isMended) => {
      const take = either(isMended);
      return [
        () => take(ask('/api/note', { method: 'PUT' }), () => show('saved')),
        () => take(ask('/api/note', { method: 'DELETE' }), () => show('undone')),
      ];
    },
    network: () => ({ 'PUT /api/note': 'x', 'DELETE /api/note': 'x' }),
    shows: 'undone',
  },
  'polls out of order': {
    start: (show, isMended) => {
      const take = either(isMended);
      let n = 0;
      const poll = () => take(ask(`/api/scale?q=${++n}`), show);
      poll();
      const timer = setInterval(poll, 5000);
      return () => clearInterval(timer);
    },
    presses: () => [],
    network: () => byQuery,
    time: 'virtual',
    steps: (subject) => subject.time.advance('5s'),
    shows: '2',
  },
  'more that is loaded twice': {
    presses: (show, isMended) => {
      const items: string[] = [];
      let isLoading = false;
      const more = async () => {
        if (isMended && isLoading) return;
        isLoading = true;
        const page = await ask(`/api/page?q=${items.length}`);
        isLoading = false;
        items.push(page);
        show(new Set(items).size === items.length ? 'no item twice' : 'an item twice');
      };
      return [more, more];
    },
    network: () => byQuery,
    shows: 'no item twice',
  },
  'a form that is cleared while it is checked': {
    presses: (show, isMended) => {
      const take = either(isMended);
      return [
        () => take(ask('/api/check'), () => show('The name is taken')),
        () => {
          take(Promise.resolve(''), () => undefined);
          show('empty');
        },
      ];
    },
    network: () => ok('/api/check'),
    shows: 'empty',
  },
  'suggestions after a choice': {
    presses: (show, isMended) => {
      let isChosen = false;
      return [
        () => each(ask('/api/hives'), () => (!isMended || !isChosen) && show('suggestions')),
        () => {
          isChosen = true;
          show('Anemone');
        },
      ];
    },
    network: () => ok('/api/hives'),
    shows: 'Anemone',
  },
  'a service whose answers cross': {
    presses: (show, isMended) => {
      const take = either(isMended);
      const weigh = spy((hive: string) => Promise.resolve(`${hive} was weighed`), 'weigh');
      return ['h1', 'h2'].map((hive) => () => take(weigh(hive), show));
    },
    shows: 'h2 was weighed',
  },
  'a service that answers late': {
    presses: (show, isMended) => {
      const take = either(isMended);
      const weigh = spy<(hive: string) => Promise<string>>(
        (hive) => later(50, `${hive} was weighed`) as Any,
        'weigh',
      );
      return ['h1', 'h2'].map((hive) => () => take(weigh(hive), show));
    },
    time: 'virtual',
    steps: async (subject) => {
      await subject.click(role('button', 'Go'));
      await subject.time.advance('60ms');
      await subject.click(role('button', 'Go'));
      await subject.time.advance('60ms');
    },
    shows: 'h2 was weighed',
  },
  'a value of a stream against an answer': {
    start: (show, isMended) => {
      let isLive = false;
      const { unsubscribe } = readings.subscribe((kg) => {
        isLive = true;
        show(`${kg}`);
      });
      each(ask('/api/scale'), (kg) => (!isMended || !isLive) && show(kg));
      return unsubscribe;
    },
    presses: () => [],
    network: () => ({ 'GET /api/scale': '31' }),
    steps: () => readings.emit(32),
    shows: '32',
  },
  'two that load when it comes up': {
    start: (show, isMended) => {
      let words: string[] = [];
      const put = (at: number) => (word: string) => {
        words = [...words];
        if (isMended) words[at] = word;
        else words.push(word);
        show(words.filter(Boolean).join(' '));
      };
      each(ask('/api/first'), put(0));
      each(ask('/api/second'), put(1));
    },
    presses: () => [],
    network: () => ({ 'GET /api/first': 'first', 'GET /api/second': 'second' }),
    steps: () => Promise.resolve(),
    shows: 'first second',
  },
  'an answer between two timers that run in one step': {
    start: (show, isMended) => {
      const slow = setTimeout(() => show('still asking'), 2000);
      let given = 0;
      const late = setTimeout(() => show(given ? 'no answer' : 'still asking'), 4000);
      setTimeout(() => given++, 3000);
      each(ask('/api/scale'), (kg) => {
        clearTimeout(slow);
        // Forgotten where the first has run already.
        if (isMended || !given) clearTimeout(late);
        show(kg);
      });
    },
    presses: () => [],
    network: () => ({ 'GET /api/scale': '31' }),
    time: 'virtual',
    steps: (subject) => subject.time.advance('5s'),
    shows: '31',
  },
  'a fault that needs two late answers': {
    presses: (show, isMended) => {
      const seen: number[] = [];
      const load = (n: number) => () =>
        ask(`/api/hives?q=${n}`).then((answer) => {
          seen.push(Number(answer));
          const isWrong = !isMended && seen.join() === '3,1,2';
          if (seen.length === 3) show(isWrong ? 'mixed up' : 'in order');
        });
      return [load(1), load(2), load(3)];
    },
    network: () => byQuery,
    shows: 'in order',
  },
};

const readings = stream<number>();

/** Every order of arrival, stated once and run for every framework. */
export function racing(kit: Kit): void {
  const { isolate, components } = kit;
  const { Live } = components;

  /** Plays a race: the component is made anew in each run. */
  const scenarioOf = ({ presses, start, network, steps, time, shows }: Race, isMended: boolean) => {
    return async () => {
      let acts: (() => unknown)[] = [];
      const play: Play = {
        start: (show) => {
          acts = presses(show, isMended);
          return start?.(show, isMended);
        },
        press: () => void acts.shift()?.(),
      };
      const routes = network?.() as Any;
      const options = { ...(routes && { network: routes }), ...(time && { time }) };
      const subject = await isolate(Live, { props: { play }, ...options });
      const count = acts.length;
      if (steps) await steps(subject, routes);
      else for (let at = 0; at < count; at++) await subject.click(role('button', 'Go'));
      expect(subject).toShow(text(shows));
    };
  };

  describe('every order of arrival', () => {
    it.each(Object.entries(races))('finds %s, and nothing in its mended twin', async (_, race) => {
      const failure = await everyArrival(scenarioOf(race, false), { acrossSteps: true }).catch(
        (reason: unknown) => reason,
      );
      expect((failure as Partial<SimulacraError>).code).toBe('SIM-ARRIVAL');
      const { order } = (failure as { fields: { order: string } }).fields;
      const again = await everyArrival(scenarioOf(race, false), { acrossSteps: true, order }).catch(
        (reason: unknown) => reason,
      );
      expect((again as Partial<SimulacraError>).code).toBe('SIM-ARRIVAL');
      const mended = await everyArrival(scenarioOf(race, true), { acrossSteps: true });
      expect(mended.complete).toBe(true);
    });
  });
}
