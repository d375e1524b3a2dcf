import 'simulacra/jest';
import { HttpClient } from '@angular/common/http';
import {
  Component,
  effect,
  inject,
  Injectable,
  InjectionToken,
  NgModule,
  Pipe,
  input,
  output,
  signal,
  VERSION,
} from '@angular/core';
import { ActivatedRoute, provideRouter } from '@angular/router';
import { isolate, isolateWith, stub } from 'simulacra/angular';
import { HiveBoard } from '../../examples/angular-apiary/src/hive-board';
import { HiveCard } from '../../examples/angular-apiary/src/hive-card';
import { Session } from '../../examples/angular-apiary/src/session';
import { YardGate } from '../../examples/angular-apiary/src/yard-gate';
import { hives, type Hive } from '../../examples/shared/hive';
import { Desk, Pad } from '../conformance/angular';
import { explainsEach } from './run';
import { at, mistakes, type Mistake } from './table';

@Pipe({ name: 'weight' })
class WeightPipe {
  transform = (kilograms: number) => `${kilograms} kg`;
}

@Component({
  selector: 'hive-scale',
  template: `<div>
    <p>Now <b>31.2</b> kg</p>
    <div aria-hidden="true"><button>Tare</button></div>
    <button style="display: none">Reset</button>
  </div>`,
})
class Scale {}

@Component({
  selector: 'hive-retitled',
  template: `<div>
    @if (open()) {
      <strong>Inspections</strong>
    } @else {
      <h2>Inspections</h2>
    }
    <button (click)="open.set(true)">Open</button>
  </div>`,
})
class Retitled {
  readonly open = signal(false);
}

@Component({ selector: 'hive-sick', template: '{{ look() }}' })
class Sick {
  look(): never {
    throw new TypeError('queen is undefined');
  }
}
@Component({ selector: 'hive-row', template: '<div><ng-content /></div>' })
class Row {}
@Component({ selector: 'hive-tray', imports: [Row, Sick], template: '<hive-row><hive-sick /></hive-row>' })
class Tray {}

@Component({ selector: 'hive-loop', template: '<p [attr.data-turn]="n()">Turn</p>' })
class Loop {
  readonly n = signal(0);
  async pause(): Promise<void> {
    for (let n = 0; n < 20; n++) await null;
  }
  constructor() {
    effect(() => {
      const next = this.n() + 1;
      void this.pause().then(() => this.n.set(next));
    });
  }
}

@Component({ selector: 'hive-rack', template: '<ul><ng-content /></ul>' })
class Rack {
  readonly spacing = signal(35);
}
@Component({ selector: 'hive-frame', template: '{{ rack.spacing() }} mm' })
class Frame {
  readonly rack = inject(Rack);
}
@Component({
  selector: 'hive-box',
  imports: [Rack, Frame],
  template: '<hive-rack><hive-frame /><hive-frame /></hive-rack>',
})
class Box {}
@Component({ selector: 'hive-radio', template: '{{ channel.name }}' })
class Radio {
  readonly channel = new BroadcastChannel('yard');
}

const another = (() => {
  @Component({ selector: 'other-card', template: '' })
  class HiveCard {
    readonly hive = input<Hive>();
    readonly opened = output<string>();
  }
  return HiveCard;
})();

@Injectable()
class Archive {
  readonly http = inject(HttpClient);
  readonly session = inject(Session);
}
@Injectable({ providedIn: 'root' })
class Almanac {
  readonly archive = inject(Archive);
}
const UNITS = new InjectionToken<string>('UNITS');

const of = (metadata: Component, more: object = {}) => {
  const type = { [metadata.selector!]: class {} }[metadata.selector!]!;
  Object.assign(type.prototype, more);
  Object.defineProperty(type, 'name', {
    value: metadata.selector!.replace(/(^|-)(\w)/g, (_, __, letter: string) => letter.toUpperCase()),
  });
  return Component(metadata)(type) ?? type;
};

@Component({ selector: 'bloom-list', template: '' })
class BloomList {
  readonly almanac = inject(Almanac);
}
@Component({ selector: 'unit-sign', template: '' })
class UnitSign {
  readonly units = inject(UNITS);
}
@Component({ selector: 'hive-detail', template: '' })
class HiveDetail {
  readonly route = inject(ActivatedRoute);
}

@NgModule({})
class YardModule {}
const RoofLid = of({ selector: 'roof-lid', imports: [undefined as never], template: '' });
const RoofSign = of({ selector: 'roof-sign', imports: [RoofLid], template: '<roof-lid />' });
const OldGauge = of({ selector: 'old-gauge', standalone: false, template: '' });
const FrostSign = of({ selector: 'frost-sign', imports: [OldGauge], template: '<old-gauge />' });
const RainGauge = () => '4 mm';
const RainSign = of({ selector: 'rain-sign', imports: [RainGauge as never], template: '' });

