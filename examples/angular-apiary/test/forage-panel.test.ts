import 'simulacra/jest';
import { fail, fromSchema, hold, inTurn, label, later, role, text, type Routes } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { plants } from '../../shared/forage';
import { ForagePanel } from '../src/forage-panel';

const isolated = (network: Routes) => isolate(ForagePanel, { network });
const [clover, lime] = plants;

test('says that it looks around, then what is in flower', async () => {
  const answer = hold();
  const panel = await isolated({ 'QUERY InFlower?within=1500': answer });
  expect(panel).toShow(role('status', 'Looking around'));
  await answer.release({ plants: [clover, lime] });
  expect(panel).not.toShow(role('status'));
  expect(panel.texts(role('listitem'))).toEqual([
    'White clover: plenty, 200 m, until 2031-08-31',
    'Small-leaved lime: some, 900 m, until 2031-07-10',
  ]);
});

test.each([
  ['a server out of order', fail(503)],
  ['an error of the operation', new Error('The bees are asleep')],
  ['a broken connection', fail()],
])('offers to ask again after %s', async (_, failure) => {
  const panel = await isolated({ 'QUERY InFlower': inTurn(failure, { plants: [] }) });
  expect(panel).toShow(role('alert', /Nobody knows/));
  await panel.click(role('button', 'Ask again'));
  expect(panel).toShow(text('Nothing is in flower that near'));
});

test('shows the distance that was chosen last, whichever answer comes last', async () => {
  const panel = await isolated({
    'QUERY InFlower?within=1500': { plants: [lime] },
    'QUERY InFlower?within=3000': later(60, { plants }),
    'QUERY InFlower?within=500': later(20, { plants: [clover] }),
  });
  await panel.choose(label('Within'), '3000 m');
  await panel.choose(label('Within'), '500 m');
  await panel.appears(text('White clover'));
  await new Promise((resolve) => setTimeout(resolve, 60));
  await panel.atRest();
  expect(panel).toShow(role('listitem'), { times: 1 });
});

test('is answered from the schema alone, and every answer fits it', async () => {
  const schema = readFileSync(join(__dirname, '../../shared/schema.graphql'), 'utf8');
  const panel = await isolated({ 'POST /graphql': fromSchema(schema) });
  expect(panel).toShow(role('listitem'), { times: 2 });
});
