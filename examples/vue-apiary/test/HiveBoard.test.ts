import 'simulacra/jest';
import { fail, hold, inTurn, label, later, part, role, spy, text } from 'simulacra';
import { isolateWith } from 'simulacra/vue';
import { hives, type Hive } from '../../shared/hive';
import HiveBoard from '../src/HiveBoard.vue';
import HiveCard from '../src/HiveCard.vue';

const isolate = isolateWith({ stub: [HiveCard] });
const props = { yard: 'north' };

test('a board that failed offers to try again', async () => {
  const board = await isolate(HiveBoard, {
    props,
    network: { 'GET /api/hives?yard=north': inTurn(fail(503), hives) },
  });
  expect(board).toShow(role('alert', /could not be loaded/));

  await board.click(role('button', 'Try again'));
  expect(board).not.toShow(role('alert'));
  expect(board.part(HiveCard).props.map(({ hive }) => hive.name)).toEqual(['Anemone', 'Borage', 'Clover']);
});

test('hives that are there at once were still announced', async () => {
  const board = await isolate(HiveBoard, { props, network: { 'GET /api/hives': hives } });
  expect(board).toHaveShown(role('status', 'Loading hives'));
  expect(board).not.toShow(role('status'));
});

test('hives that take their time appear', async () => {
  const board = await isolate(HiveBoard, { props, network: { 'GET /api/hives': later(300, hives) } });
  expect(board).toShow(role('status'));
  await board.appears(part(HiveCard));
});

test('a search is asked for 200 ms after the last letter', async () => {
  const board = await isolate(HiveBoard, {
    props,
    time: 'virtual',
    network: { 'GET /api/hives?q=:q': [hives[1]!], 'GET /api/hives': hives },
  });
  await board.type(label('Find a hive'), 'bor');
  await board.time.advance('199ms');
  expect(board.requests).toHaveLength(1);
  await board.time.advance(1);
  expect(board.requests.map(({ url }) => new URL(url).search)).toEqual(['?yard=north', '?yard=north&q=bor']);
});

test('an answer that was overtaken by a later question is not shown', async () => {
  const [forB, forBo] = [hold<Hive[]>(), hold<Hive[]>()];
  const board = await isolate(HiveBoard, {
    props,
    time: 'virtual',
    network: { 'GET /api/hives?yard=north': hives, 'GET /api/hives?q=b': forB, 'GET /api/hives?q=bo': forBo },
  });
  await board.type(label('Find a hive'), 'b');
  await board.time.advance('200ms');
  await board.type(label('Find a hive'), 'o');
  await board.time.advance('200ms');
  await forBo.release([hives[1]!]);
  await forB.release(hives);
  expect(board.part(HiveCard).props.map(({ hive }) => hive.name)).toEqual(['Borage']);
  expect(board.chronicle.of('aborted').map(({ what }) => what)).toContain('GET /api/hives?yard=north&q=b');
});

test('a search without a hit names what was searched for', async () => {
  const board = await isolate(HiveBoard, {
    props,
    time: 'virtual',
    network: { 'GET /api/hives?q=:q': [], 'GET /api/hives': hives },
  });
  await board.type(label('Find a hive'), 'zinnia');
  expect(board).toShow(part(HiveCard), { times: 3 });
  await board.time.advance('200ms');
  expect(board).toShow(text('No hive is called “zinnia”'));
  await board.clear(label('Find a hive'));
  await board.time.advance('200ms');
  expect(board).toShow(part(HiveCard), { times: 3 });
});

test('opening a card opens its hive', async () => {
  const onOpen = spy();
  const board = await isolate(HiveBoard, {
    props: { ...props, onOpen },
    network: { 'GET /api/hives': hives },
  });
  await board.part(HiveCard).at(1).tell('open', 'h2');
  expect(onOpen.calls).toEqual([['h2']]);
});
