import { HttpClient } from '@angular/common/http';
import { Component, inject, signal } from '@angular/core';
import type { Hive } from './hives';

@Component({
  selector: 'app-yard-list',
  template: `
    @if (failed()) {
      <p role="alert">The hives could not be loaded</p>
    } @else if (hives(); as found) {
      <ul>
        @for (hive of found; track hive.id) {
          <li>{{ hive.name }}</li>
        } @empty {
          <li>No hives in this yard yet</li>
        }
      </ul>
    } @else {
      <p role="status">Loading hives</p>
    }
  `,
})
export class YardList {
  readonly hives = signal<Hive[] | undefined>(undefined);
  readonly failed = signal(false);

  constructor() {
    inject(HttpClient)
      .get<Hive[]>('/api/hives')
      .subscribe({ next: (hives) => this.hives.set(hives), error: () => this.failed.set(true) });
  }
}
