import 'simulacra/jest';
import {
  Component,
  Directive,
  ErrorHandler,
  inject,
  InjectionToken,
  input,
  Input,
  signal,
  VERSION,
} from '@angular/core';
import { part, role, standIn, takeDown, text, type SimulacraError } from 'simulacra';
import { isolate, isolateWith, stub } from 'simulacra/angular';

/* What a user of Angular takes for granted, beside what all frameworks have. */

@Component({ selector: 'sick-bee', template: '<p>{{ temperature() }}</p>' })
class SickBee {
  readonly ill = input(true);
  temperature(): string {
    if (this.ill()) throw new RangeError('39.5 degrees');
    return '36.5';
  }
}
@Component({ selector: 'sick-hive', imports: [SickBee], template: '<h1>Hive</h1><sick-bee /><p>Below</p>' })
class SickHive {}

abstract class Lookup {
  abstract readonly isVerified: boolean;
  abstract find(id: string): string;
  greet(): string {
    return 'never run';
  }
}
@Component({ selector: 'look-up', template: '{{ of.isVerified }} {{ of.find("h1") }} {{ of.greet() }}' })
class LookUp {
  readonly of = inject(Lookup);
}

interface Api {
  load(): string[];
}
export const HIVE_API = new InjectionToken<Api>('where the hives come from');
@Component({ selector: 'hive-names', template: '<p>{{ api.load().join() }}</p>' })
class HiveNames {
  readonly api = inject(HIVE_API);
}

@Directive({ selector: '[yardMark]', host: { class: 'marked', '[title]': 'yardMark()' } })
class YardMark {
  readonly yardMark = input('');
}
@Component({ selector: 'marked-yard', imports: [YardMark], template: '<p yardMark="north">Hives</p>' })
class MarkedYard {}

const failure = (work: Promise<unknown>): Promise<SimulacraError> =>
  work.then(
    () => expect('nothing').toBe('thrown') as never,
    (error: SimulacraError) => Object.assign(error, { message: error.message.replace(/\s+/g, ' ') }),
  );

describe(`Angular ${VERSION.full}, what it is trusted with`, () => {
  it('tells an ErrorHandler of the test of what was thrown while rendering, and lets it decide', async () => {
    const told: unknown[] = [];
    const handler = { handleError: (error: unknown) => void told.push(error) };
    const hive = await isolate(SickHive, { provide: [[ErrorHandler, handler as ErrorHandler]] });
    expect(told).toEqual([new RangeError('39.5 degrees')]);
    expect(hive).toShow(role('heading', 'Hive'));
    expect(hive.chronicle.of('threw')).toHaveLength(1);
    expect(String(hive.outline())).toContain('heading "Hive"');
    await hive.takeDown();
    const strict = {
      handleError: () => {
        throw new TypeError('as the handler says');
      },
    };
    const error = await failure(isolate(SickHive, { wrap: [{ provide: ErrorHandler, useValue: strict }] }));
    expect(error.message).toContain('as the handler says');
    // Nothing is thrown, so it is not asked, which is no fault.
    await isolate(MarkedYard, { provide: [[ErrorHandler, handler as ErrorHandler]] });
    await takeDown();
  });

  it('lets abstract classes and interfaces be stood in for', async () => {
    const lookup = standIn(Lookup, { isVerified: true, find: () => 'Anemone' });
    const page = await isolate(LookUp, { provide: [[Lookup, lookup]] });
    expect(page).toShow(text('true Anemone'));
    expect(lookup.find.calls[0]).toEqual(['h1']);
    const isolateAsTeam = isolateWith({ provide: [[HIVE_API, standIn<Api>({ load: () => ['Anemone'] })]] });
    expect(await isolateAsTeam(HiveNames)).toShow(text('Anemone'));
  });

  it('names a token as the code does', async () => {
    const { HIVE_API: imported } = await import('./angular-trust.test');
    expect(imported).toBeDefined();
    const { message } = await failure(isolate(HiveNames));
    expect(message).toMatch(/the token "where the hives come from"|HIVE_API/);
    expect(message).toMatch(/provide: \[\[(thatToken|HIVE_API), …\]\]/);
  });

  it('stubs by selector, too', async () => {
    const hive = await isolate(SickHive, { stub: ['sick-bee'] });
    expect(hive).toShow(part(SickBee));
    const yard = await isolate(MarkedYard, { stub: ['[yardMark]'] });
    expect(yard.part(YardMark).props).toEqual([{ yardMark: 'north' }]);
    expect(yard.find(text('Hives')).className).toBe('');
    const drawn = await isolate(SickHive, { stub: [stub('sick-bee', '<i>ill</i>')] });
    expect(drawn).toShow(text('ill'));
  });

  it('finds a real directive as it finds a stubbed one', async () => {
    const yard = await isolate(MarkedYard);
    expect(yard.part(YardMark).props).toEqual([{ yardMark: 'north' }]);
    expect(yard.find(part(YardMark))).toBe(yard.find(text('Hives')));
  });

  it('puts directives and providers around the subject', async () => {
    const names = await isolate(HiveNames, {
      wrap: [[YardMark, { yardMark: 'east' }], { provide: HIVE_API, useValue: { load: () => ['Borage'] } }],
    });
    expect(names).toShow(text('Borage'));
    expect(names.container.querySelector('.marked')?.getAttribute('title')).toBe('east');
  });

  it('runs no code of a component to print its outline', async () => {
    let times = 0;
    @Component({ selector: 'a-scale', template: 'Scale' })
    class Scale {
      readonly unit = signal('kg');
      @Input() set weight(_: number) {}
      get weight(): number {
        times++;
        throw new Error('not to be read');
      }
    }
    const scale = await isolate(Scale as never, { props: { weight: 3 } as never });
    expect(String(scale.outline())).toBe('Scale\n  "Scale"');
    expect(times).toBe(0);
  });
});
