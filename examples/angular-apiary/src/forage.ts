import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { map, type Observable } from 'rxjs';
import { inFlower, type Plant } from '../../shared/forage';

interface Result {
  data?: { plants: Plant[] };
  errors?: { message: string }[];
}

/** Asks the yard's backend what is in flower. */
@Injectable({ providedIn: 'root' })
export class Forage {
  readonly #http = inject(HttpClient);

  inFlower(within: number): Observable<Plant[]> {
    const body = { operationName: 'InFlower', query: inFlower, variables: { within } };
    return this.#http.post<Result>('/graphql', body).pipe(
      map(({ data, errors }) => {
        if (errors?.[0] || !data) throw new Error(errors?.[0]?.message ?? 'No data came');
        return data.plants;
      }),
    );
  }
}
