/** @jest-environment node */
import { runScript } from '../script';

type Heard = Record<string, string[]>;
it('sends what a browser sends for a person, in the same order', async () => {
  const { real, ours, simulated } = await runScript<{ real: Heard; ours: Heard; simulated: Heard }>(
    'browser/gestures.mjs',
  );
  expect(Object.keys(real).length).toBe(11);
  expect(real['type into a field']).toContain('beforeinput note insertText:A');
  expect(ours).toEqual(real);
  expect(simulated).toEqual(real);
}, 90_000);

it.each([
  ['react', 'as it is'],
  ['vue', 'as it is'],
  ['angular', 'as it is'],
  ['react', 'rewritten'],
  ['vue', 'rewritten'],
])(
  'the %s example is usable in a browser, %s',
  async (framework, how) => {
    const { seen, problems } = await runScript<{ seen: object; problems: string[] }>(
      'browser/example.mjs',
      `examples/${framework}-apiary/vite.config.ts`,
      how,
    );
    expect(seen).toEqual({
      gate: 'Who is in the yard?',
      hives: ['Anemone', 'Borage', 'Clover'],
      found: 'Borage',
      hive: 'Borage',
      scale: 'On the scale … kg and counting',
      logged: 'The inspection is logged',
      empty: 'No hives in this yard yet',
    });
    expect(problems).toEqual([]);
  },
  90_000,
);
