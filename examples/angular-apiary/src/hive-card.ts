import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Hive } from '../../shared/hive';
import { injectWeight } from './units';

@Component({
  selector: 'hive-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './hive-card.html',
  host: { style: 'display: contents' },
})
export class HiveCard {
  readonly hive = input.required<Hive>();
  readonly opened = output<string>();
  protected readonly weight = injectWeight();
}
