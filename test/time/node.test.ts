/** @jest-environment node */
import './timer-modules';
import { promisify } from 'node:util';
import { open } from 'simulacra';

it('what is made of the global time-out follows a virtual clock', async () => {
  const done: unknown[] = [];
  const bench = await open({ time: 'virtual' });
  await bench.run(() => void promisify(setTimeout)(4000, 'smoke').then((what) => done.push(what)));
  await bench.time.advance('3999ms');
  expect(done).toEqual([]);
  await bench.time.advance('1ms');
  expect(done).toEqual(['smoke']);
});
