import 'simulacra/jest';
import { AsyncPipe, UpperCasePipe } from '@angular/common';
import {
  HttpClient,
  HttpClientModule,
  HttpEventType,
  httpResource,
  provideHttpClient,
  withFetch,
  withInterceptors,
} from '@angular/common/http';
import {
  booleanAttribute,
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  contentChild,
  Directive,
  EventEmitter,
  forwardRef,
  inject,
  Injectable,
  InjectionToken,
  input,
  Input,
  model,
  NgModule,
  output,
  Output,
  Pipe,
  computed,
  signal,
  VERSION,
  ViewChild,
  viewChild,
  ɵɵdefineComponent,
  ɵɵtext,
  type PipeTransform,
} from '@angular/core';
import { outputFromObservable, toSignal } from '@angular/core/rxjs-interop';
import { BrowserModule } from '@angular/platform-browser';
import {
  ControlContainer,
  FormControl,
  FormGroup,
  FormGroupDirective,
  FormsModule,
  NG_VALUE_ACCESSOR,
  NgControl,
  ReactiveFormsModule,
} from '@angular/forms';
import { ActivatedRoute, provideRouter, RouterLink, RouterOutlet } from '@angular/router';
import { map, Subject as Stream, type Observable } from 'rxjs';
import type { SimulacraError } from 'simulacra';
import { css, fail, hold, part, record, role, spy, standIn, stream, takeDown, text } from 'simulacra';
import { isolate, startAt, stub } from 'simulacra/angular';
import { hives, type Hive } from '../../examples/shared/hive';

const failure = async (work: Promise<unknown>): Promise<SimulacraError> =>
  work.then(
    () => expect('nothing').toBe('thrown') as never,
    (error: SimulacraError) => error,
  );

const refuse = (): never => {
  throw new Error('this must never be asked for');
};

@Injectable()
class Archive {
  constructor() {
    refuse();
  }
}

@Injectable({ providedIn: 'root' })
class Store {
  readonly archive = inject(Archive);
  names(): string[] {
    return refuse();
  }
}

@Directive({ selector: '[tinted]', inputs: ['tint'], outputs: ['tinted'] })
class Tinted {
  tint = '';
  readonly tinted = new EventEmitter<string>();
}

/** A child with every kind of input and output, which must not run. */
@Component({
  selector: 'hive-row',
  exportAs: 'row',
  providers: [Archive],
  hostDirectives: [{ directive: Tinted, inputs: ['tint: colour'], outputs: ['tinted'] }],
  template: '{{ explode() }}',
})
class Row {
  @Input({ required: true, alias: 'hive' }) given!: string;
  @Input({ transform: booleanAttribute }) marked = false;
  readonly frames = input(0);
  readonly note = model('');
  @Output() readonly opened = new EventEmitter<string>();
  readonly closed = output<number>();
  readonly ticks = outputFromObservable(new Stream<number>());
  readonly store = inject(Store);
  explode = refuse;
  focus(): void {}
}

@Directive({ selector: '[rowless]', exportAs: 'around' })
class Rowless {
  readonly inside = contentChild(Row);
}

@Component({
  selector: 'hive-rows',
  imports: [Row, Rowless],
  template: `
    <div rowless #around="around" [attr.title]="around.inside() ? 'found' : null">
      <hive-row
        #row="row"
        hive="h3"
        marked
        [frames]="9"
        colour="red"
        [(note)]="note"
        (opened)="heard.push($event)"
        (closed)="heard.push($event)"
        (tinted)="heard.push($event)"
      >
        <b>inside</b>
      </hive-row>
    </div>
    <p>{{ note() }}</p>
    <button (click)="classic.focus()">Focus</button>
  `,
})
class Rows {
  readonly note = signal('calm');
  readonly heard: unknown[] = [];
  readonly row = viewChild.required(Row);
  @ViewChild(Row) classic!: Row;
}

