/** @jest-environment node */
import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { hiveSign, makeProject, root, signCss, signStates, viteConfig } from '../sheet/project';
import { person } from './person';
import { renderersBelow } from './renderers';

/* The test files of a user, which run in a real browser. */

const project = makeProject({
  'vite.config.mjs': viteConfig,
  'jest.config.cjs': `module.exports = {
  runner: 'simulacra/chromium',
  testMatch: ['**/*.{test,states}.jsx'],
  setupFilesAfterEnv: ['simulacra/jest-states', '<rootDir>/setup.js'],
  globals: { yard: 'north' },
  collectCoverageFrom: ['src/**/*.jsx', '!**/*.{test,states}.jsx'],
  testTimeout: 3000,
};`,
  'setup.js': 'globalThis.isSetUp = true;',
  'notes.txt': 'The heather is in flower.',
  'src/sign.css': signCss,
  'src/HiveSign.jsx': hiveSign('Hive'),
  'src/HiveSign.states.jsx': signStates,
  'src/HiveSign.test.jsx': `import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect as named } from '@jest/globals';
import 'simulacra/jest';
import { fail, role } from 'simulacra';
import { isolate } from 'simulacra/react';
import { HiveSign } from './HiveSign';

describe('a sign', () => {
  beforeAll(() => console.log('opened in %s', yard));
  it('shows its hive', async () => {
    const sign = await isolate(HiveSign, { props: { hive: 'h1' }, network: { 'GET /api/hives/h1': { name: 'Clover' } } });
    expect(sign).toShow(role('heading', 'Hive Clover'));
  });
  it('is told wrongly', async () => {
    const sign = await isolate(HiveSign, { props: { hive: 'h1' }, network: { 'GET /api/hives/h1': fail(404) } });
    expect(sign).toShow(role('heading', 'Hive Clover'));
  });
  test.each([[1, 2], [2, 3]])('adds %i and %i', (one, other) => expect(one + other).toBe(3));
  it.skip('is left out', () => undefined);
  it.todo('is still to be written');
  it('counts what it expects', () => {
    expect.assertions(2);
    expect(1).toBe(1);
  });
});
it('takes its time', () => new Promise(() => undefined), 200);
it('is in a real browser, and reads files of its project', () => {
  expect(isSetUp).toBe(true);
  expect(named).toBe(expect);
  expect(navigator.userAgent).toContain('Chrome');
  expect(typeof process).toBe('undefined');
  expect(document.createElement('canvas').getContext('2d')).not.toBeNull();
  expect(readFileSync(join(__dirname, '../notes.txt'), 'utf8')).toBe('The heather is in flower.');
  expect(() => readFileSync('/etc/hostname', 'utf8')).toThrow('ENOENT');
});
it('hears of what nobody catches', async () => {
  setTimeout(() => { throw new RangeError('39.5 degrees'); });
  await new Promise((go) => setTimeout(go, 50));
});
it('keeps no texts', () => expect('Clover').toMatchSnapshot());
`,
  'src/Person.test.jsx': person,
  'src/Looks.states.jsx': signStates.replace('/failed/', '/lost/'),
  'src/Looks.looks.txt': '[loading]\nan older look\n',
  'src/Focus.test.jsx':
    "it('is not asked', () => { throw new Error(); });\nit.only('is asked alone', () => undefined);\n",
  'src/Empty.test.jsx': 'export {};\n',
  'src/Import.test.jsx': "import { Nothing } from './Nowhere';\nit('runs', () => Nothing);\n",
  'src/Throws.test.jsx': "const hive = undefined;\nhive.name;\nit('runs', () => undefined);\n",
  'src/Loop.test.jsx':
    "it('goes well', () => undefined);\nit('never ends', () => { for (;;); }, 300);\nit('comes later', () => undefined);\n",
  'src/Leave.test.jsx':
    "it('leaves', async () => { location.href = '/elsewhere'; await new Promise((go) => setTimeout(go, 2000)); });\n",
  'src/Dialog.test.jsx': "it('asks', () => { confirm('Open the hive?'); });\n",
});

interface Told {
  readonly name: string;
  readonly message: string;
  readonly assertionResults: readonly {
    readonly fullName: string;
    readonly status: string;
    readonly failureMessages: readonly string[];
  }[];
}
async function run(args: readonly string[], env: object = {}) {
  const jest = join(root, 'node_modules/jest/bin/jest.js');
  const report = project.path('report.json');
  const outcome = await project.run(jest, ['--json', '--outputFile', report, ...args], env);
  const { testResults } = JSON.parse(readFileSync(report, 'utf8')) as { testResults: Told[] };
  const fileOf = (name: string) => testResults.find((one) => one.name.endsWith(`/src/${name}`))!;
  return { ...outcome, fileOf, files: testResults.length };
}
const statusesOf = ({ assertionResults }: Told) =>
  Object.fromEntries(assertionResults.map(({ fullName, status }) => [fullName, status]));

