import { httpResource } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, RouterLink } from '@angular/router';
import type { Hive } from '../../shared/hive';
import { InspectionForm } from './inspection-form';
import { PhotoDrop } from './photo-drop';
import { ScaleFeed } from './scale-feed';

/** The hive the address names. */
@Component({
  selector: 'hive-detail',
  imports: [InspectionForm, PhotoDrop, RouterLink, ScaleFeed],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="detail" aria-label="Hive">
      <a routerLink="/">Back to the board</a>
      @if (hive.isLoading()) {
        <p role="status">Looking for the hive</p>
      } @else if (hive.error()) {
        <p role="alert">There is no such hive</p>
      } @else {
        <h2>{{ hive.value()?.name }}</h2>
        <scale-feed [hiveId]="hiveId()" />
        <inspection-form [hiveId]="hiveId()" />
        <photo-drop [hiveId]="hiveId()" />
      }
    </section>
  `,
  host: { style: 'display: contents' },
})
export class HiveDetail {
  readonly #params = toSignal(inject(ActivatedRoute).paramMap);
  protected readonly hiveId = () => this.#params()?.get('hiveId') ?? '';
  protected readonly hive = httpResource<Hive>(() => `/api/hives/${this.hiveId()}`);
}
