import { DecimalPipe } from '@angular/common';
import { Component, EventEmitter, Input, Output } from '@angular/core';
import type { Hive } from './hives';

@Component({
  selector: 'app-weight-card',
  imports: [DecimalPipe],
  template: `
    <article>
      <h3>{{ hive.name }}</h3>
      <p>{{ hive.kilograms | number: '1.1-1' }} kg</p>
      <button (click)="opened.emit(hive.id)">Open {{ hive.name }}</button>
    </article>
  `,
})
export class WeightCard {
  @Input({ required: true }) hive!: Hive;
  @Output() readonly opened = new EventEmitter<string>();
}