describe('test files in a browser', () => {
  let told: Awaited<ReturnType<typeof run>>;
  beforeAll(async () => {
    told = await run(['--coverage', '--coverageReporters', 'text']);
  }, 180_000);
  const failureOf = (file: string, name: string) =>
    told
      .fileOf(file)
      .assertionResults.find(({ fullName }) => fullName === name)!
      .failureMessages.join('\n');

  it('are reported as anywhere else', () => {
    expect(statusesOf(told.fileOf('HiveSign.test.jsx'))).toEqual({
      'a sign shows its hive': 'passed',
      'a sign is told wrongly': 'failed',
      'a sign adds 1 and 2': 'passed',
      'a sign adds 2 and 3': 'failed',
      'a sign is left out': 'pending',
      'a sign is still to be written': 'todo',
      'a sign counts what it expects': 'failed',
      'takes its time': 'failed',
      'is in a real browser, and reads files of its project': 'passed',
      'hears of what nobody catches': 'failed',
      'keeps no texts': 'failed',
    });
    expect(told.code).toBe(1);
    expect(told.words).not.toContain('did not exit');
  });

  it.each([
    [
      'what is wrong, with the line of it',
      'a sign is told wrongly',
      /SIM-SHOWN|SIM-FIND-NONE|has the role "heading"/,
    ],
    ['what is wrong, with the line of it', 'a sign is told wrongly', /HiveSign\.test\.jsx:17:18/],
    ['a row of a table', 'a sign adds 2 and 3', /Expected: 3\s+Received: 5/],
    [
      'what was not expected',
      'a sign counts what it expects',
      /Expected two assertions to be called but received one/,
    ],
    ['a limit of time', 'takes its time', /Exceeded timeout of 200 ms for a test/],
    ['what nobody caught', 'hears of what nobody catches', /39\.5 degrees/],
    [
      'texts that would be kept',
      'keeps no texts',
      /toMatchSnapshot\(\) compares with a file, and this test runs in a browser/,
    ],
  ])('are told of: %s', (_, name, message) => {
    expect(failureOf('HiveSign.test.jsx', name)).toMatch(message);
  });

  it('have a picture and the markup of each page that failed', () => {
    const [, name = ''] = /The page as it was: {3}(\S+)\.png {3}\1\.html/.exec(
      failureOf('HiveSign.test.jsx', 'a sign is told wrongly'),
    )!;
    expect(readFileSync(project.path(`${name}.html`), 'utf8')).toContain('Hive failed');
    expect(existsSync(project.path(`${name}.png`))).toBe(true);
    expect(told.words).toMatch(/> 17 \| expect\(sign\)\.toShow/);
  });

  it('have the mouse and the keyboard of the browser itself', () => {
    const { assertionResults, message } = told.fileOf('Person.test.jsx');
    expect([message, assertionResults.length]).toEqual(['', 13]);
  });

  it('are left out by .only', () => {
    const { 'is asked alone': asked, ...others } = statusesOf(told.fileOf('Focus.test.jsx'));
    expect([asked, others]).toEqual(['passed', { 'is not asked': 'pending' }]);
  });

  it('make tests of declared states', () => {
    expect(Object.values(statusesOf(told.fileOf('HiveSign.states.jsx')))).toEqual(Array(5).fill('passed'));
  });

  it('point at the line of a state, and compare its look with the one that is kept', () => {
    const [loading, failed] = told.fileOf('Looks.states.jsx').assertionResults;
    expect(loading!.failureMessages.join()).toMatch(
      /SIM-LOOK-CHANGED[^]*- an older look[^]*Looks\.states\.jsx:6:3/,
    );
    expect(failed!.failureMessages.join()).toMatch(/heading[^]*Looks\.states\.jsx:7:3/);
  });

  it('print what they print', () => {
    expect(told.words).toMatch(/console\.log opened in north at .*src\/HiveSign\.test\.jsx:10:27/);
  });

  it.each([
    ['Empty.test.jsx', /SIM-FILE-EMPTY src\/Empty\.test\.jsx has no test/],
    ['Import.test.jsx', /SIM-PAGE-LOAD src\/Import\.test\.jsx could not be loaded into the page: .*Nowhere/],
    ['Throws.test.jsx', /Cannot read properties of undefined \(reading 'name'\).*> 2 \| hive\.name/],
  ])('fail as a whole where they cannot be run: %s', (file, message) => {
    const { assertionResults, message: said } = told.fileOf(file);
    expect(assertionResults).toEqual([]);
    expect(said.replace(/\s+/g, ' ')).toMatch(message);
  });

  it.each([
    ['Loop.test.jsx', 'never ends', /SIM-PAGE-HANGS The page of never ends did not answer for 5\.3 s/],
    ['Leave.test.jsx', 'leaves', /SIM-PAGE-LEFT .* left its page for .*\/elsewhere/],
    [
      'Dialog.test.jsx',
      'asks',
      /SIM-PAGE-DIALOG .* opened a dialog of the browser, confirm\("Open the hive\?"\)/,
    ],
  ])('fail, and no other with them, where they spoil their page: %s', (file, name, message) => {
    expect(failureOf(file, name).replace(/\s+/g, ' ')).toMatch(message);
    if (file === 'Loop.test.jsx')
      expect(statusesOf(told.fileOf(file))).toEqual({ 'goes well': 'passed', 'never ends': 'failed' });
  });

  it('count which code ran', () => {
    expect(told.stdout + told.stderr).toMatch(/HiveSign\.jsx +\| +\d+(\.\d+)? \|/);
    expect(told.stdout + told.stderr).not.toMatch(/HiveSign\.test\.jsx +\|/);
  });
});

