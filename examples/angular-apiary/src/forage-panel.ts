import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { amounts, distances } from '../../shared/forage';
import { Forage } from './forage';

/** What is in flower, as far as the keeper wants to know. */
@Component({
  selector: 'forage-panel',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="forage" aria-labelledby="forage-title">
      <header>
        <h2 id="forage-title">In flower</h2>
        <label>
          Within
          <select [(ngModel)]="within">
            @for (metres of distances; track metres) {
              <option [ngValue]="metres">{{ metres }} m</option>
            }
          </select>
        </label>
      </header>
      @if (plants.isLoading()) {
        <p role="status">Looking around</p>
      } @else if (plants.error()) {
        <div role="alert">
          <p>Nobody knows what is in flower</p>
          <button type="button" (click)="plants.reload()">Ask again</button>
        </div>
      } @else {
        <ul>
          @for (plant of plants.value(); track plant.id) {
            <li>
              <strong>{{ plant.name }}</strong>: {{ amounts[plant.amount] }}, {{ plant.distance }} m, until
              {{ plant.flowers.until }}
            </li>
          }
        </ul>
        @if (plants.value()?.length === 0) {
          <p class="empty">Nothing is in flower that near</p>
        }
      }
    </section>
  `,
})
export class ForagePanel {
  readonly #forage = inject(Forage);
  protected readonly amounts = amounts;
  protected readonly distances = distances;
  protected readonly within = signal(distances[1]!);
  protected readonly plants = rxResource({
    params: () => this.within(),
    stream: ({ params }) => this.#forage.inFlower(params),
  });
}
