import 'simulacra/jest';
import { role, swap, text } from 'simulacra';
import { isolate } from 'simulacra/vue';
import { ref } from 'vue';
import { UnitsKey, type Units } from '../src/units';

const props = { hiveId: 'h1' };
const scaleFeed = () => import('../src/ScaleFeed.vue');

test('a scale that has told nothing yet is waited for', async () => {
  const silent = swap(() => import('../src/useScale'), { useScale: { kilograms: ref(), live: ref(false) } });
  const feed = await isolate(scaleFeed, { props, swap: [silent] });
  expect(feed).toShow(role('status', 'Waiting for the scale'));
});

test('a weight is shown in the units of the yard', async () => {
  const scale = swap(() => import('../src/useScale'), {
    useScale: { kilograms: ref(31.2), live: ref(true) },
  });
  const feed = await isolate(scaleFeed, {
    props,
    swap: [scale],
    provide: [[UnitsKey, ref<Units>('pounds')]],
  });
  expect(feed).toShow(text('On the scale 68.8 lb and counting'));
  expect(feed.given(scale).useScale.calls.length).toBe(1);
});

test('each reading is shown as it comes, the real composable over no socket', async () => {
  let tell: (kilograms: number) => void = () => undefined;
  const scales = swap(() => import('../../shared/scales'), {
    listenToScale: (_hiveId, listener) => {
      tell = listener;
      return () => undefined;
    },
  });
  const feed = await isolate(scaleFeed, { props, swap: [scales] });
  expect(feed).toShow(role('status'));
  tell(30.5);
  await feed.atRest();
  expect(feed).toShow(text('30.5 kg'));
});
