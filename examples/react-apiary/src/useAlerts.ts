import { useEffect, useState } from 'react';
import { listenToAlerts, type Alert } from '../../shared/alerts';

/** The alerts of the yard, as they come. */
export function useAlerts(): readonly Alert[] {
  const [alerts, setAlerts] = useState<readonly Alert[]>([]);
  useEffect(() => listenToAlerts((alert) => setAlerts((known) => [...known, alert])), []);
  return alerts;
}
