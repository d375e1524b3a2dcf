import { httpResource } from '@angular/common/http';
import {
  ChangeDetectionStrategy,
  Component,
  effect,
  input,
  linkedSignal,
  output,
  untracked,
} from '@angular/core';
import type { Hive } from '../../shared/hive';
import { HiveCard } from './hive-card';

@Component({
  selector: 'hive-board',
  imports: [HiveCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="board" aria-labelledby="board-title">
      <header>
        <h2 id="board-title">Hives in the {{ yard() }} yard</h2>
        <label>
          Find a hive
          <input #field type="search" [value]="search()" (input)="search.set(field.value)" />
        </label>
      </header>
      @if (hives.isLoading()) {
        <p role="status">Loading hives</p>
      } @else if (hives.error()) {
        <div role="alert">
          <p>The hives could not be loaded</p>
          <button type="button" (click)="hives.reload()">Try again</button>
        </div>
      } @else {
        <div class="cards">
          @for (hive of hives.value(); track hive.id) {
            <hive-card [hive]="hive" (opened)="opened.emit($event)" />
          } @empty {
            <p class="empty">
              {{ search() ? 'No hive is called “' + search() + '”' : 'No hives in this yard yet' }}
            </p>
          }
        </div>
      }
    </section>
  `,
  host: { style: 'display: contents' },
})
export class HiveBoard {
  readonly yard = input.required<string>();
  readonly opened = output<string>();
  // Another yard begins with another search.
  protected readonly search = linkedSignal({ source: this.yard, computation: () => '' });
  // The question is asked 200 ms after the last letter.
  readonly #settled = linkedSignal({ source: this.yard, computation: () => '' });
  protected readonly hives = httpResource<Hive[]>(() => ({
    url: '/api/hives',
    params: { yard: this.yard(), ...(this.#settled() && { q: this.#settled() }) },
  }));

  constructor() {
    effect((onCleanup) => {
      const search = this.search();
      if (search === untracked(this.#settled)) return;
      const timer = setTimeout(() => this.#settled.set(search), 200);
      onCleanup(() => clearTimeout(timer));
    });
  }
}
