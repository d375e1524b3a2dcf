import 'simulacra/jest';
import { channel, role, text } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { alerts } from '../../shared/alerts';
import { AlertTicker } from '../src/alert-ticker';

const live = channel<string>();
const isolated = () => isolate(AlertTicker, { time: 'virtual', network: { 'GET /live/alerts': live } });

/** The ticker, once it was told of every alert. */
async function ticker() {
  const board = await isolated();
  for (const alert of alerts) await live.send(alert.text, { event: alert.kind, id: alert.id });
  return board;
}

const [swarm, frost, robbed] = alerts.map((alert) => text(alert.text));

test('shows one alert every four seconds, and the first again after the last', async () => {
  const board = await ticker();
  expect(board).toShow(swarm!);
  await board.time.advance('3.9s');
  expect(board).toShow(swarm!);
  await board.time.advance('100ms');
  expect(board).toShow(frost!);
  await board.time.advance('8s');
  expect(board).toHaveShown(robbed!);
  expect(board).toShow(swarm!);
});

test('stands still while it is paused', async () => {
  const board = await ticker();
  await board.click(role('button', 'Pause'));
  await board.time.advance('1h');
  expect(board).toShow(swarm!);
  await board.click(role('button', 'Pause', { pressed: true }));
  await board.time.advance('4s');
  expect(board).toShow(frost!);
});

test('goes on and back by hand, with four seconds to read each', async () => {
  const board = await ticker();
  await board.time.advance('3s');
  await board.click(role('button', 'Next'));
  expect(board).toShow(frost!);
  await board.time.advance('3.9s');
  expect(board).toShow(frost!);
  await board.click(role('button', 'Previous'));
  await board.click(role('button', 'Previous'));
  expect(board).toShow(robbed!);
});

test('is not there without alerts', async () => {
  const board = await isolated();
  expect(board).not.toShow(role('button'));
});

test('asks for what it missed while the backend was gone', async () => {
  const board = await ticker();
  await live.fail();
  await board.time.advance('3s');
  expect(live.connections).toMatchObject([{ lastEventId: 'a3' }]);
  await live.send('Anemone is about to swarm', { event: 'swarm', id: 'a4' });
  await board.click(role('button', 'Previous'));
  expect(board).toShow(text('Anemone is about to swarm'));
});
