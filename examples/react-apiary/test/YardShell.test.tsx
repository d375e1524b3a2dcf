import 'simulacra/jest';
import { channel, label, part, role, swap, text } from 'simulacra';
import { isolateWith } from 'simulacra/react';
import { MemoryRouter } from 'react-router';
import { hives } from '../../shared/hive';
import { HiveBoard } from '../src/HiveBoard';

const around = { 'GET /live/alerts': channel(), 'QUERY InFlower': { plants: [] } };
// The scales open a socket as soon as they are loaded, four imports below the page.
const scales = swap(() => import('../../shared/scales'), { listenToScale: () => () => undefined });
const isolate = isolateWith({ wrap: [MemoryRouter], swap: [scales] });
const yardShell = () => import('../src/YardShell');

test('the page leads from the gate to an opened hive, and back', async () => {
  const shell = await isolate(yardShell, {
    network: {
      'GET /api/hives/:hiveId': hives[1],
      'GET /api/hives?yard=north': hives,
      'GET /api/hives?yard=:yard': [],
      ...around,
    },
  });
  await shell.type(label('Keeper'), 'Imke');
  await shell.click(role('button', 'Sign in'));
  await shell.choose(label('Units'), 'Pounds');
  expect(shell).toShow(text('61.3 lb').inside(role('article', 'Borage')));
  await shell.click(role('button', 'Open Borage'));
  expect(shell).toShow(role('heading', 'Borage'));
  await shell.click(role('button', 'South', { pressed: false }));
  expect(shell).toShow(text('No hives in this yard yet'));
  expect(shell.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/hives/h2', '/']);
  shell.everyRouteAsked();
});

test('a stub three levels down takes the board and its requests out', async () => {
  const shell = await isolate(yardShell, {
    stub: [HiveBoard],
    network: { 'GET /api/hives/:hiveId': hives[2], ...around },
  });
  await shell.type(label('Keeper'), 'Imke');
  await shell.press('Enter');
  expect(shell).toShow(part(HiveBoard));
  await shell.part(HiveBoard).tell('onOpen', 'h3');
  expect(shell).toShow(role('heading', 'Clover'));
});
