/** @jest-environment node */
import { hold, inTurn, spy, standIn, stream } from 'simulacra';
import { ChronicleLog } from '../../src/core/chronicle';
import { print, printThrown } from '../../src/core/print';
import { SimulacraError } from '../../src/core/errors';
import { runInNewContext } from 'node:vm';

describe('printing a value', () => {
  const refusing = new Proxy(
    {},
    {
      get() {
        throw new Error('not to be read');
      },
    },
  );
  const deep = {
    get weight(): number {
      throw new Error('no scale');
    },
  };
  it.each<[string, unknown, string]>([
    ['a Map', new Map([['h1', { weight: 31.2 }]]), 'Map(1) { "h1" => { weight: 31.2 } }'],
    ['a Set', new Set(['north', 'east']), 'Set(2) { "north", "east" }'],
    ['an empty Map', new Map(), 'Map(0) {}'],
    ['a Map with more than fits', new Map([...'abcdefgh'].map((key) => [key, 1])), ''],
    ['a getter that throws', deep, '{ weight: "(cannot be read)" }'],
    ['a proxy that refuses', refusing, '(cannot be read)'],
    ['what holds itself', Object.assign({} as Record<string, unknown>, { a: [1] }), '{ a: [1] }'],
  ])('%s', (_, value, expected) => {
    if (expected) expect(print(value, 200)).toBe(expected);
    else expect(print(value, 200)).toMatch(/… 2 more/);
  });

  it('looks at no more of it than it prints', () => {
    let read = 0;
    const big = Object.fromEntries(Array.from({ length: 5000 }, (_, n) => [`key${n}`, n]));
    const watched = new Proxy(big, { get: (target, key) => (read++, Reflect.get(target, key) as unknown) });
    expect(print(watched, 200)).toMatch(/key5: 5, … }$/);
    expect(read).toBeLessThan(20);
    expect(print('x'.repeat(1e6)).length).toBe(80);
  });
});

describe('a chronicle', () => {
  it('has a million lines, and tells of the last of them', () => {
    const chronicle = new ChronicleLog(() => performance.now());
    for (let n = 0; n < 1e6; n++) chronicle.add('called', `tick${n}`);
    expect(chronicle.of('called').length).toBe(1e6);
    expect(chronicle.recent().split('\n')).toHaveLength(61);
    expect(chronicle.recent()).toMatch(/^… 999940 earlier lines[^]*tick999999/);
    expect(chronicle.toString().length).toBeGreaterThan(1e6);
  });
});

describe('a stream that is iterated over', () => {
  const read = async (it: AsyncIterator<number>, times: number) =>
    Promise.all(
      Array.from({ length: times }, () => it.next().then(({ value, done }) => (done ? 'done' : value))),
    );

  it.each<
    [string, (it: AsyncIterator<number>, all: ReturnType<typeof stream<number>>) => Promise<unknown>, unknown]
  >([
    [
      'answers several who ask before anything is emitted',
      async (it, all) => {
        const asked = read(it, 2);
        await all.emit(1);
        await all.emit(2);
        return asked;
      },
      [1, 2],
    ],
    [
      'is over after its end, however often it is asked',
      async (it, all) => {
        await all.end();
        return read(it, 3);
      },
      ['done', 'done', 'done'],
    ],
    [
      'lets go of who waits when it is given up',
      async (it) => {
        const asked = read(it, 1);
        await it.return!();
        return [...(await asked), ...(await read(it, 1))];
      },
      ['done', 'done'],
    ],
    [
      'fails once, and is over then',
      async (it, all) => {
        await all.fail('no scale');
        return [await it.next().catch((error: Error) => error.message), ...(await read(it, 1))];
      },
      ['no scale', 'done'],
    ],
  ])('%s', async (_, work, expected) => {
    const all = stream<number>();
    expect(await work(all[Symbol.asyncIterator](), all)).toEqual(expected);
  });

  it('tells every listener though one of them throws, and throws then', async () => {
    const all = stream<number>();
    const heard = spy();
    all.subscribe(() => {
      throw new RangeError('too heavy');
    });
    all.subscribe(heard);
    await expect(all.emit(1)).rejects.toThrow('too heavy');
    expect(heard.calls).toEqual([[1]]);
  });
});

describe('doubles outside of every subject', () => {
  it('keep their turns and what was let go', async () => {
    const load = spy<() => Promise<string>>(
      inTurn(
        () => Promise.resolve('first'),
        () => Promise.resolve('second'),
      ),
    );
    expect([await load(), await load(), await load()]).toEqual(['first', 'second', 'second']);
    const held = hold<string>();
    const asked = spy<() => Promise<string>>(held)();
    await held.release('later');
    expect([await asked, held.asked]).toEqual(['later', 1]);
    await expect(held.release('again')).rejects.toMatchObject({ code: 'SIM-HOLD-TWICE' });
  });

  it('run no accessor of a class that a stand-in is made from', () => {
    class Scale {
      readonly #socket = 'open';
      get live(): string {
        return this.#socket;
      }
      set unit(_: string) {
        throw new Error('an accessor ran');
      }
      read(): number {
        return 1;
      }
    }
    const scale = standIn(Scale, { read: 2 });
    scale.unit = 'kg';
    expect([scale.live, scale.read(), scale.unit]).toEqual([undefined, 2, 'kg']);
    expect(standIn(Scale, { live: 'yes' }).live).toBe('yes');
  });
});

describe('a failure as data', () => {
  const asData = (fields: object): SimulacraError =>
    JSON.parse(JSON.stringify(new SimulacraError('SIM-TRIED', fields, { head: 'tried' }))) as SimulacraError;

  it('can be written down, whatever a test has given', () => {
    const circular: Record<string, unknown> = { yard: 'north' };
    circular['itself'] = circular;
    const hives = Array.from({ length: 5000 }, (_, at) => ({ id: `h${at}` }));
    const { code, message, fields } = asData({
      ...{ circular, hives, long: 'x'.repeat(50_000), big: 3n, at: () => 1, map: new Map([[1, 2]]) },
    }) as SimulacraError & { fields: Record<string, unknown> };
    expect([code, message]).toEqual(['SIM-TRIED', 'SIM-TRIED  tried']);
    expect(fields['hives']).toHaveLength(100);
    expect(fields['long']).toHaveLength(10_001);
    expect(fields).toMatchObject({
      big: '3n',
      at: 'ƒ at',
      map: 'Map(1) { 1 => 2 }',
      circular: { yard: 'north' },
    });
  });

  it('keeps the name and message of an error of another realm', () => {
    const foreign: unknown = runInNewContext("new RangeError('39.5 degrees')");
    expect(foreign instanceof Error).toBe(false);
    expect(printThrown(foreign)).toBe('RangeError: 39.5 degrees');
    expect(print(foreign)).toBe('RangeError("39.5 degrees")');
  });
});
