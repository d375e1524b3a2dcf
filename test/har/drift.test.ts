/** @jest-environment node */
import { execFile } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { hives, type Hive } from '../../examples/shared/hive';

const root = join(__dirname, '../..');
mkdirSync(join(root, '.cache'), { recursive: true });
const folder = mkdtempSync(join(root, '.cache/drift-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const entry = (route: string, status: number, body: unknown, type = 'application/json') => ({
  request: {
    method: route.split(' ')[0],
    url: `https://brackenfold.example${route.split(' ')[1]}`,
    headers: [{ name: ':path', value: '/' }],
  },
  response: {
    status,
    headers: [],
    content: { mimeType: type, text: body === undefined ? '' : JSON.stringify(body) },
  },
});
const session = [
  entry('GET /api/hives?yard=north', 200, hives),
  entry('GET /api/hives?yard=south', 200, []),
  entry('GET /api/hives/h1', 200, { ...hives[0], keeper: null }),
  entry('GET /api/hives/h2', 200, { ...hives[1], keeper: { name: 'Imke' } }),
  entry('POST /api/hives/h1/inspections', 201, undefined, ''),
];

async function drift(routes: object, entries = session) {
  const code = JSON.stringify(routes).replace(/"=>(.*?)<="/g, '$1');
  writeFileSync(join(folder, 'routes.mjs'), `export default ${code};`);
  writeFileSync(join(folder, 'session.har'), JSON.stringify({ log: { version: '1.2', entries } }));
  const run = promisify(execFile)(
    process.execPath,
    [join(root, 'dist/cli.js'), 'drift', 'routes.mjs', 'session.har'],
    { cwd: folder },
  );
  return run.then(
    ({ stdout }) => ({ code: 0, stdout }),
    ({ code, stdout, stderr }: { code: number; stdout: string; stderr: string }) => ({
      code,
      stdout: stdout + stderr,
    }),
  );
}

const right = {
  'GET /api/hives': hives,
  'GET /api/hives/:hiveId': { ...hives[2], keeper: null },
  'POST /api/hives/:hiveId/inspections': '=>() => new Response(null, { status: 201 })<=',
};

it('finds no drift in answers that are as recorded', async () => {
  const { code, stdout } = await drift({ ...right, 'DELETE /api/hives/:hiveId': null });
  expect(stdout).toBe(`as recorded  GET /api/hives  2 requests recorded
as recorded  GET /api/hives/:hiveId  2 requests recorded
as recorded  POST /api/hives/:hiveId/inspections  1 request recorded
not recorded  DELETE /api/hives/:hiveId

No drift in 3 routes
`);
  expect(code).toBe(0);
});

const changed = (change: (hive: Hive) => object) => ({ ...right, 'GET /api/hives': hives.map(change) });
const one = (change: object) => ({
  ...right,
  'GET /api/hives/:hiveId': { ...hives[2], keeper: null, ...change },
});
it.each<[string, object, RegExp]>([
  ['a missing field', changed(({ name: _, ...rest }) => rest), /\[0\]\.name: it is missing/],
  [
    'a renamed field',
    changed(({ name, ...rest }) => ({ ...rest, nam: name })),
    /\[0\]\.name: it is missing \(did you mean nam\?\)/,
  ],
  [
    'a field that nobody recorded',
    changed((hive) => ({ ...hive, roof: 1 })),
    /\[0\]\.roof: nothing of that name was recorded/,
  ],
  [
    'a text for a number',
    changed((hive) => ({ ...hive, weight: '31.2' })),
    /\[0\]\.weight: "31\.2" is a text, and a number was recorded/,
  ],
  [
    'a number for a text',
    changed((hive) => ({ ...hive, id: 1 })),
    /\[0\]\.id: 1 is a number, and a text was recorded/,
  ],
  [
    'null where it never was',
    changed((hive) => ({ ...hive, queen: null })),
    /\[0\]\.queen: it is null, and an object was recorded/,
  ],
  [
    'a field inside',
    changed((hive) => ({ ...hive, queen: { year: 2025 } })),
    /\[0\]\.queen\.marked: it is missing/,
  ],
  [
    'a date of another form',
    changed((hive) => ({ ...hive, lastInspection: '11.05.2026' })),
    /\[0\]\.lastInspection: "11\.05\.2026" is not a date/,
  ],
  [
    'an object for a list',
    { ...right, 'GET /api/hives': { items: hives } },
    /the whole: .* is an object, and a list was recorded/,
  ],
  ['another item of a list', one({ tasks: [7] }), /tasks\[0\]: 7 is a number, and a text was recorded/],
  [
    'what is null at times',
    one({ keeper: { nam: 'Imke' } }),
    /keeper\.name: it is missing \(did you mean nam\?\)/,
  ],
  [
    'another status',
    { ...right, 'POST /api/hives/:hiveId/inspections': null },
    /the status: it is 200, and 201 was recorded/,
  ],
  [
    'another content type',
    { ...right, 'GET /api/hives': '=>() => new Response(`[]`)<=' },
    /the content type: it is text\/plain, and application\/json was recorded/,
  ],
  ['no answer at all', { ...right, 'GET /api/hives': '=>() => { throw 1 }<=' }, /the answer: it never came/],
])('lists %s', async (_, routes, told) => {
  const { code, stdout } = await drift(routes);
  expect(stdout).toMatch(told);
  expect(stdout).toMatch(/^1 of 3 routes drifted$/m);
  expect(code).toBe(1);
});

it('names what no route answers', async () => {
  const { code, stdout } = await drift({ 'GET /api/hives': hives });
  expect(stdout).toContain('no route  GET /api/hives/h1');
  expect([code, stdout.split('\n').at(-2)]).toEqual([0, 'No drift in 1 route']);
});

it('compares an operation with the route for its variables', async () => {
  const asked = (yard: string, names: unknown) => ({
    ...entry('POST /graphql', 200, { data: { hives: names } }),
    request: {
      ...{ method: 'POST', url: 'https://brackenfold.example/graphql', headers: [] },
      postData: {
        mimeType: 'application/json',
        text: JSON.stringify({ query: 'query Hives($yard: ID) { hives(yard: $yard) }', variables: { yard } }),
      },
    },
  });
  const { stdout } = await drift(
    { 'QUERY Hives': { hives: ['Anemone'] }, 'QUERY Hives?yard=south': { hives: [7] } },
    [asked('north', ['Anemone']), asked('south', ['Borage'])],
  );
  expect(stdout).toMatch(/^as recorded {2}QUERY Hives /m);
  expect(stdout).toMatch(/^drifted {2}QUERY Hives\?yard=south /m);
});

it.each([
  ['no recording', ['routes.mjs'], /names no file with a recording/],
  ['no routes', ['session.har'], /names no file with routes/],
  [
    'a recording that is not there',
    ['routes.mjs', 'sesion.har'],
    /sesion\.har cannot be served: there is no such file.*Did you mean session\.har/,
  ],
  [
    'a recording from elsewhere',
    ['routes.mjs', 'other.har'],
    /other\.har cannot be served: it has no entries \(at log\.entries\)/,
  ],
])('explains %s', async (_, args, words) => {
  await drift(right);
  writeFileSync(join(folder, 'other.har'), '{"log":{"version":"1.2"}}');
  const failed = await promisify(execFile)(process.execPath, [join(root, 'dist/cli.js'), 'drift', ...args], {
    cwd: folder,
  }).then(
    () => ({ code: 0, stderr: '' }),
    (error: { code: number; stderr: string }) => error,
  );
  expect(failed.code).toBe(1);
  expect(failed.stderr.replace(/\s+/g, ' ')).toMatch(words);
});
