import { fail, hold, part, role, swap } from 'simulacra';
import { states } from 'simulacra/vue';
import { routeLocationKey, RouterLink, type RouteLocationNormalizedLoaded } from 'vue-router';
import { ref } from 'vue';
import { hives } from '../../shared/hive';
import InspectionForm from './InspectionForm.vue';

// Where the page is, as the router would say it.
const place = { params: { hiveId: 'h1' } } as unknown as RouteLocationNormalizedLoaded;
const silent = swap(() => import('./useScale'), { useScale: { kilograms: ref(), live: ref(false) } });

export default states(
  () => import('./HiveDetail.vue'),
  {
    swap: [silent],
    stub: [InspectionForm, RouterLink],
    provide: [[routeLocationKey, place]],
  },
  {
    loading: { network: { 'GET /api/hives/h1': hold() }, shows: [role('status', 'Looking for the hive')] },
    'not there': {
      network: { 'GET /api/hives/h1': fail(404) },
      shows: [role('alert', 'There is no such hive')],
    },
    loaded: {
      network: { 'GET /api/hives/h1': hives[0] },
      shows: [role('heading', 'Anemone'), part(InspectionForm)],
    },
  },
);
