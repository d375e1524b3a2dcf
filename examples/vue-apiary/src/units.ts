import { computed, inject, ref, type ComputedRef, type InjectionKey, type Ref } from 'vue';

export type Units = 'kilograms' | 'pounds';

export const UnitsKey: InjectionKey<Ref<Units>> = Symbol('UnitsKey');

/** Prints a weight given in kilograms in the units of the yard. */
export function useWeight(): ComputedRef<(kilograms: number) => string> {
  const units = inject(UnitsKey, () => ref('kilograms'), true);
  return computed(() =>
    units.value === 'kilograms'
      ? (kilograms) => `${kilograms.toFixed(1)} kg`
      : (kilograms) => `${(kilograms * 2.20462).toFixed(1)} lb`,
  );
}