const loaded = { props: { yard: 'north' }, network: { 'GET /api/hives': hives } };
const nobody = { keeper: signal(null), signIn() {}, signOut() {} };

const own: Mistake[] = [
  {
    title: 'A module in place of a component',
    code: 'isolate(YardModule)',
    make: () => isolate(YardModule),
  },
  {
    title: 'An instance in place of a component',
    code: 'isolate(new UnitSign())',
    make: () => isolate(Object.create(UnitSign.prototype as object) as never),
  },
  {
    title: 'A function in wrap that has to be called',
    code: 'isolate(RoofSign, { wrap: [provideRouter] })',
    make: () => isolate(RoofSign, { wrap: [provideRouter as never] }),
  },
  {
    title: 'What was provided, by its name',
    code: "gate.given('Session')",
    make: async () => {
      const gate = await isolate(YardGate, { provide: [[Session, nobody as never]] });
      return gate.given('Session' as never);
    },
  },
  {
    title: 'An import that is undefined',
    code: 'isolate(RoofSign)   // imports RoofLid, which imports undefined',
    make: () => isolate(RoofSign),
  },
  {
    title: 'An import that is not standalone',
    code: 'isolate(FrostSign)   // imports OldGauge',
    make: () => isolate(FrostSign),
  },
  {
    title: 'An import that is no component',
    code: 'isolate(RainSign)   // imports the function RainGauge',
    make: () => isolate(RainSign),
  },
  {
    title: 'A service that nobody provides',
    code: 'isolate(YardGate)',
    make: () => isolate(YardGate),
    facts: {
      fields: {
        home: { file: expect.stringMatching(/src\/session\.ts$/) as string, name: 'Session' },
        readAt: at('yard-gate.ts', 31),
      },
    },
  },
  {
    title: 'A service that another service needs',
    code: 'isolate(BloomList)   // needs Almanac, which needs Archive',
    make: () => isolate(BloomList),
  },
  { title: 'A token that nobody provides', code: 'isolate(UnitSign)', make: () => isolate(UnitSign) },
  { title: 'A route without a router', code: 'isolate(HiveDetail)', make: () => isolate(HiveDetail) },
  { title: 'A required input that is not given', code: 'isolate(HiveBoard)', make: () => isolate(HiveBoard) },
  {
    title: 'An input that does not exist',
    code: "isolate(HiveBoard, { props: { yrad: 'north' } })",
    make: () => isolate(HiveBoard, { props: { yrad: 'north' } as never }),
  },
  {
    title: 'An input of a stub that its original does not have',
    code: 'isolate(Shelf, { stub: [HiveCard] })   // <hive-card [hvie]="hive" /> in its template',
    make: () =>
      isolate(of({ selector: 'shelf', imports: [HiveCard], template: '<hive-card [hvie]="1" />' }) as never, {
        stub: [HiveCard],
      }),
  },
  {
    title: 'A component that is missing from the imports',
    code: 'isolate(Shelf)   // <hive-card /> in its template',
    make: () => isolate(of({ selector: 'shelf', template: '<hive-card />' }) as never),
  },
  {
    title: 'A directive that is missing from the imports',
    code: 'isolate(Shelf)   // [ngModel] in its template',
    make: () => isolate(of({ selector: 'shelf', template: '<input [ngModel]="1" />' }) as never),
  },
  {
    title: 'A pipe that is missing from the imports',
    code: 'isolate(Shelf)   // {{ 3 | weight }} in its template',
    make: () => isolate(of({ selector: 'shelf', template: '{{ 3 | weight }}' }) as never),
  },
  {
    title: 'A pipe whose name is a letter off',
    code: "isolate(Shelf, { stub: ['weigth'] })   // {{ 3 | weight }} in its template",
    make: () =>
      isolate(of({ selector: 'shelf', template: '{{ 3 | weight }}', imports: [WeightPipe] }) as never, {
        stub: ['weigth'],
      }),
  },
  {
    title: 'An output that does not exist',
    code: 'board.outputs.opend',
    make: async () => ((await isolate(HiveBoard, loaded)).outputs as Record<string, unknown>)['opend'],
  },
];

explainsEach(
  `Angular ${VERSION.full}`,
  [
    ...mistakes({
      isolate: isolate as never,
      isolateWith: isolateWith as never,
      stub,
      HiveBoard,
      HiveCard,
      anotherHiveCard: another,
      YardGate,
      Session,
      nobody,
      imke: { ...nobody, keeper: signal('Imke') },
      Weather: new InjectionToken<string>('Weather'),
      listens: 'opened',
      Scale,
      Retitled,
      Tray,
      Loop,
      shore: () => import('./modules/angular/Shore'),
      Desk,
      Pad,
      Box,
      Rack,
      Radio,
    }),
    ...own,
  ],
  { file: 'mistakes-angular', others: 'mistakes' },
);
