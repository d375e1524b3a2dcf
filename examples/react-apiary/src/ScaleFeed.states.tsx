import { role, swap, text } from 'simulacra';
import { states } from 'simulacra/react';
import { UnitsContext } from './units';

const scale = (kilograms: number | undefined, live: boolean) => [
  swap(() => import('./useScale'), { useScale: { kilograms, live } }),
];

export default states(
  () => import('./ScaleFeed'),
  { props: { hiveId: 'h1' } },
  {
    waiting: { swap: scale(undefined, false), shows: [role('status', 'Waiting for the scale')] },
    live: { swap: scale(31.2, true), shows: [text('On the scale 31.2 kg and counting')] },
    still: { swap: scale(31.2, false), shows: [text('On the scale 31.2 kg, the last it told')] },
    'in pounds': {
      swap: scale(31.2, true),
      provide: [[UnitsContext, 'pounds']],
      shows: [text('On the scale 68.8 lb and counting')],
    },
  },
);
