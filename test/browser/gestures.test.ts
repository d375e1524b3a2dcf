/** @jest-environment node */
import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';

type Heard = Record<string, string[]>;
const script = join(__dirname, 'gestures.mjs');
const { NODE_ENV: _, ...env } = process.env;

it('sends what a browser sends for a person, in the same order', async () => {
  const options = { cwd: join(__dirname, '../..'), env: env as NodeJS.ProcessEnv };
  const { stdout } = await promisify(execFile)(process.execPath, [script], options);
  const { real, ours, simulated } = JSON.parse(stdout) as { real: Heard; ours: Heard; simulated: Heard };
  expect(Object.keys(real).length).toBe(11);
  expect(real['type into a field']).toContain('beforeinput note insertText:A');
  expect(ours).toEqual(real);
  expect(simulated).toEqual(real);
}, 90_000);
