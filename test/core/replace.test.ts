import { replaceFunction } from '../../src/core/replace';

it('replaces a function once, however many test files are handed the same object', () => {
  const clock = { now: () => 1 };
  const calls: string[] = [];
  for (const file of ['first', 'second'])
    replaceFunction<() => number>(clock, 'now', (now) => () => {
      calls.push(file);
      return now() + 1;
    });
  expect([clock.now(), calls]).toEqual([2, ['second']]);
});
