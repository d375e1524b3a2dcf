import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal } from '@angular/core';
import type { Hive } from './hives';

@Injectable({ providedIn: 'root' })
export class YardStore {
  readonly #http = inject(HttpClient);
  readonly hives = signal<Hive[]>([]);
  readonly isLoading = signal(false);
  readonly heaviest = computed(() => Math.max(0, ...this.hives().map(({ kilograms }) => kilograms)));

  load(): void {
    this.isLoading.set(true);
    this.#http.get<Hive[]>('/api/hives').subscribe({
      next: (hives) => this.hives.set(hives),
      complete: () => this.isLoading.set(false),
      error: () => this.isLoading.set(false),
    });
  }
}
