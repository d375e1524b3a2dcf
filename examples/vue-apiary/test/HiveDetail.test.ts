import 'simulacra/jest';
import { hold, role, swap, type Routes } from 'simulacra';
import { isolate } from 'simulacra/vue';
import { ref } from 'vue';
import { createMemoryHistory, createRouter, RouterLink } from 'vue-router';
import { hives, type Hive } from '../../shared/hive';
import InspectionForm from '../src/InspectionForm.vue';

const at = (address: string) => {
  const Board = { render: () => 'The board' };
  const routes = [
    { path: '/', component: Board },
    { path: '/hives/:hiveId', component: Board },
  ];
  const router = createRouter({ history: createMemoryHistory(), routes });
  return router.push(address).then(() => router);
};
const silent = swap(() => import('../src/useScale'), { useScale: { kilograms: ref(), live: ref(false) } });
const isolateAt = async (options: { network: Routes }) =>
  isolate(() => import('../src/HiveDetail.vue'), {
    ...options,
    swap: [silent],
    depth: 1,
    keep: [RouterLink],
    wrap: [await at('/hives/h1')],
  });

test('the hive of the address is looked for, and shown with its parts', async () => {
  const answer = hold<Hive>();
  const detail = await isolateAt({ network: { 'GET /api/hives/:hiveId': answer } });
  expect(detail).toShow(role('status', 'Looking for the hive'));
  await answer.release(hives[0]!);
  expect(detail).toShow(role('heading', 'Anemone'));
  expect(detail.part(InspectionForm).props).toEqual([{ hiveId: 'h1' }]);
  expect(detail.requests.map(({ url }) => new URL(url).pathname)).toEqual(['/api/hives/h1']);
});

test('the way back leads to the board', async () => {
  const detail = await isolateAt({ network: { 'GET /api/hives/:hiveId': hives[0] } });
  await detail.click(role('link', 'Back to the board'));
  expect(detail.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/']);
});
