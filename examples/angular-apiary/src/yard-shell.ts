import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterOutlet } from '@angular/router';
import { filter, map } from 'rxjs';
import { AlertTicker } from './alert-ticker';
import { ForagePanel } from './forage-panel';
import { HiveBoard } from './hive-board';
import { SessionProvider } from './session-provider';
import { UNITS, type Units } from './units';
import { YardGate } from './yard-gate';

/** The page: the gate, the choice of yard and units, the board or one hive. */
@Component({
  selector: 'yard-shell',
  imports: [AlertTicker, ForagePanel, FormsModule, HiveBoard, RouterOutlet, SessionProvider, YardGate],
  providers: [{ provide: UNITS, useFactory: () => signal<Units>('kilograms') }],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <session-provider>
      <header class="shell">
        <h1>Brackenfold Apiary</h1>
        <nav aria-label="Yards">
          @for (name of yards; track name) {
            <button type="button" [attr.aria-pressed]="name === yard()" (click)="show(name)">
              {{ name.charAt(0).toUpperCase() + name.slice(1) }}
            </button>
          }
        </nav>
        <label>
          Units
          <select [(ngModel)]="units">
            <option value="kilograms">Kilograms</option>
            <option value="pounds">Pounds</option>
          </select>
        </label>
      </header>
      <alert-ticker />
      <main>
        <yard-gate>
          @if (address() === '/') {
            <hive-board [yard]="yard()" (opened)="open($event)" />
          }
          <router-outlet />
          <forage-panel />
        </yard-gate>
      </main>
    </session-provider>
  `,
  host: { style: 'display: contents' },
})
export class YardShell {
  protected readonly yards = ['north', 'east', 'south'];
  protected readonly yard = signal('north');
  protected readonly units = inject(UNITS) as ReturnType<typeof signal<Units>>;
  readonly #router = inject(Router);
  protected readonly address = toSignal(
    this.#router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(({ urlAfterRedirects }) => urlAfterRedirects),
    ),
    { initialValue: '/' },
  );

  protected open(hiveId: string): void {
    void this.#router.navigate(['/hives', hiveId]);
  }

  protected show(yard: string): void {
    this.yard.set(yard);
    void this.#router.navigate(['/']);
  }
}
