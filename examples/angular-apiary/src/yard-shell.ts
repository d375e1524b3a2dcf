import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { HiveBoard } from './hive-board';
import { SessionProvider } from './session-provider';
import { UNITS, type Units } from './units';
import { YardGate } from './yard-gate';

/** The page: the gate, the choice of yard and units, the board. */
@Component({
  selector: 'yard-shell',
  imports: [FormsModule, HiveBoard, SessionProvider, YardGate],
  providers: [{ provide: UNITS, useFactory: () => signal<Units>('kilograms') }],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <session-provider>
      <header class="shell">
        <h1>Brackenfold Apiary</h1>
        <nav aria-label="Yards">
          @for (name of yards; track name) {
            <button type="button" [attr.aria-pressed]="name === yard()" (click)="yard.set(name)">
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
      <main>
        <yard-gate>
          <hive-board [yard]="yard()" (opened)="opened.set($event)" />
          @if (opened()) {
            <p role="status">Hive {{ opened() }} is open</p>
          }
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
  protected readonly opened = signal<string | undefined>(undefined);
}
