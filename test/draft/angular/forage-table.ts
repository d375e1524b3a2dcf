import { httpResource } from '@angular/common/http';
import { Component } from '@angular/core';

interface Plant {
  name: string;
  metres: number;
}

@Component({
  selector: 'app-forage-table',
  template: `
    @if (plants.isLoading()) {
      <p role="status">Looking around</p>
    } @else if (plants.error()) {
      <p role="alert">Nobody knows what is in flower</p>
    } @else {
      <table aria-label="In flower">
        @for (plant of plants.value(); track plant.name) {
          <tr>
            <th scope="row">{{ plant.name }}</th>
            <td>{{ plant.metres }} m</td>
          </tr>
        }
      </table>
    }
  `,
})
export class ForageTable {
  readonly plants = httpResource<Plant[]>(() => '/api/plants');
}
