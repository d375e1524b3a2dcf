export const kinds = ['swarm', 'frost', 'robbing'] as const;

/** Something that needs doing in the yard. */
export interface Alert {
  id: string;
  kind: (typeof kinds)[number];
  text: string;
}

export const alerts: Alert[] = [
  { id: 'a1', kind: 'swarm', text: 'Clover is about to swarm' },
  { id: 'a2', kind: 'frost', text: 'Frost is expected tonight' },
  { id: 'a3', kind: 'robbing', text: 'Borage is being robbed' },
];

/** Tells every alert of the yard as it comes; returns how to stop. */
export function listenToAlerts(tell: (alert: Alert) => void): () => void {
  const source = new EventSource('/live/alerts');
  for (const kind of kinds)
    source.addEventListener(kind, ({ data, lastEventId }) =>
      tell({ id: lastEventId, kind, text: String(data) }),
    );
  return () => source.close();
}
