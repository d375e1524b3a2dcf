import { DestroyRef, inject, signal, type Signal } from '@angular/core';
import { listenToScale } from '../../shared/scales';

/** What the scale under a hive tells, as it tells it: kilograms, undefined before the first. */
export function injectScale(): {
  readonly kilograms: Signal<number | undefined>;
  listenTo(hiveId: string): void;
} {
  const kilograms = signal<number | undefined>(undefined);
  let stop: () => void = () => undefined;
  inject(DestroyRef).onDestroy(() => stop());
  return {
    kilograms: kilograms.asReadonly(),
    listenTo: (hiveId) => {
      stop();
      kilograms.set(undefined);
      stop = listenToScale(hiveId, (told) => kilograms.set(told));
    },
  };
}
