/** @jest-environment node */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { eventually } from './serving';

const root = join(__dirname, '../..');
const cli = join(root, 'dist/cli.js');
const shared = join(root, 'examples/shared');

// Modules find the package from where they stand.
mkdirSync(join(root, '.cache'), { recursive: true });
const folder = mkdtempSync(join(root, '.cache/serve-'));
const running = new Set<ChildProcess>();
afterEach(() => {
  for (const one of running) one.kill('SIGKILL');
  running.clear();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const put = (name: string, text: string) => writeFileSync(join(folder, name), text);

/** Runs `simulacra serve`, until it says where it is or ends. */
async function run(args: string[], cwd = folder) {
  const child = spawn(process.execPath, [cli, 'serve', ...args], { cwd });
  running.add(child);
  const said = { out: '', err: '' };
  child.stdout.on('data', (text) => (said.out += String(text)));
  child.stderr.on('data', (text) => (said.err += String(text)));
  const ended = once(child, 'close').then(([code]) => code as number | null);
  const isUp = () => /Ctrl\+C/.test(said.out);
  await Promise.race([ended, eventually(async () => isUp(), 20_000)]);
  const [url = ''] = /http:\/\/\S+/.exec(said.out) ?? [];
  return { child, said, ended, url };
}

it('serves the backend of the examples as its configuration says, and stops when it is told to', async () => {
  const { child, said, ended, url } = await run(['--port', '0'], shared);
  expect(said.err).toBe('');
  expect(said.out).toContain('answers 10 routes of openapi.yaml, schema.graphql, routes.ts');
  for (const line of [/GET +\/api\/hives +data/, /WS +\/live\/scales +data/, /QUERY +InFlower +data/])
    expect(said.out).toMatch(line);
  expect(Math.max(...said.out.split('\n').map(({ length }) => length))).toBeLessThanOrEqual(100);
  // eslint-disable-next-line no-control-regex -- colours are what this looks for
  expect(said.out).not.toMatch(/\u001b/);
  const response = await fetch(`${url}/api/hives?yard=north`);
  expect(((await response.json()) as object[]).length).toBe(3);
  await fetch(`${url}/api/hivs`);
  await eventually(async () => said.out.includes('GET /api/hivs'));
  expect(said.out).toMatch(/^200 {2}GET \/api\/hives\?yard=north {2}\d+ ms$/m);
  expect(said.out).toContain('SIM-CONTRACT-UNKNOWN');
  child.kill('SIGINT');
  expect(await ended).toBe(0);
  expect(said.out).toMatch(/Stopped\.\n$/);
});

it('begins in the states that the call names, and says so', async () => {
  put('routes.mjs', `export default { 'GET /api/hives': [], 'GET /api/hives?yard=north': ['Anemone'] };`);
  const states = ['--state', 'failing 404', 'GET /api/hives?yard=north=data'];
  const { said, url } = await run(['routes.mjs', '--port', '0', '--quiet', ...states]);
  expect(said.out).toMatch(/\/api\/hives +failing 404/);
  expect((await fetch(`${url}/api/hives`)).status).toBe(404);
  expect(await (await fetch(`${url}/api/hives?yard=north`)).json()).toEqual(['Anemone']);
  const board = await fetch(`${url}/__simulacra/`);
  expect(await board.text()).toContain('simulacra-switchboard');
  expect((await fetch(`${url}/__simulacra/switchboard.js`)).status).toBe(200);
  expect(said.out).not.toContain('ms\n');
});

it('reads its files again when they change, and keeps the answers where that fails', async () => {
  put('names.ts', `export const names: string[] = ['Anemone'];`);
  put('live.ts', `import { names } from './names';\nexport default () => ({ 'GET /api/hives': names });`);
  const { said, url } = await run(['live.ts', '--port', '0']);
  const names = async () => (await fetch(`${url}/api/hives`)).json();
  expect(await names()).toEqual(['Anemone']);
  put('names.ts', `export const names: string[] = ['Borage'];`);
  await eventually(async () => said.out.includes('read again'), 10_000);
  expect(await names()).toEqual(['Borage']);
  // An editor writes beside a file and puts it in its place; what is imported later is watched as well.
  put('more.ts', `export const more = ['Clover'];`);
  put('names.ts.new', `import { more } from './more';\nexport const names = ['Borage', ...more];`);
  renameSync(join(folder, 'names.ts.new'), join(folder, 'names.ts'));
  await eventually(async () => (await names()).length === 2, 10_000);
  put('more.ts', `export const more = ['Dahlia'];`);
  await eventually(async () => (await names())[1] === 'Dahlia', 10_000);
  put('names.ts', `export const names = [;`);
  await eventually(async () => said.err.includes('stay as they were'), 10_000);
  expect(said.err).toContain('SIM-SERVE-FILE  live.ts cannot be served');
  expect(await names()).toEqual(['Borage', 'Dahlia']);
});

it('serves each kind of contract', async () => {
  put('schema.graphql', 'type Query { hives: [String!]! }');
  put(
    'api.json',
    JSON.stringify({
      openapi: '3.0.0',
      servers: [{ url: 'https://brackenfold.example/v1' }],
      paths: {
        '/hives': {
          get: { responses: { 200: { content: { 'application/json': { example: ['Anemone'] } } } } },
        },
      },
    }),
  );
  const { url } = await run(['schema.graphql', 'api.json', '--port', '0']);
  expect(await (await fetch(`${url}/v1/hives`)).json()).toEqual(['Anemone']);
  const asked = await fetch(`${url}/graphql?query=${encodeURIComponent('{ hives }')}`);
  expect(await asked.json()).toEqual({ data: { hives: ['Hives 1', 'Hives 2'] } });
});

it.each<[string, Record<string, string>, string[], RegExp]>([
  ['no file and no configuration', {}, [], /SIM-SERVE-FILE[^]*names no file/],
  ['a file with a letter off', { 'routes.ts': '' }, ['rutes.ts'], /no such file.*Did you mean routes\.ts/],
  ['a folder', {}, ['.'], /it is a folder/],
  ['a file that is unknown', { 'a.png': '' }, ['a.png'], /what a \.png file holds is not known/],
  [
    'a module without answers',
    { 'a.ts': 'export const routes = {};' },
    ['a.ts'],
    /no default export \(it exports routes\)/,
  ],
  [
    'a module with something else',
    { 'a.ts': 'export default [1];' },
    ['a.ts'],
    /neither routes nor a function/,
  ],
  ['a module that throws', { 'a.ts': 'throw new Error("no bees");' }, ['a.ts'], /loading it failed: no bees/],
  [
    'a module with a mistake',
    { 'a.ts': 'export default {\n  "GET /a": ,\n};' },
    ['a.ts'],
    /loading it failed: Unexpected "," \(a\.ts:2:13\)/,
  ],
  [
    'a route that is none',
    { 'a.ts': 'export default { "GTE /api": [] };' },
    ['a.ts'],
    /SIM-ROUTE-SYNTAX[^]*GET \/api/,
  ],
  [
    'YAML that is no contract',
    { 'a.yaml': 'bees: 7' },
    ['a.yaml'],
    /a\.yaml cannot be served: it has no field "openapi"/,
  ],
  ['JSON that is none', { 'a.json': '{' }, ['a.json'], /it is no JSON/],
  [
    'a schema that is none',
    { 'a.graphql': 'type Query {\n  hives: [\n}' },
    ['a.graphql'],
    /a\.graphql cannot be served: Syntax Error: Expected Name, found "}" \(at 3:1\)/,
  ],
  ['JSON that is a number', { 'a.json': '7' }, ['a.json'], /a\.json cannot be served: it holds no object/],
  ['a port that is none', { 'a.yaml': '' }, ['a.yaml', '--port', 'x'], /SIM-OPTION-VALUE[^]*0 to 65535/],
  [
    'a state that is none',
    { 'a.mjs': 'export default { "GET /a": 1 };' },
    ['a.mjs', '--state', 'heled'],
    /SIM-SERVE-STATE.*Did you mean held/,
  ],
  [
    'a route that is not there',
    { 'a.mjs': 'export default { "GET /a": 1 };' },
    ['a.mjs', '--state', 'GET /b=held'],
    /SIM-ROUTE-UNKNOWN[^]*GET \/a/,
  ],
])('explains %s', async (_, files, args, words) => {
  for (const [name, text] of Object.entries(files)) put(name, text);
  const { said, ended } = await run(args);
  expect(await ended).toBe(1);
  expect(said.err.replace(/\s+/g, ' ')).toMatch(words);
  expect(said.err).not.toMatch(/\n +at /);
});
