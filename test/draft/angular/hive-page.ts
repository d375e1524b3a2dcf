import { HttpClient } from '@angular/common/http';
import { Component, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, RouterLink } from '@angular/router';
import { catchError, of } from 'rxjs';
import type { Hive } from './hives';

@Component({
  selector: 'app-hive-page',
  imports: [RouterLink],
  template: `
    @if (hive(); as found) {
      <h1>{{ found.name }}</h1>
    } @else {
      <p role="status">One moment</p>
    }
    <a routerLink="/">All hives</a>
  `,
})
export class HivePage {
  readonly #hiveId = inject(ActivatedRoute).snapshot.paramMap.get('hiveId') ?? 'first';
  readonly hive = toSignal(
    inject(HttpClient)
      .get<Hive>(`/api/hives/${this.#hiveId}`)
      .pipe(catchError(() => of(undefined))),
  );
}
