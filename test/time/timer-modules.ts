import { open } from 'simulacra';
import 'simulacra/jest';
import { callOff, chores, waitUntil } from '../seam/fixture/src/timer-modules';

/* Timers that a file imports from Node's own modules. */

it.each(Object.entries(chores))('%s follows a virtual clock', async (_, chore) => {
  const done: unknown[] = [];
  const bench = await open({ time: 'virtual' });
  await bench.run(() => void chore((what) => done.push(what)));
  await bench.time.advance('3999ms');
  expect(done).toEqual([]);
  expect(bench.time.due).toMatchObject([{ in: 1 }]);
  await bench.time.advance('1ms');
  expect(done).toEqual(['smoke']);
});

it('what was called off does not come', async () => {
  const done: unknown[] = [];
  const bench = await open({ time: 'virtual' });
  await bench.run(() => callOff((what) => done.push(what)));
  await bench.time.advance('2s');
  expect(done).toEqual([]);
});

it('a signal ends what waits', async () => {
  const bench = await open({ time: 'virtual' });
  const controller = new AbortController();
  const waiting = waitUntil(controller.signal).catch((reason: unknown) => reason);
  await bench.time.advance('1s');
  controller.abort();
  expect(await waiting).toMatchObject({ name: 'AbortError', code: 'ABORT_ERR' });
  expect(bench.time.due).toEqual([]);
});

it('and real time runs where no clock is', async () => {
  const done: unknown[] = [];
  const controller = new AbortController();
  const waiting = waitUntil(controller.signal).catch((reason: unknown) => reason);
  callOff((what) => done.push(what));
  controller.abort();
  expect(await waiting).toMatchObject({ name: 'AbortError' });
  expect(done).toEqual([]);
});
