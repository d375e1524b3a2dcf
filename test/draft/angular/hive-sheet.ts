import { Component, inject, input, signal, type OnInit } from '@angular/core';
import { HiveApi } from './hive-api';
import type { Hive } from './hives';

@Component({
  selector: 'app-hive-sheet',
  template: `
    @if (problem()) {
      <p role="alert">{{ problem() }}</p>
    } @else if (hive(); as found) {
      <h1>{{ found.name }}</h1>
    } @else {
      <p role="progressbar" aria-label="Looking for the hive"></p>
    }
  `,
})
export class HiveSheet implements OnInit {
  readonly hiveId = input.required<string>();
  readonly hive = signal<Hive | undefined>(undefined);
  readonly problem = signal('');
  readonly #api = inject(HiveApi);

  ngOnInit(): void {
    this.#api.load(this.hiveId()).subscribe({
      next: (hive) => this.hive.set(hive),
      error: () => this.problem.set('There is no such hive'),
    });
  }
}
