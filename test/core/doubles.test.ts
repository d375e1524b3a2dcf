/** @jest-environment node */
import { fail, hold, inTurn, later, SimulacraError, spy, standIn, takeDown } from 'simulacra';

interface Inspection {
  hiveId: string;
  varroa: number;
}
interface InspectionService {
  log(inspection: Inspection): Promise<string>;
  latest(hiveId: string): Inspection | undefined;
}

class Store {
  readonly opened = Store.open();
  constructor(private readonly key: string) {
    throw new Error('the constructor ran');
  }
  static open(): boolean {
    throw new Error('a socket was opened');
  }
  load(): Promise<string[]> {
    return Promise.resolve([this.key]);
  }
}
class HiveStore extends Store {
  save(name: string): boolean {
    return name.length > 0;
  }
}

const outcome = async (work: () => unknown): Promise<unknown> => {
  try {
    return await work();
  } catch (error) {
    return error instanceof SimulacraError ? error.code : error;
  }
};

const outcomeError = (work: () => unknown): Promise<unknown> =>
  Promise.resolve()
    .then(work)
    .catch((thrown: unknown) => thrown);

describe('spies', () => {
  it('records plain argument lists and answers with a value or a function', () => {
    const weigh = spy<(kilograms: number, unit?: string) => string>(
      (kilograms, unit = 'kg') => `${kilograms} ${unit}`,
    );
    expect([weigh(31.2), weigh(27, 'lb')]).toEqual(['31.2 kg', '27 lb']);
    expect(weigh.calls).toEqual([[31.2], [27, 'lb']]);
    expect(spy(7)()).toBe(7);
    expect(spy()()).toBeUndefined();
  });

  it('has the same answers as every other double', async () => {
    const answer = hold<string>();
    const log = spy<InspectionService['log']>(
      inTurn(fail('the scale is wet'), answer, later(1, 'i9'), async () => 'i10'),
    );
    const entry = { hiveId: 'h7', varroa: 4 };
    expect(await outcome(() => log(entry))).toEqual(new Error('the scale is wet'));
    const held = log(entry);
    await answer.release('i8');
    expect(await held).toBe('i8');
    expect([await log(entry), await log(entry), await log(entry)]).toEqual(['i9', 'i10', 'i10']);
    expect(log.calls.length).toBe(5);
    expect(spy<() => number>(inTurn(1, 2))()).toBe(1);
  });

  it.each([
    ['a text', fail('late'), new Error('late')],
    ['an error of the user', fail(new RangeError('late')), new RangeError('late')],
    [
      'a status',
      fail(422, { title: 'Varroa is missing' }),
      Object.assign(new Error('Varroa is missing'), { status: 422 }),
    ],
    ['nothing', fail(), new Error('Failed with no reason')],
  ])('fails with %s', async (_, answer, expected) => {
    expect(await outcome(spy<() => Promise<void>>(answer))).toEqual(expected);
  });

  it('answers everyone who asks a held answer, before and after its release', async () => {
    const answer = hold<number>();
    const read = spy<() => Promise<number>>(answer);
    const early = [read(), read()];
    await answer.release(31.2);
    expect(await Promise.all([...early, read()])).toEqual([31.2, 31.2, 31.2]);
    expect(answer.asked).toBe(3);
  });
});

describe('stand-ins', () => {
  it('stands for a class without running its constructor', async () => {
    const store = standIn(HiveStore, { load: async () => ['Anemone'] });
    expect(store).toBeInstanceOf(Store);
    expect(store.save('Borage')).toBeUndefined();
    expect(await store.load()).toEqual(['Anemone']);
    expect(store.save.calls).toEqual([['Borage']]);
  });

  it('stands for an interface by names, by answers, or by nothing', async () => {
    const named = standIn<InspectionService>(['log'], { latest: () => undefined });
    const answered = standIn<InspectionService>({ log: hold() });
    const open = standIn<InspectionService>();
    void named.log({ hiveId: 'h7', varroa: 4 });
    expect(named.log.calls).toEqual([[{ hiveId: 'h7', varroa: 4 }]]);
    const { latest } = answered;
    expect(await outcome(() => latest('h7'))).toBe('SIM-STANDIN-UNKNOWN');
    expect(await outcome(() => answered.latest.calls)).toBe('SIM-STANDIN-UNKNOWN');
    expect(open.latest('h7')).toBeUndefined();
    expect(open.latest.calls).toEqual([['h7']]);
    expect(await open).toBe(open);
  });

  it.each([
    ['a class', () => standIn(HiveStore, { laod: hold() } as object), 'load'],
    ['a list', () => standIn<HiveStore>(['load']).save('x'), undefined],
  ])('refuses what %s does not have', async (_, make, meant) => {
    const error = (await outcomeError(make)) as SimulacraError;
    expect(error.code).toBe('SIM-STANDIN-UNKNOWN');
    expect(error.fields).toMatchObject(meant ? { nearest: meant } : {});
  });
});

it('has nothing to take down where nothing is up', async () => {
  await expect(takeDown()).resolves.toBeUndefined();
});
