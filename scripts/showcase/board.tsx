import 'simulacra/jest';
import { isolate } from 'simulacra/react';
import { fail, inTurn, role } from 'simulacra';
import { hives } from '../../examples/shared/hive';
import { HiveBoard } from '../../examples/react-apiary/src/HiveBoard';

test('a board that failed offers to try again', async () => {
  const board = await isolate(HiveBoard, {
    props: { yard: 'north' },
    network: { 'GET /api/hives?yard=north': inTurn(fail(503), hives) },
  });
  await board.click(role('button', 'Try agian'));
  expect(board).toShow(role('article', 'Anemone'));
});