describe(`Angular ${VERSION.full}, its own ways`, () => {
  it("has the original's selector, inputs, outputs and name, and none of its dependencies", async () => {
    const rows = await isolate(Rows, { stub: [stub(Row, { handle: ['focus'] })] });
    expect(rows.part(Row).props).toEqual([
      { hive: 'h3', marked: true, frames: 9, colour: 'red', note: 'calm' },
    ]);
    expect(rows.find(part(Row)).localName).toBe('hive-row');
    expect(rows).toShow(css('[title=found]'));
    expect(rows).toShow(text('inside').inside(part(Row)));
    await rows.part(Row).at(0).tell('opened', 'h3');
    await rows.part(Row).at(0).tell('closed', 3);
    await rows
      .part(Row)
      .at(0)
      .tell('tinted' as never, 'blue' as never);
    await rows.part(Row).at(0).tell('noteChange', 'wild');
    expect(rows).toShow(text('wild'));
    await rows.click(role('button', 'Focus'));
    expect(rows.part(Row).handle['focus']!.calls).toEqual([[]]);
  });

  it('takes calls of children that inject it, and refuses those of who stands around it', async () => {
    @Component({ selector: 'hive-rack', template: '<ng-content />' })
    class Rack {
      readonly frames: unknown[] = [];
      register(frame: unknown): number {
        return this.frames.push(frame);
      }
    }
    @Component({ selector: 'hive-frame', template: 'frame {{ place }}' })
    class Frame {
      readonly rack = inject(Rack);
      place = this.rack.register(this) ?? 'none';
      ngOnInit(): void {
        this.rack.register('again');
      }
    }
    @Component({
      selector: 'hive-box',
      imports: [Rack, Frame],
      template: '<hive-rack><hive-frame /></hive-rack>',
    })
    class Box {
      readonly rack = viewChild.required(Rack);
      ngAfterViewInit(): void {
        if (this.reaches) this.rack().register(this);
      }
      readonly reaches = Reaching.now;
    }
    const Reaching = { now: false };
    const box = await isolate(Box, { stub: [Rack] });
    expect(box).toShow(text('frame none'));
    Reaching.now = true;
    await expect(isolate(Box, { stub: [Rack] })).rejects.toThrow('Box asks for "register" of Rack');
  });

  it('is drawn by another component, or by a template', async () => {
    @Component({ selector: 'plain-row', template: '<i>{{ hive() }} {{ opened }}</i>' })
    class Plain {
      readonly hive = input('');
      readonly opened = 'here';
    }
    expect(await isolate(Rows, { stub: [stub(Row, Plain)] })).toShow(css('hive-row i'));
    const drawn = await isolate(Rows, { stub: [stub(Row, '<i>{{ hive }}</i>')] });
    expect(drawn.find(css('hive-row i')).textContent).toBe('h3');
    expect(drawn.part(Row).props[0]).toMatchObject({ hive: 'h3', frames: 9 });
  });

  it('stands for directives and pipes, by class and by name', async () => {
    @Directive({ selector: '[boom]', inputs: ['boom'] })
    class Boom {
      boom = '';
      readonly archive = inject(Archive);
    }
    @Pipe({ name: 'weigh' })
    class WeighPipe implements PipeTransform {
      readonly archive = inject(Archive);
      transform = (value: number): string => `${value} kg`;
    }
    @Component({
      imports: [Boom, WeighPipe, UpperCasePipe],
      template: `<p boom="x">{{ 3 | weigh }} {{ 'a' | uppercase }}</p>`,
    })
    class Sign {}
    expect(await isolate(Sign, { stub: [Boom, WeighPipe] })).toShow(text('3 A'));
    const sign = await isolate(Sign, { stub: ['Boom', stub('weigh', (n: number) => `${n} lb`)] });
    expect(sign).toShow(text('3 lb A'));
    expect(sign.part('Boom').props).toEqual([{ boom: 'x' }]);
  });

  it('keeps a form working where a control is stubbed', async () => {
    @Component({
      selector: 'frame-picker',
      template: '{{ explode() }}',
      providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => Picker), multi: true }],
    })
    class Picker {
      explode = refuse;
    }
    @Component({
      imports: [Picker, ReactiveFormsModule],
      template: '<frame-picker [formControl]="frames" />{{ frames.value }}',
    })
    class Form {
      readonly frames = new FormControl(4);
    }
    const form = await isolate(Form, { stub: [Picker] });
    expect(form.part(Picker).props).toEqual([{ value: 4, disabled: false }] as never);
    await form
      .part(Picker)
      .at(0)
      .tell('value' as never, 7 as never);
    expect(form).toShow(text('7'));

    @Component({ selector: 'frame-asker', template: '' })
    class Asking {
      constructor() {
        inject(NgControl).valueAccessor = refuse();
      }
    }
    @Component({ imports: [Asking, ReactiveFormsModule], template: '<frame-asker [formControl]="frames" />' })
    class Other {
      readonly frames = new FormControl(5);
    }
    const other = await isolate(Other, { stub: [Asking] });
    expect(other.part(Asking).props[0]).toMatchObject({ value: 5 });
  });

  it('works for components of modules, and for ones compiled ahead of time', async () => {
    @Component({ standalone: false, selector: 'old-card', template: '<old-row></old-row>' })
    class OldCard {}
    @Component({ standalone: false, selector: 'old-row', template: '{{ explode() }}' })
    class OldRow {
      explode = refuse;
    }
    @NgModule({ declarations: [OldCard, OldRow], imports: [FormsModule] })
    class OldModule {}
    expect(await isolate(OldCard, { stub: [OldRow], wrap: [OldModule] })).toShow(part(OldRow));
    // A module of an application is one of a browser, and of what no component imports itself.
    @Component({
      standalone: false,
      selector: 'old-form',
      template: '<fieldset formGroupName="frames"></fieldset>',
      viewProviders: [{ provide: ControlContainer, useExisting: FormGroupDirective }],
    })
    class OldForm {}
    @NgModule({ declarations: [OldForm], imports: [BrowserModule, ReactiveFormsModule] })
    class AppModule {}
    const formGroup = new FormGroup({ frames: new FormGroup({}) });
    const form = await isolate(OldForm, { wrap: [AppModule, [FormGroupDirective, { formGroup }]] });
    expect(form).toShow(role('group'));
    class Compiled {
      static readonly ɵfac = () => new Compiled();
      static readonly ɵcmp = ɵɵdefineComponent({
        type: Compiled,
        selectors: [['com-piled']],
        decls: 1,
        vars: 0,
        template: (flags: number) => void (flags & 1 && ɵɵtext(0, 'compiled')),
      });
    }
    expect(await isolate(Compiled)).toShow(text('compiled'));
    @Component({ imports: [Compiled as never], template: '<com-piled />' })
    class Around {}
    expect(await isolate(Around, { stub: [Compiled] })).toShow(part(Compiled));
  });
});

