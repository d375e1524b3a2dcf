import 'simulacra/jest';
import { label, part, role, text } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { hives } from '../../shared/hive';
import { HiveBoard } from '../src/hive-board';
import { YardShell } from '../src/yard-shell';

test('the page leads from the gate to an opened hive', async () => {
  const shell = await isolate(YardShell, {
    network: { 'GET /api/hives?yard=north': hives, 'GET /api/hives?yard=:yard': [] },
  });
  await shell.type(label('Keeper'), 'Imke');
  await shell.click(role('button', 'Sign in'));
  await shell.choose(label('Units'), 'Pounds');
  expect(shell).toShow(text('61.3 lb').inside(role('article', 'Borage')));
  await shell.click(role('button', 'Open Borage'));
  expect(shell).toShow(role('status', 'Hive h2 is open'));
  await shell.click(role('button', 'South', { pressed: false }));
  expect(shell).toShow(text('No hives in this yard yet'));
  shell.everyRouteAsked();
});

test('a stub three levels down takes the board and its requests out', async () => {
  const shell = await isolate(YardShell, { stub: [HiveBoard] });
  await shell.type(label('Keeper'), 'Imke');
  await shell.press('Enter');
  expect(shell).toShow(part(HiveBoard));
  await shell.part(HiveBoard).tell('opened', 'h3');
  expect(shell).toShow(role('status', 'Hive h3 is open'));
});
