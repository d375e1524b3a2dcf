import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Hive } from './hives';

@Injectable({ providedIn: 'root' })
export class HiveApi {
  readonly #http = inject(HttpClient);

  load(hiveId: string): Observable<Hive> {
    return this.#http.get<Hive>(`/api/hives/${hiveId}`);
  }
}