describe(`Angular ${VERSION.full}, its own ways`, () => {
  const UNITS = new InjectionToken<string>('UNITS');

  @Component({
    selector: 'name-list',
    providers: [{ provide: UNITS, useValue: 'its own' }],
    template: '{{ store.names() }} {{ units }}',
  })
  class Names {
    readonly store = inject(Store);
    readonly units = inject(UNITS);
  }

  it('beats what components and modules provide, by a stand-in whose constructor never runs', async () => {
    @NgModule({ providers: [{ provide: UNITS, useValue: 'of the module' }] })
    class UnitsModule {}
    @Component({ imports: [Names, UnitsModule], template: '<name-list />{{ units }}' })
    class Page {
      readonly units = inject(UNITS);
    }
    const store = standIn(Store, { names: () => ['Anemone'] });
    const page = await isolate(Page, {
      provide: [
        [Store, store],
        [UNITS, 'kg'],
      ],
    });
    expect(page.container.textContent).toBe('Anemone kgkg');
    expect(page.given(Store).names.calls[0]).toEqual([]);
    expect((await isolate(Page, { stub: [Names] })).container.textContent).toBe('of the module');
  });

  it('refuses what it cannot take: an input, a slot, a value of an option', async () => {
    @Component({ template: '<ng-content select="[footer]" />{{ weight() }}' })
    class Frame {
      readonly weight = input(1);
    }
    const codeOf = (work: Promise<unknown>) =>
      work.then(
        () => 'none',
        (error: { code: string }) => error.code,
      );
    const frame = await isolate(Frame);
    expect(await codeOf(frame.update({ wieght: 2 } as never))).toBe('SIM-PROP-UNKNOWN');
    expect(await codeOf(isolate(Frame, { slots: { default: 'x' } }))).toBe('SIM-SLOT-UNKNOWN');
    expect(await codeOf(isolate(Frame, { slots: { '[footer]': 'x' } }))).toBe('none');
    expect(await codeOf(isolate(Frame, { defer: 'soon' as never }))).toBe('SIM-OPTION-VALUE');
  });

  it('makes services of the application anew for each subject', async () => {
    @Injectable({ providedIn: 'root' })
    class Counter {
      count = 0;
    }
    @Component({ template: '{{ next() }}' })
    class Counting {
      readonly counter = inject(Counter);
      readonly next = signal(++inject(Counter).count);
    }
    for (let time = 0; time < 2; time++) expect(await isolate(Counting)).toShow(text('1'));
  });

  it('asks constructors for what they take', async () => {
    @Component({ selector: 'old-one', template: '{{ keeper.name }}' })
    class Old {
      constructor(readonly keeper: Keeper) {}
    }
    expect(await isolate(Old, { provide: [[Keeper, { name: 'Imke' }]] })).toShow(text('Imke'));
  });

  it('answers HttpClient, with interceptors too, and httpResource', async () => {
    @Component({
      template: '@if (names.hasValue()) {{{ names.value().length }} hives} @else {none} {{ one }}',
    })
    class List {
      readonly names = httpResource<Hive[]>(() => '/api/hives');
      one = '';
      constructor() {
        const changes = inject(ChangeDetectorRef);
        inject(HttpClient)
          .get<Hive>('/api/hives/h1')
          .subscribe((hive) => {
            this.one = hive.name;
            changes.markForCheck();
          });
      }
    }
    const stamped: string[] = [];
    const keyed = provideHttpClient(
      withInterceptors([(request, next) => (stamped.push(request.url), next(request))]),
    );
    const list = await isolate(List, {
      wrap: [keyed],
      network: { 'GET /api/hives': hives, 'GET /api/hives/:id': hives[0] },
    });
    expect(list.container.textContent).toBe('3 hives Anemone');
    expect(stamped).toEqual(['/api/hives/h1', '/api/hives']);
  });

  @Component({ template: '<button (click)="save()">Save</button> <p>{{ shown() }}</p>' })
  class Photo {
    readonly #http = inject(HttpClient);
    readonly shown = signal('');
    save() {
      const photo = new File(['frame 7'], 'frame.png', { type: 'image/png' });
      this.#http
        .put('/api/photos/p1', photo, { observe: 'events', reportProgress: true })
        .subscribe((event) => {
          if (event.type === HttpEventType.UploadProgress)
            this.shown.set(`${(100 * event.loaded) / event.total!} %`);
          if (event.type === HttpEventType.Response) this.shown.set(`saved ${event.status}`);
        });
    }
  }
  it.each<[string, unknown[]]>([
    ['fetch', []],
    ['XMLHttpRequest', [provideHttpClient()]],
  ])('says from which line a request was sent that no route answers: by %s', async (_, wrap) => {
    @Component({ template: '' })
    class Asking {
      constructor() {
        inject(HttpClient)
          .get('/api/weather')
          .subscribe({ error: () => undefined });
      }
    }
    const failed = await failure(isolate(Asking, { wrap: wrap as never }).then(takeDown));
    const { requests } = failed.fields as { requests: { at?: { file: string }; from: string }[] };
    expect(requests).toMatchObject([{ at: { file: __filename }, from: 'Asking' }]);
  });

  it.each<[string, unknown[], string]>([
    ['nothing', [], 'fetch'],
    ['provideHttpClient()', [provideHttpClient()], 'XMLHttpRequest'],
    ['HttpClientModule', [HttpClientModule], 'XMLHttpRequest'],
    ['withFetch()', [provideHttpClient(withFetch())], 'fetch'],
  ])('sends by the backend that is provided: with %s', async (_, wrap, carrier) => {
    const answer = hold();
    const photo = await isolate(Photo, { wrap: wrap as never, network: { 'PUT /api/photos/:id': answer } });
    await photo.click(role('button', 'Save'));
    if (carrier === 'XMLHttpRequest') {
      await answer.waiting[0]!.upload(0.5);
      expect(photo).toShow(text(/^\d+\.\d+ %$/));
    }
    await answer.release(undefined);
    expect(photo).toShow(text('saved 204'));
    expect(photo.requests).toMatchObject([
      { carrier, from: 'Photo', headers: { 'content-type': 'image/png' } },
    ]);
  });
});

