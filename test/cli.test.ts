/** @jest-environment node */
import { execFile } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';

const cli = join(__dirname, '../dist/cli.js');

async function run(args: string[], env: Record<string, string> = {}) {
  const { NODE_ENV: _, ...clean } = process.env;
  try {
    const { stdout, stderr } = await promisify(execFile)(process.execPath, [cli, ...args], {
      env: { ...clean, ...env } as NodeJS.ProcessEnv,
    });
    return { code: 0, stdout, stderr };
  } catch (error) {
    const { code, stdout, stderr } = error as { code: number; stdout: string; stderr: string };
    return { code, stdout, stderr };
  }
}

it('plays the declared states of the React example, and a race with its mended twin', async () => {
  const { code, stdout } = await run(['demo']);
  expect(code).toBe(0);
  expect(stdout.match(/^ {2}shown/gm)?.length).toBe(8);
  expect(stdout.match(/rendered {3}HiveBoard +status "Loading hives"/g)?.length).toBeGreaterThanOrEqual(8);
  expect(stdout).toContain('button "Try again"');
  expect(stdout).toContain('8 states verified, no request left this machine');
  expect(stdout).toContain('52 of 56 pairs told apart, 4 meant to look alike');
  expect(stdout.replace(/\s+/g, ' ')).toMatch(
    /SIM-ARRIVAL GET \/api\/hives\?q=ove arrived before GET \/api\/hives\?q=o: .*everyArrival\(scenario, \{ order: '\d+' \}\).*held in 6 of 6 orders/,
  );
  expect(Math.max(...stdout.split('\n').map(({ length }) => length))).toBeLessThanOrEqual(100);
  // eslint-disable-next-line no-control-regex -- colours are what this looks for
  expect(stdout).not.toMatch(/\u001b/);
});

it.each([
  ['one state', ['demo', '--state', 'empty'], 0, 'stdout', /1 state verified/],
  [
    'a state that is not there',
    ['demo', '--state', 'empyt'],
    1,
    'stderr',
    /SIM-OPTION-VALUE[^]*did you mean empty\?/,
  ],
  ['a command that is not there', ['demonstrate'], 2, 'stderr', /unknown command/],
  ['help', ['--help'], 0, 'stdout', /demo/],
] as const)('answers %s', async (_, args, code, stream, words) => {
  const result = await run([...args]);
  expect(result.code).toBe(code);
  expect(result[stream]).toMatch(words);
});

it('explains a production build of React', async () => {
  const { code, stderr } = await run(['demo'], { NODE_ENV: 'production' });
  expect(code).toBe(1);
  expect(stderr).toMatch(/SIM-REACT-PRODUCTION[^]*NODE_ENV is "production"[^]*NODE_ENV=test/);
});

const shared = (name: string) => join(__dirname, '../examples/shared', name);

it('writes the types of contracts, as the examples have them', async () => {
  const { code, stdout } = await run(['types', shared('openapi.yaml'), shared('schema.graphql')]);
  expect(code).toBe(0);
  expect(stdout).toBe(readFileSync(shared('contract.d.ts'), 'utf8'));
});

it.each([
  ['no file', ['types'], 2, /missing required argument/],
  ['a file that is not there', ['types', 'opanapi.yaml'], 1, /SIM-SERVE-FILE[^]*there is no such file/],
  ['a file that is no contract', ['types', shared('routes.ts')], 1, /it is no contract/],
] as const)('refuses to write the types of %s', async (_, args, code, words) => {
  const result = await run([...args]);
  expect(result.code).toBe(code);
  expect(result.stderr.replace(/\s+/g, ' ')).toMatch(words);
});
