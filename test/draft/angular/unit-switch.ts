import { Component, computed, effect, signal } from '@angular/core';

@Component({
  selector: 'app-unit-switch',
  template: `<button (click)="unit.set(other())">Show {{ other() }}</button>`,
})
export class UnitSwitch {
  readonly unit = signal(localStorage.getItem('unit') ?? 'kg');
  readonly other = computed(() => (this.unit() === 'kg' ? 'lb' : 'kg'));
  readonly kept = effect(() => localStorage.setItem('unit', this.unit()));
}
