/** @jest-environment node */
import { execFile } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

/* The files that declare states, as Jest finds and runs them in a project of a user. */

const root = join(__dirname, '../..');
const place = mkdtempSync(join(tmpdir(), 'states-'));
symlinkSync(join(root, 'node_modules'), join(place, 'node_modules'));
afterAll(() => rmSync(place, { recursive: true, force: true }));
const put = (file: string, text: string) => writeFileSync(join(place, file), text);

const sign = (heading: string) => `import { useEffect, useState } from 'react';
export function HiveSign({ hive }) {
  const [state, setState] = useState('loading');
  useEffect(() => {
    fetch('/api/hives/' + hive).then(async (r) => setState(r.ok ? (await r.json()).name : 'failed'));
  }, [hive]);
  return <section>${heading}{state === 'loading' && <p role="status">Loading</p>}</section>;
}`;
const heading = '<h2>{state}</h2>';
const right = `import { fail, hold, role } from 'simulacra';
import { states } from 'simulacra/react';
import { HiveSign } from './HiveSign';

export default states(HiveSign, { props: { hive: 'h1' } }, {
  // A comment with a { brace, and a text: "loaded:".
  loading: { network: { 'GET /api/hives/h1': hold() }, shows: [role('status')] },
  'has failed': { network: { 'GET /api/hives/h1': fail(404) }, shows: [role('heading', 'failed')] },
  loaded: { network: { 'GET /api/hives/h1': { name: 'Anemone', nested: { loaded: 1 } } }, shows: [role('heading', 'Anemone')] },
});
`;
put(
  'jest.config.cjs',
  `const path = require('path');
const root = ${JSON.stringify(root)};
const dist = (file) => path.join(root, 'dist', file);
module.exports = {
  ...require(dist('react-jest.cjs')),
  rootDir: __dirname,
  moduleNameMapper: { '^simulacra$': dist('index.cjs'), '^simulacra/(react|jest)$': dist('$1.cjs') },
  testMatch: ['**/*.test.tsx', '**/*.states.tsx'],
  setupFilesAfterEnv: [dist('react.cjs'), dist('jest-states.cjs')],
};`,
);
put('HiveSign.test.tsx', `import 'simulacra/jest';\ntest('other files stay tests', () => undefined);`);

interface Result {
  readonly fullName: string;
  readonly status: string;
  readonly failureMessages: string[];
}
async function run(env: Record<string, string> = {}, ...more: string[]) {
  const args = [
    join(root, 'node_modules/jest/bin/jest.js'),
    '--json',
    '--no-cache',
    '--rootDir',
    place,
    ...more,
  ];
  const options = { cwd: place, env: { ...process.env, ...env } };
  const { stdout } = await promisify(execFile)(process.execPath, args, options).catch(
    (failed: { stdout: string }) => failed,
  );
  const { testResults } = JSON.parse(stdout) as { testResults: { assertionResults: Result[] }[] };
  return testResults
    .flatMap(({ assertionResults }) => assertionResults)
    .map(({ fullName, status, failureMessages: [failure = ''] }) => ({ fullName, status, failure }));
}
const statuses = (results: { fullName: string; status: string }[]) =>
  Object.fromEntries(results.map(({ fullName, status }) => [fullName, status]));
const lineOf = (text: string, words: string) =>
  text.split('\n').findIndex((line) => line.startsWith(`  ${words}`)) + 1;

