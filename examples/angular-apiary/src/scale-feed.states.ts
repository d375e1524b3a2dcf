import { signal } from '@angular/core';
import { role, spy, swap, text } from 'simulacra';
import { states } from 'simulacra/angular';
import { UNITS } from './units';

const scale = (kilograms: number | undefined) => [
  swap(() => import('./scale'), { injectScale: { kilograms: signal(kilograms), listenTo: spy() } }),
];

export default states(
  () => import('./scale-feed'),
  { props: { hiveId: 'h1' } },
  {
    waiting: { swap: scale(undefined), shows: [role('status', 'Waiting for the scale')] },
    live: { swap: scale(31.2), shows: [text('On the scale 31.2 kg and counting')] },
    'in pounds': {
      swap: scale(31.2),
      provide: [[UNITS, signal('pounds')]],
      shows: [text('On the scale 68.8 lb and counting')],
    },
  },
);