it('runs those of a name alone, and keeps looks', async () => {
  const { fileOf } = await run(['--testPathPatterns', 'HiveSign.test|Looks', '-t', 'adds|loading'], {
    ACCEPT_LOOKS: '1',
  });
  expect(readFileSync(project.path('src/Looks.looks.txt'), 'utf8')).toMatch(
    /^What HiveSign looks like .*\n\n\[loading\]\nHiveSign {2}hive="h1"\n/,
  );
  const ran = Object.entries(statusesOf(fileOf('HiveSign.test.jsx'))).filter(
    ([, status]) => !/pending|todo/.test(status),
  );
  expect(Object.fromEntries(ran)).toEqual({
    'a sign adds 1 and 2': 'passed',
    'a sign adds 2 and 3': 'failed',
  });
}, 60_000);

it('is told where no browser is', async () => {
  const { words, code } = await run(['--testPathPatterns', 'Focus'], { CHROME_PATH: '/nowhere' });
  expect(words).toContain('SIM-BROWSER-NONE CHROME_PATH names /nowhere, and there is no such file.');
  expect(code).toBe(1);
}, 30_000);

it('tells of a module that a page cannot load', async () => {
  project.put('setup.cjs', 'module.exports = {};');
  const setup = ['--setupFilesAfterEnv', project.path('setup.cjs')];
  const { words } = await run(['--testPathPatterns', 'Focus', ...setup]);
  expect(words).toContain(
    'SIM-FILE-SETUP setup.cjs, which is loaded before each test file, cannot be loaded into a page',
  );
}, 60_000);

it('tells of a page whose process ended, and goes on with the next file', async () => {
  const server = createServer((_, response) => {
    for (const id of renderersBelow(process.pid)) process.kill(id, 'SIGKILL');
    response.end();
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as { port: number };
  project.put(
    'src/Crash.test.jsx',
    `it('ends', async () => { new Image().src = 'http://127.0.0.1:${port}/'; await new Promise(() => undefined); });\n`,
  );
  const { fileOf } = await run(['--testPathPatterns', 'Crash|Focus', '--maxWorkers', '1']);
  server.close();
  expect(fileOf('Crash.test.jsx').assertionResults[0]!.failureMessages.join()).toContain('SIM-PAGE-CRASHED');
  expect(statusesOf(fileOf('Focus.test.jsx'))['is asked alone']).toBe('passed');
}, 60_000);

let endWatch: () => void = () => undefined;
afterAll(() => endWatch());

it('runs again what was saved, on the page that it keeps', async () => {
  project.put('src/Watch.test.jsx', "it('is watched', () => undefined);\n");
  const args = [join(root, 'node_modules/jest/bin/jest.js'), '--watchAll', '--testPathPatterns', 'Watch'];
  const watch = project.spawn(args, { CI: '' });
  endWatch = () => void watch.kill('SIGTERM');
  let said = '';
  watch.stderr.on('data', (text: Buffer) => (said += text.toString()));
  const says = async (words: RegExp) => {
    while (!words.test(said)) await new Promise((go) => setTimeout(go, 50));
  };
  await says(/Tests: +1 passed[^]*Ran all/);
  project.put('src/Watch.test.jsx', "it('is watched', () => { throw new Error('39.5 degrees'); });\n");
  await says(/39\.5 degrees[^]*Tests: +1 failed/);
  const pages = renderersBelow(watch.pid!);
  expect(pages).not.toEqual([]);
  watch.kill('SIGTERM');
  await new Promise((resolve) => watch.once('exit', resolve));
  expect(pages.filter((id) => existsSync(`/proc/${id}`))).toEqual([]);
}, 60_000);
