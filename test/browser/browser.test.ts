/** @jest-environment node */
import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';

type Heard = Record<string, string[]>;
const { NODE_ENV: _, ...env } = process.env;
const options = { cwd: join(__dirname, '../..'), env: env as NodeJS.ProcessEnv };

/** Runs a script beside this file, which prints what it saw as JSON. */
async function run<T>(script: string, ...args: string[]): Promise<T> {
  const { stdout } = await promisify(execFile)(process.execPath, [join(__dirname, script), ...args], options);
  return JSON.parse(stdout) as T;
}

it('sends what a browser sends for a person, in the same order', async () => {
  const { real, ours, simulated } = await run<{ real: Heard; ours: Heard; simulated: Heard }>('gestures.mjs');
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
    const { seen, problems } = await run<{ seen: object; problems: string[] }>(
      'example.mjs',
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
