import { Component, effect, input, signal } from '@angular/core';
import { fetchWeight, readScale, unit } from './scale';

@Component({
  selector: 'scale-feed',
  template: '<p>{{ read(hiveId()).kilograms }} {{ unit }}. {{ average() }}.</p>',
})
export class ScaleFeed {
  readonly hiveId = input.required<string>();
  readonly average = signal('Asking');
  readonly unit = unit;
  readonly read = (hiveId: string) => readScale(hiveId);

  constructor() {
    effect(() => {
      fetchWeight(this.hiveId()).then(
        (weight) => this.average.set(`On average ${weight}`),
        (error: Error) => this.average.set(error.message),
      );
    });
  }
}