it('makes a test of each state, and points at the line it is declared on', async () => {
  put('HiveSign.tsx', sign(heading));
  const wrong = right
    .replace("role('heading', 'Anemone')", "role('heading', 'Borage')")
    .replace("'failed')", "'faild')");
  put('HiveSign.states.tsx', right);
  expect(statuses(await run())).toEqual({
    'other files stay tests': 'passed',
    'HiveSign loading': 'passed',
    'HiveSign has failed': 'passed',
    'HiveSign loaded': 'passed',
    'HiveSign its states are told apart': 'passed',
    'HiveSign all that its states declare is of use': 'passed',
  });
  put('HiveSign.states.tsx', wrong);
  const results = await run();
  const [failed, loaded] = ['HiveSign has failed', 'HiveSign loaded'].map((name) =>
    results.find(({ fullName }) => fullName === name)!,
  );
  expect([failed!.status, loaded!.status]).toEqual(['failed', 'failed']);
  expect(failed!.failure).toContain(`HiveSign.states.tsx:${lineOf(wrong, "'has failed':")}:3`);
  expect(loaded!.failure).toContain(`HiveSign.states.tsx:${lineOf(wrong, 'loaded:')}:3`);
  expect(loaded!.failure.replace(/\s+/g, ' ')).toMatch(
    /SIM-STATE-WRONG HiveSign does not look as its state "loaded" says\. .*Did you mean role\('heading', 'Anemone'\)/,
  );
}, 60_000);

it('accepts looks, and tells of another name but not of another tag', async () => {
  put('HiveSign.tsx', sign(heading));
  put('HiveSign.states.tsx', right);
  const looks = join(place, 'HiveSign.looks.txt');
  expect(existsSync(looks)).toBe(false);
  await run({ ACCEPT_LOOKS: '1' });
  expect(readFileSync(looks, 'utf8')).toMatch(
    /^What HiveSign looks like[^]*\[loaded\]\nHiveSign {2}hive="h1"\n {2}heading "Anemone" level 2\n$/,
  );
  put('HiveSign.tsx', sign('<div role="heading" aria-level={2} className="big">{state}</div>'));
  expect(Object.values(statuses(await run())).every((status) => status === 'passed')).toBe(true);
  put('HiveSign.tsx', sign(`${heading}<button>Open</button>`));
  const changed = (await run()).find(({ fullName }) => fullName === 'HiveSign loaded')!;
  expect(changed.failure).toMatch(
    /SIM-LOOK-CHANGED {2}HiveSign looks other in the state "loaded"[^]*\+ +button "Open"[^]*ACCEPT_LOOKS=1/,
  );
  put('HiveSign.states.tsx', right.replace('  loaded:', '  arrived:'));
  const fresh = (await run()).find(({ fullName }) => fullName === 'HiveSign arrived')!;
  expect(fresh.failure).toMatch(/SIM-LOOK-NEW[^]*"arrived"[^]*heading "Anemone"/);
}, 60_000);

it('tells which branches no state reaches, where coverage is counted', async () => {
  const more = `${heading}{state === 'Borage' && <b>The queen</b>}`;
  put('HiveSign.tsx', `interface Unused {\n  lines: 2;\n}\n${sign(more)}`);
  put('HiveSign.states.tsx', right);
  put(
    'HiveSign.test.tsx',
    `import { testStates } from 'simulacra/jest';\nimport sign from './HiveSign.states';\ntestStates(sign, { branches: true });`,
  );
  const results = await run({}, '--coverage', '--coverageReporters=none', 'HiveSign.test');
  const [failed, ...others] = results.filter(({ status }) => status === 'failed');
  expect(others).toEqual([]);
  expect(failed!.fullName).toBe('HiveSign all that its states declare is of use');
  expect(failed!.failure.replace(/\s+/g, ' ')).toMatch(
    /SIM-STATE-BRANCH No state of HiveSign reaches this in HiveSign\.tsx\. HiveSign\.tsx:10 return .*The queen/,
  );
}, 60_000);

it('explains a file of states that declares none', async () => {
  put('HiveSign.states.tsx', `export default { loading: 1 };`);
  const args = [join(root, 'node_modules/jest/bin/jest.js'), '--rootDir', place, 'HiveSign.states'];
  const failed = await promisify(execFile)(process.execPath, args, { cwd: place }).catch(
    (error: { stderr: string }) => error,
  );
  expect(failed.stderr).toMatch(/SIM-STATES-GIVEN {2}HiveSign\.states\.tsx[^]*"loading"/);
}, 60_000);
