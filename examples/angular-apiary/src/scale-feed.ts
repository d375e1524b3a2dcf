import { ChangeDetectionStrategy, Component, effect, input, untracked } from '@angular/core';
import { injectScale } from './scale';
import { injectWeight } from './units';

/** The weight of a hive, as its scale tells it. */
@Component({
  selector: 'scale-feed',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (scale.kilograms() === undefined) {
      <p role="status">Waiting for the scale</p>
    } @else {
      <p class="scale">
        On the scale <strong>{{ weight()(scale.kilograms()!) }}</strong> and counting
      </p>
    }
  `,
  host: { style: 'display: contents' },
})
export class ScaleFeed {
  readonly hiveId = input.required<string>();
  protected readonly scale = injectScale();
  protected readonly weight = injectWeight();

  constructor() {
    effect(() => {
      const hiveId = this.hiveId();
      untracked(() => this.scale.listenTo(hiveId));
    });
  }
}
