import 'simulacra/jest';
import { role, text } from 'simulacra';
import { isolate } from 'simulacra/react';
import { alerts } from '../../shared/alerts';
import { AlertTicker } from '../src/AlertTicker';

const ticker = () => isolate(AlertTicker, { props: { alerts }, time: 'virtual' });
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

test('is not there without alerts, and leaves no timer', async () => {
  const board = await isolate(AlertTicker, { props: { alerts: [] }, time: 'virtual' });
  expect(board).not.toShow(role('button'));
  expect(board.time.due).toEqual([]);
});
