/** Something that needs doing in the yard. */
export interface Alert {
  id: string;
  text: string;
}

export const alerts: Alert[] = [
  { id: 'a1', text: 'Clover is about to swarm' },
  { id: 'a2', text: 'Frost is expected tonight' },
  { id: 'a3', text: 'Borage is being robbed' },
];
