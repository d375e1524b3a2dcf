import { EventEmitter } from 'node:events';
import {
  debounceTime,
  from,
  interval,
  map,
  of,
  Subject as RxSubject,
  switchMap,
  take,
  throwError,
} from 'rxjs';
import { createStore } from 'redux';
import { record, stream, takeDown, type Recording, type SimulacraError } from 'simulacra';

afterEach(takeDown);

const failureOf = (work: () => unknown): SimulacraError => {
  try {
    work();
  } catch (error) {
    return error as SimulacraError;
  }
  throw new Error('nothing was thrown');
};
const turn = () => new Promise((resolve) => setTimeout(resolve));

async function* weights() {
  yield 31.2;
  await Promise.resolve();
  yield 31.4;
}

class Emitter {
  readonly #heard = new Map<string, ((...args: unknown[]) => void)[]>();
  on(event: string, listener: (...args: unknown[]) => void) {
    this.#heard.set(event, [...(this.#heard.get(event) ?? []), listener]);
  }
  off(event: string, listener: (...args: unknown[]) => void) {
    this.#heard.set(
      event,
      (this.#heard.get(event) ?? []).filter((one) => one !== listener),
    );
  }
  say(event: string, ...args: unknown[]) {
    for (const listener of this.#heard.get(event) ?? []) listener(...args);
  }
}

describe('record', () => {
  it('keeps what an Observable emits, and how it ends', () => {
    const recording = record(of(1, 2, 3));
    expect(recording.values).toEqual([1, 2, 3]);
    expect([recording.first, recording.last, recording.ended, recording.error]).toEqual([
      1,
      3,
      true,
      undefined,
    ]);
    const reason = new Error('the scale is empty');
    const failed = record(throwError(() => reason));
    expect([failed.ended, failed.error]).toEqual([true, reason]);
    expect(String(failed)).toMatch(/^\d+ms fail the scale is empty$/);
  });

  it.each<[string, () => { recording: Recording<unknown>; emit: (value: unknown) => unknown }]>([
    [
      'a subject of an Observable library',
      () => {
        const source = new RxSubject<unknown>();
        return { recording: record(source), emit: (value) => source.next(value) };
      },
    ],
    [
      'a stream',
      () => {
        const source = stream<unknown>();
        return { recording: record(source), emit: source.emit };
      },
    ],
    [
      'an EventTarget',
      () => {
        const source = new EventTarget();
        return {
          recording: record(source, 'weight'),
          emit: (data) => source.dispatchEvent(new MessageEvent('weight', { data })),
        };
      },
    ],
    [
      'an event emitter',
      () => {
        const source = new Emitter();
        return { recording: record(source, 'weight'), emit: (value) => source.say('weight', value) };
      },
    ],
    [
      "an event emitter of Node's",
      () => {
        const source = new EventEmitter();
        return { recording: record(source, 'weight'), emit: (value) => source.emit('weight', value) };
      },
    ],
  ])('hears %s until it is stopped', async (_, make) => {
    const { recording, emit } = make();
    await emit('light');
    const heard = [...recording.values];
    recording.stop();
    await emit('heavy');
    expect(recording.values).toEqual(heard);
    expect(heard.map((value) => (value as MessageEvent).data ?? value)).toEqual(['light']);
  });

  it('begins with what a store holds', () => {
    const store = createStore((count: number = 0, { type }: { type: string }) =>
      type === 'more' ? count + 1 : count,
    );
    const recording = record(store);
    store.dispatch({ type: 'more' });
    store.dispatch({ type: 'more' });
    expect(recording.values).toEqual([0, 1, 2]);
    const first: number | undefined = recording.first;
    expect(first).toBe(0);
  });

  it('iterates over what is asynchronous', async () => {
    const recording = record(weights());
    await turn();
    expect([recording.values, recording.ended]).toEqual([[31.2, 31.4], true]);
    const last: number | undefined = recording.last;
    expect(last).toBe(31.4);
  });

  it('ends with the test', async () => {
    const source = new RxSubject<number>();
    const recording = record(source);
    await takeDown();
    source.next(1);
    expect([recording.values, source.observed]).toEqual([[], false]);
  });

  it('refuses what does not emit, and asks for the name of an event', () => {
    expect(failureOf(() => record({ load: 1 } as never))).toMatchObject({ code: 'SIM-RECORD-SOURCE' });
    expect(failureOf(() => record(4 as never)).message).toMatch(
      /record\(\) was given 4, which emits nothing/,
    );
    expect(failureOf(() => record(new EventTarget())).message).toMatch(/record\(source, 'message'\)/);
  });
});

describe('a stream', () => {
  it('takes the operators of an Observable library', async () => {
    const source = stream<number>();
    const doubled = record(
      source.pipe(
        map((kg: number) => kg * 2),
        take(2),
      ) as RxSubject<number>,
    );
    await source.emit(1);
    await source.emit(2);
    expect([doubled.values, doubled.ended]).toEqual([[2, 4], true]);
    expect(source.listeners).toBe(0);
    const switched = record(source.pipe(switchMap((kg: number) => of(kg, kg + 1))) as RxSubject<number>);
    const wrapped = record(from(source).pipe(map((kg) => kg + 1)));
    await source.emit(3);
    expect([switched.values, wrapped.values]).toEqual([[3, 4], [4]]);
    switched.stop();
    wrapped.stop();
    expect(source.listeners).toBe(0);
  });

  it('lets go of what operators hold', async () => {
    const source = stream<number>();
    const subscription = (source.pipe(debounceTime(10)) as RxSubject<number>).subscribe(() => {
      throw new Error('told after it was unsubscribed');
    });
    await source.emit(1);
    subscription.unsubscribe();
    await new Promise((resolve) => setTimeout(resolve, 30));
    expect(source.listeners).toBe(0);
  });

  it('is an EventTarget, and takes callbacks', async () => {
    const source = stream<string>();
    const heard: unknown[] = [];
    const listener = (event: Event) => heard.push((event as MessageEvent).data);
    source.addEventListener('message', listener);
    source.subscribe(
      (value) => heard.push(value),
      null,
      () => heard.push('over'),
    );
    await source.emit('frost');
    source.removeEventListener('message', listener);
    await source.end();
    expect(heard).toEqual(['frost', 'frost', 'over']);
  });
});

/** Waits for what real time brings, however busy the machine is; the test's own limit ends it. */
async function until(isSo: () => boolean): Promise<void> {
  while (!isSo()) await new Promise((resolve) => setTimeout(resolve, 5));
}

describe('a score', () => {
  it('is written of a recording, and played again', async () => {
    const first = record(
      interval(20).pipe(
        take(3),
        map((n) => ({ kg: 30 + n })),
      ),
    );
    await until(() => first.ended);
    expect(String(first).replace(/\d+ms/g, 'ms')).toBe('ms {"kg":30}; ms {"kg":31}; ms {"kg":32}; ms end');
    const source = stream<unknown>();
    const second = record(source);
    source.play('10ms "a; b"; 20ms light\n25ms {"kg":31.4}; 30ms fail no signal');
    await until(() => second.ended);
    expect([second.values, (second.error as Error).message]).toEqual([
      ['a; b', 'light', { kg: 31.4 }],
      'no signal',
    ]);
  });

  it.each([
    ['31.2', /"31\.2" cannot be played: it has to begin with when/],
    ['300ms', /it has to begin with when, followed by what/],
    ['2s a; 1s b', /"1s b" cannot be played: it is earlier than the one before/],
    ['1s end; 2s a', /nothing comes after the end/],
  ])('refuses %s', (score, message) => {
    const failure = failureOf(() => stream().play(score));
    expect([failure.code, failure.message.replace(/\s+/g, ' ')]).toEqual([
      'SIM-SCORE',
      expect.stringMatching(message),
    ]);
  });
});
