import 'simulacra/jest';
import { role, stream, swap } from 'simulacra';
import { isolate } from 'simulacra/vue';

const frame = new File(['…'], 'frame.png', { type: 'image/png' });
const letter = new File(['…'], 'letter.txt', { type: 'text/plain' });
const zone = role('region', 'Photos');
const bar = role('progressbar', 'Sending frame.png');

const photoDrop = async () => {
  const progress = stream<number>();
  const drop = await isolate(() => import('../src/PhotoDrop.vue'), {
    props: { hiveId: 'h1' },
    swap: [swap(() => import('../../shared/photos'), { sendPhoto: progress })],
  });
  return { drop, progress };
};

test('tells how much of a dropped photo has gone', async () => {
  const { drop, progress } = await photoDrop();
  await drop.drop(zone, frame);
  expect(drop).toShow(role('button', 'Choose a photo', { disabled: true }));
  await progress.emit(0.4);
  expect(drop.find(bar)).toHaveProperty('value', 0.4);
  await progress.end();
  expect(drop).toShow(role('status', 'frame.png is kept'));
});

test('takes a photo that is chosen', async () => {
  const { drop, progress } = await photoDrop();
  await drop.choose(role('button', 'Choose a photo'), frame);
  expect(drop).toShow(bar);
  await progress.fail('The line is down');
  expect(drop).toShow(role('alert', 'frame.png could not be sent'));
});

test('sends nothing that is no picture', async () => {
  const { drop } = await photoDrop();
  await drop.drop(zone, letter);
  expect(drop).toShow(role('alert', 'letter.txt is no picture'));
  expect(drop).not.toHaveShown(role('progressbar'));
});
