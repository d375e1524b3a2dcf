import { onScopeDispose, shallowRef, type Ref } from 'vue';
import { listenToAlerts, type Alert } from '../../shared/alerts';

/** The alerts of the yard, as they come. */
export function useAlerts(): Readonly<Ref<readonly Alert[]>> {
  const alerts = shallowRef<readonly Alert[]>([]);
  onScopeDispose(listenToAlerts((alert) => (alerts.value = [...alerts.value, alert])));
  return alerts;
}