@Injectable()
class Keeper {
  readonly name: string = refuse();
}

describe(`Angular ${VERSION.full}, its own ways`, () => {
  it('takes every kind of input, and records every kind of output', async () => {
    const ticks = new Stream<number>();
    @Component({
      selector: 'all-kinds',
      template:
        '{{ plain }} {{ marked }} {{ name() }} {{ note() }}<ng-content /><ng-content select="[title]" />',
    })
    class All {
      @Input() plain = 0;
      @Input({ transform: booleanAttribute }) marked = false;
      readonly name = input.required<string>({ alias: 'called' });
      readonly note = model('');
      @Output() readonly old = new EventEmitter<string>();
      readonly modern = output<string>();
      readonly ticks = outputFromObservable(ticks);
    }
    const note = signal('calm');
    const old = spy();
    const all = await isolate(All, {
      props: { plain: 3, marked: '' as never, called: 'Anemone', note, old } as never,
      slots: { default: ' rest', '[title]': document.createElement('hr') },
    });
    expect(all.container.textContent).toBe('3 true Anemone calm rest');
    expect(all).toShow(css('hr'));
    note.set('wild');
    await all.atRest();
    expect(all.container.textContent).toContain('wild');
    await all.update({ plain: 4 });
    expect(all.container.textContent).toContain('4 true');
    ticks.next(7);
    expect(all.outputs.ticks).toEqual([[7]]);
    expect(all.outputs.modern).toEqual([]);
  });

  it('takes what has an alias by the name of its field, which is what types know', async () => {
    @Component({
      selector: 'renamed-card',
      template: '{{ name() }} {{ weight }}<button (click)="opened.emit(name())">Open</button>',
    })
    class Renamed {
      readonly name = input.required<string>({ alias: 'called' });
      @Input('kilos') weight = 0;
      @Output('openedCard') readonly opened = new EventEmitter<string>();
    }
    const opened = spy<(name: string) => void>();
    const card = await isolate(Renamed, { props: { name: 'Anemone', weight: 3, opened } });
    expect(card).toShow(text(/Anemone 3/));
    await card.update({ name: 'Borage' });
    await card.click(role('button', 'Open'));
    expect([opened.calls, card.outputs.opened]).toEqual([[['Borage']], [['Borage']]]);
    await expect(isolate(Renamed, { props: { weight: 3 } })).rejects.toMatchObject({
      code: 'SIM-PROP-MISSING',
    });
  });

  it('shows what signals, streams, promises and timers bring, and leaves a mistake with OnPush to be seen', async () => {
    @Component({
      changeDetection: ChangeDetectionStrategy.OnPush,
      template:
        '{{ signalled() }} {{ list.length }} <button (click)="add()">Add</button><button (click)="later()">Later</button>',
    })
    class Pushed {
      readonly signalled = signal('now');
      list: number[] = [];
      add(): void {
        this.list.push(1);
      }
      later(): void {
        setTimeout(() => this.list.push(1), 2);
        setTimeout(() => this.signalled.set('late'), 400);
      }
    }
    const pushed = await isolate(Pushed);
    await pushed.click(role('button', 'Add'));
    expect(pushed).toShow(text(/now 1/));
    await pushed.click(role('button', 'Later'));
    await new Promise((resolve) => setTimeout(resolve, 15));
    await pushed.atRest();
    expect(pushed).toShow(text(/now 1/));
    await pushed.appears(text(/late 2/));
  });

  it('has the styles of a file of its own', async () => {
    @Component({
      selector: 'shut-gate',
      styleUrl: './shut.css',
      template: ` <div class="shut"><button>Hidden</button></div> `,
    })
    class Shut {}
    const shut = await isolate(Shut);
    expect(shut).not.toShow(role('button', 'Hidden'));
  });

  it('stubs a component inside of itself', async () => {
    @Component({
      selector: 'frame-box',
      imports: [forwardRef(() => Box)],
      template: '<p>{{ n() }}</p><frame-box [n]="n() + 1" />',
    })
    class Box {
      readonly n = input(1);
    }
    const box = await isolate(Box, { stub: [Box] });
    expect(box).toShow(text('1'));
    expect(box.part(Box).props).toEqual([{ n: 2 }]);
  });

  it('has the real Router, with an address in memory', async () => {
    @Component({ imports: [RouterLink], template: 'Hive {{ id }} <a routerLink="/board">Board</a>' })
    class Detail {
      readonly id = inject(ActivatedRoute).snapshot.paramMap.get('hiveId');
    }
    @Component({
      selector: 'board-page',
      imports: [RouterLink],
      template: 'The board <a routerLink="/closed">Closed</a>',
    })
    class BoardPage {}
    @Component({ selector: 'yard-shell', imports: [RouterOutlet], template: '<router-outlet />' })
    class Shell {}
    const routes = [
      { path: 'hives/:hiveId', component: Detail },
      { path: 'board', component: BoardPage },
      { path: 'closed', component: BoardPage, canActivate: [() => false] },
    ];
    const shell = await isolate(Shell, { wrap: [provideRouter(routes), startAt('/hives/h7')] });
    expect(shell).toShow(text(/Hive h7/));
    await shell.click(role('link', 'Board'));
    expect(shell).toShow(text(/The board/));
    await shell.click(role('link', 'Closed'));
    expect(shell).toShow(text(/The board/));
    expect(shell.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/board']);
    expect(location.pathname).toBe('/');
    expect((await failure(isolate(Detail))).message).toContain('wrap: [provideRouter([])]');
  });

  it('plays a @defer block through its states', async () => {
    @Component({ selector: 'late-part', template: 'late' })
    class Late {}
    @Component({
      imports: [Late],
      template: `
        <button (click)="on.set(true)">Go</button>
        @defer (when on()) {
          <late-part />
        } @placeholder {
          <i>placeholder</i>
        } @loading {
          <i>loading</i>
        } @error {
          <i>error</i>
        }
      `,
    })
    class Page {
      readonly on = signal(false);
    }
    const answer = hold();
    const page = await isolate(Page, { defer: answer, stub: [Late] });
    expect(page).toShow(text('placeholder'));
    await page.click(role('button'));
    expect(page).toShow(text('loading'));
    await answer.release(undefined);
    expect(page).toShow(part(Late));
    const failed = await isolate(Page, { defer: fail() });
    await failed.click(role('button'));
    expect(failed).toShow(text('error'));
  });

  it('records signals, and a stream is an Observable to it', async () => {
    const weight = signal(31.2);
    const weights = record(weight);
    const heavy = record(computed(() => weight() > 35));
    weight.set(36);
    await Promise.resolve();
    weight.set(34);
    await Promise.resolve();
    expect([weights.values, heavy.values]).toEqual([
      [31.2, 36, 34],
      [false, true, false],
    ]);

    const readings = stream<number>();
    @Component({
      imports: [AsyncPipe],
      template: '<output>{{ readings | async }}</output><p>{{ latest() }}</p><b>{{ doubled | async }}</b>',
    })
    class Scale {
      readonly readings = readings;
      readonly latest = toSignal(readings);
      readonly doubled = readings.pipe(map((kg: number) => kg * 2)) as Observable<number>;
    }
    const scale = await isolate(Scale);
    await readings.emit(20);
    expect(scale.container.textContent).toBe('202040');
    await takeDown();
    expect(readings.listeners).toBe(0);
  });
});
