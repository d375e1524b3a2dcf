import { Component, inject, InjectionToken } from '@angular/core';

export const UNITS = new InjectionToken<{ unit: 'kg' | 'lb'; note: string }>('UNITS');

@Component({
  selector: 'app-units-note',
  template: `<p>Weights are in {{ units.unit }}</p>
    <em>{{ units.note }}</em>`,
})
export class UnitsNote {
  readonly units = inject(UNITS);
}
