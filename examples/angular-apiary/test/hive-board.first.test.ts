import 'simulacra/jest';
import { isolate } from 'simulacra/angular';
import { hold, part, role } from 'simulacra';
import { hives } from '../../shared/hive';
import { HiveBoard } from '../src/hive-board';
import { HiveCard } from '../src/hive-card';

test('a board that is still loading says so, then shows its hives', async () => {
  const answer = hold();
  const board = await isolate(HiveBoard, {
    props: { yard: 'north' },
    stub: [HiveCard],
    network: { 'GET /api/hives?yard=north': answer },
  });
  expect(board).toShow(role('status', 'Loading hives'));

  await answer.release(hives);
  expect(board).toShow(part(HiveCard), { times: 3 });
});
