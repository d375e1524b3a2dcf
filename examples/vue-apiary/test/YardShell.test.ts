import 'simulacra/jest';
import { channel, label, part, role, swap, text, type Routes } from 'simulacra';
import { isolate, type Component } from 'simulacra/vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { hives } from '../../shared/hive';
import HiveBoard from '../src/HiveBoard.vue';
import { routes } from '../src/routes';

const around = { 'GET /live/alerts': channel(), 'QUERY InFlower': { plants: [] } };
// The scales open a socket as soon as they are loaded, four imports below the page.
const scales = swap(() => import('../../shared/scales'), { listenToScale: () => () => undefined });

const isolateShell = (options: { network: Routes; stub?: Component[] }) => {
  const router = createRouter({ history: createMemoryHistory(), routes });
  return isolate(() => import('../src/YardShell.vue'), { ...options, swap: [scales], wrap: [router] });
};

test('the page leads from the gate to an opened hive, and back', async () => {
  const shell = await isolateShell({
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
  const shell = await isolateShell({
    stub: [HiveBoard],
    network: { 'GET /api/hives/:hiveId': hives[2], ...around },
  });
  await shell.type(label('Keeper'), 'Imke');
  await shell.press('Enter');
  expect(shell).toShow(part(HiveBoard));
  await shell.part(HiveBoard).tell('open', 'h3');
  expect(shell).toShow(role('heading', 'Clover'));
});
