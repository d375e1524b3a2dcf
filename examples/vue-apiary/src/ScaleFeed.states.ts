import { role, swap, text } from 'simulacra';
import { states } from 'simulacra/vue';
import { ref } from 'vue';
import { UnitsKey, type Units } from './units';

const scale = (kilograms: number | undefined, live: boolean) => [
  swap(() => import('./useScale'), { useScale: { kilograms: ref(kilograms), live: ref(live) } }),
];

export default states(
  () => import('./ScaleFeed.vue'),
  { props: { hiveId: 'h1' } },
  {
    waiting: { swap: scale(undefined, false), shows: [role('status', 'Waiting for the scale')] },
    live: { swap: scale(31.2, true), shows: [text('On the scale 31.2 kg and counting')] },
    still: { swap: scale(31.2, false), shows: [text(/the last it told/)] },
    'in pounds': {
      swap: scale(31.2, true),
      provide: [[UnitsKey, ref<Units>('pounds')]],
      shows: [text('On the scale 68.8 lb and counting')],
    },
  },
);
