import 'simulacra/jest';
import { channel, role, swap, text } from 'simulacra';
import { isolate } from 'simulacra/react';
import type { Reading } from '../../shared/scales';
import { UnitsContext } from '../src/units';

const props = { hiveId: 'h1' };
const scaleFeed = () => import('../src/ScaleFeed');

test('a weight is shown in the units of the yard', async () => {
  const scale = swap(() => import('../src/useScale'), { useScale: { kilograms: 31.2, live: true } });
  const feed = await isolate(scaleFeed, { props, swap: [scale], provide: [[UnitsContext, 'pounds']] });
  expect(feed).toShow(text('On the scale 68.8 lb and counting'));
  expect(feed.given(scale).useScale.calls[0]).toEqual(['h1']);
});

test('each reading is shown as it comes, the real hook over no socket', async () => {
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

test('the socket that the module opens while it loads is answered', async () => {
  const scales = channel<Reading>();
  const network = { 'WS /live/scales': scales };
  // It stays open for as long as the application runs.
  const feed = await isolate(scaleFeed, { props, network, leaks: ['a WebSocket to /live/scales'] });
  expect(feed).toShow(role('status', 'Waiting for the scale'));
  await scales.send({ hiveId: 'h7', kilograms: 12 });
  await scales.send({ hiveId: 'h1', kilograms: 30.5 });
  expect(feed).toShow(text('30.5 kg'));
  await scales.send({ hiveId: 'h1', kilograms: 30.7 });
  expect(feed).toShow(text('30.7 kg'));
});
