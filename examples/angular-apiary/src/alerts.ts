import { DestroyRef, inject, signal, type Signal } from '@angular/core';
import { listenToAlerts, type Alert } from '../../shared/alerts';

/** The alerts of the yard, as they come. */
export function injectAlerts(): Signal<readonly Alert[]> {
  const alerts = signal<readonly Alert[]>([]);
  inject(DestroyRef).onDestroy(listenToAlerts((alert) => alerts.update((known) => [...known, alert])));
  return alerts.asReadonly();
}
