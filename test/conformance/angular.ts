import { HttpClient } from '@angular/common/http';
import {
  Component,
  computed,
  effect,
  inject,
  InjectionToken,
  input,
  output,
  signal,
  viewChild,
  type ElementRef,
  type OnDestroy,
  type OnInit,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { Hive } from '../../examples/shared/hive';
import type { Play } from './time';

/* The components of the specification, as an Angular engineer writes them. */

export const Keeper = new InjectionToken<string>('Keeper');

@Component({ selector: 'yard-weight', template: '<p>{{ kilograms() }} kg</p>' })
export class Weight {
  readonly kilograms = input.required<number>();
}

@Component({
  selector: 'yard-card',
  imports: [Weight],
  template: `
    <article [attr.aria-label]="hive().name">
      <h3>{{ hive().name }}</h3>
      <yard-weight [kilograms]="hive().weight" />
      <ng-content />
      <button (click)="open.emit(hive().id)">Open</button>
    </article>
  `,
})
export class Card {
  readonly hive = input.required<Hive>();
  readonly open = output<string>();
}

type Found = { state: 'loading' | 'failed' } | { state: 'loaded'; hives: Hive[] };

@Component({
  selector: 'yard-board',
  imports: [Card],
  template: `
    <section aria-label="Hives">
      @switch (found().state) {
        @case ('loading') {
          <p role="status">Loading hives</p>
        }
        @case ('failed') {
          <div role="alert">
            The hives could not be loaded
            <button (click)="attempt.set(attempt() + 1)">Try again</button>
          </div>
        }
        @default {
          @for (hive of hives(); track hive.id) {
            <yard-card [hive]="hive" (open)="show($event)">
              <p>Tasks: {{ hive.tasks.length }}</p>
            </yard-card>
          } @empty {
            <p>No hives</p>
          }
        }
      }
      @if (opened()) {
        <p>Opened {{ opened() }}</p>
      }
    </section>
  `,
})
export class Board {
  readonly yard = input.required<string>();
  readonly open = output<string>();
  readonly found = signal<Found>({ state: 'loading' });
  readonly hives = computed(() => {
    const found = this.found();
    return found.state === 'loaded' ? found.hives : [];
  });
  readonly attempt = signal(0);
  readonly opened = signal('');
  private readonly http = inject(HttpClient);

  constructor() {
    effect((onCleanup) => {
      this.attempt();
      const query = `/api/hives?yard=${this.yard()}`;
      this.found.set({ state: 'loading' });
      const asking = this.http.get<Hive[]>(query).subscribe({
        next: (hives) => this.found.set({ state: 'loaded', hives }),
        error: () => this.found.set({ state: 'failed' }),
      });
      onCleanup(() => asking.unsubscribe());
    });
  }

  show(id: string) {
    this.opened.set(id);
    this.open.emit(id);
  }
}

@Component({ selector: 'yard-greeting', template: '<p>Good day, {{ keeper }}</p>' })
export class Greeting {
  readonly keeper = inject(Keeper);
}

@Component({ selector: 'yard-pad', template: '<textarea #area aria-label="Pad"></textarea>' })
export class Pad {
  private readonly area = viewChild.required<ElementRef<HTMLTextAreaElement>>('area');
  focus() {
    this.area().nativeElement.focus();
  }
}

@Component({
  selector: 'yard-desk',
  imports: [Pad],
  template: '<button (click)="pad().focus()">Write</button><yard-pad />',
})
export class Desk {
  readonly pad = viewChild.required(Pad);
}

@Component({ selector: 'yard-patient', template: '<p>{{ state() }}</p>' })
export class Patient {
  readonly ill = input(false);
  readonly state = computed(() => {
    if (this.ill()) throw new RangeError('39.5 degrees');
    return 'Well';
  });
}

@Component({
  selector: 'yard-ward',
  imports: [Patient],
  template: '<div><yard-patient [ill]="ill()" /></div>',
})
export class Ward {
  readonly ill = input(false);
}

@Component({
  selector: 'yard-log',
  imports: [FormsModule],
  template: `
    <form (ngSubmit)="log.emit({ note, varroa: '' + varroa, yard, marked, mood })">
      <h2>Log</h2>
      <label>Note <input name="note" [(ngModel)]="note" /></label>
      <label for="varroa">Varroa</label>
      <input id="varroa" type="number" name="varroa" [(ngModel)]="varroa" />
      <label>
        Yard
        <select name="yard" [(ngModel)]="yard">
          <option value="north">North</option>
          <option value="east">East</option>
        </select>
      </label>
      <label><input type="checkbox" name="marked" [(ngModel)]="marked" /> Marked</label>
      <label><input type="radio" name="mood" value="calm" [(ngModel)]="mood" /> Calm</label>
      <label><input type="radio" name="mood" value="angry" [(ngModel)]="mood" /> Angry</label>
      <button [disabled]="note === ''">Log</button>
    </form>
  `,
})
export class Log {
  readonly log = output<object>();
  note = '';
  varroa: number | null = null;
  yard = 'north';
  marked = false;
  mood = 'calm';
}

@Component({ selector: 'yard-open', template: '<div><p>Yard open</p><ng-content /></div>' })
export class YardOpen {}

@Component({ selector: 'gate-sign', template: '<div><p>{{ sign() }}</p><ng-content /></div>' })
export class GateSign {
  readonly sign = input('Gate');
}

export const Unread = new InjectionToken<string>('Unread');

@Component({
  selector: 'yard-runner',
  template: '<button (click)="run()">Run</button><p>{{ outcome() }}</p>',
})
export class Runner implements OnInit {
  readonly work = input.required<() => unknown>();
  readonly outcome = signal('');

  ngOnInit() {
    void this.run();
  }

  async run() {
    try {
      this.outcome.set(String(await this.work()()));
    } catch (error) {
      this.outcome.set(`caught: ${(error as Error).message}`);
    }
  }
}

@Component({
  selector: 'yard-live',
  template: '<button (click)="play().press?.(show)">Go</button><output>{{ shown() }}</output>',
})
export class Live implements OnInit, OnDestroy {
  readonly play = input.required<Play>();
  readonly shown = signal('');
  readonly show = (text: string) => this.shown.set(text);
  stop: void | (() => void) = undefined;

  ngOnInit() {
    this.stop = this.play().start?.(this.show);
  }

  ngOnDestroy() {
    this.stop?.();
  }
}
