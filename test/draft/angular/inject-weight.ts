import { DestroyRef, inject, signal, type Signal } from '@angular/core';
import { listen } from './scales';

export function injectWeight(): Signal<number> {
  const kilograms = signal(0);
  inject(DestroyRef).onDestroy(listen((told) => kilograms.set(told)));
  return kilograms.asReadonly();
}
