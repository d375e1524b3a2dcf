import { computed, inject, InjectionToken, signal, type Signal } from '@angular/core';

export type Units = 'kilograms' | 'pounds';

export const UNITS = new InjectionToken<Signal<Units>>('UNITS', { factory: () => signal('kilograms') });

/** Prints a weight given in kilograms in the units of the yard. */
export function injectWeight(): Signal<(kilograms: number) => string> {
  const units = inject(UNITS);
  return computed(() =>
    units() === 'kilograms'
      ? (kilograms) => `${kilograms.toFixed(1)} kg`
      : (kilograms) => `${(kilograms * 2.20462).toFixed(1)} lb`,
  );
}
