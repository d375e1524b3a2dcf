// In a browser: a sheet of 100 states against bare pictures of the same pages, a saved file until it is drawn, the tests of a
// project against the same in a simulated page (whole commands, in turns), and the memory of long runs.
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { get } from 'node:http';
import { resolve } from 'node:path';
import { middle } from './measure.mjs';

const place = '.cache/bench-sheet';
const write = (file, text) => {
  mkdirSync(`${place}/${file}`.replace(/\/[^/]*$/, ''), { recursive: true });
  writeFileSync(`${place}/${file}`, text);
};

const cardOf = (file) => `import { useEffect, useState } from 'react';
export function Card${file}({ name }) {
  const [weight, setWeight] = useState();
  useEffect(() => void fetch('/api/' + name).then(async (answer) => setWeight(await answer.json())), [name]);
  return <article><h2>{name} {${file}}</h2><p>{weight ?? 'Loading'}</p><ul>{Array.from({ length: 12 }, (_, at) => <li key={at}>Frame {at}</li>)}</ul></article>;
}
`;

function writeProject(files, states) {
  rmSync(place, { recursive: true, force: true });
  write(
    'vite.config.mjs',
    "import react from '@vitejs/plugin-react';\nexport default { root: import.meta.dirname, plugins: [react()] };\n",
  );
  const names = Array.from({ length: states }, (_, at) => `s${at}`);
  for (let file = 0; file < files; file++) {
    write(`src/Card${file}.jsx`, cardOf(file));
    write(
      `src/Card${file}.states.jsx`,
      `import { text } from 'simulacra';
import { states } from 'simulacra/react';
import { Card${file} } from './Card${file}';
export default states(Card${file}, {}, {
${names.map((name, at) => `  ${name}: { props: { name: '${name}' }, network: { 'GET /api/${name}': ${at + 100} }, shows: [text('${at + 100}')] },`).join('\n')}
});
`,
    );
  }
  write('shots.mjs', bare(files, names));
}

/** The same pages, rendered by the framework alone and photographed by the driver alone. */
const bare = (files, names) => `import { mkdirSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { createServer } from 'vite';
import { openBrowser } from '../../scripts/browser.mjs';
const html = '<!doctype html><html lang="en"><head></head><body><div id="root"></div></body></html>';
const server = await createServer({
  root: import.meta.dirname, configFile: import.meta.dirname + '/vite.config.mjs', appType: 'custom', logLevel: 'silent',
  optimizeDeps: { entries: ['src/*.jsx'] }, server: { port: 0, host: '127.0.0.1', hmr: false, watch: null },
  plugins: [{ name: 'page', configureServer: ({ middlewares }) => void middlewares.use((request, response, next) =>
    request.url === '/' ? response.setHeader('content-type', 'text/html').end(html)
    : request.url.startsWith('/api/') ? response.end(String(Number(request.url.slice(6)) + 1)) : next()) },
    { name: 'entry', resolveId: (id) => (id === '/entry.js' ? id : undefined), load: (id) => id === '/entry.js'
      ? "export { createRoot } from 'react-dom/client'; export { createElement } from 'react'; export { flushSync } from 'react-dom';" : undefined }],
});
await server.listen();
const { browser, close } = await openBrowser();
mkdirSync(import.meta.dirname + '/shots', { recursive: true });
// As many pages at once as a sheet has on this machine.
const pages = Math.min(4, availableParallelism());
await Promise.all(Array.from({ length: pages }, async (_, turn) => {
const page = await (await browser.createBrowserContext()).newPage();
await page.setViewport({ width: 600, height: 800 });
for (let file = turn; file < ${files}; file += pages) {
  await page.goto('http://127.0.0.1:' + server.httpServer.address().port + '/');
  await page.evaluate(async (file) => {
    const [{ createRoot, createElement }, module] = await Promise.all([import('/entry.js'), import('/src/Card' + file + '.jsx')]);
    globalThis.show = (name) => { globalThis.shown?.unmount(); globalThis.shown = createRoot(document.querySelector('#root')); shown.render(createElement(module['Card' + file], { name })); };
  }, file);
  for (const name of ${JSON.stringify(names)}) {
    await page.evaluate((one) => show(one), name);
    await page.waitForFunction(() => document.querySelector('p') && document.querySelector('p').textContent !== 'Loading');
    const { width, height } = await page.evaluate(() => document.documentElement.getBoundingClientRect().toJSON());
    writeFileSync(import.meta.dirname + '/shots/' + file + name + '.png', await page.screenshot({ clip: { x: 0, y: 0, width, height } }));
  }
}
}));
await close();
await server.close();
process.exit(0);
`;

const cli = '../../dist/cli.js';
const jest = resolve('node_modules/jest/bin/jest.js');
const light = ['sheet', '--scheme', 'light', '--no-accessibility', '--out', 'sheet'];

const timed = (program, args, cwd) => {
  const begun = performance.now();
  execFileSync(process.execPath, [program, ...args], { cwd, stdio: 'ignore' });
  return performance.now() - begun;
};
const inTurns = (ours, floor, rounds) => {
  const pairs = Array.from({ length: rounds }, () => ({ floor: floor(), ours: ours() }));
  const [a, b] = [middle(pairs.map((one) => one.ours)), middle(pairs.map((one) => one.floor))];
  return { ours: a, floor: b, ratio: middle(pairs.map((one) => one.ours / one.floor)) };
};

function drawing() {
  writeProject(10, 10);
  const ours = () => timed(cli, light, place);
  const floor = () => timed('shots.mjs', [], place);
  ours();
  floor();
  const turns = inTurns(ours, floor, 5);
  return [{ name: 'a sheet of 100 states', against: 'bare pictures of the same pages', goal: 1.2, ...turns }];
}

/** The React example's tests: all of them, and one file alone, which is what starting costs. */
function running() {
  const run = (project, only) => () => timed(jest, ['--selectProjects', project, '--silent', ...only], '.');
  const rows = [
    ["the React example's tests in Chromium: all", []],
    ['the same: one file alone', ['--testPathPatterns', 'YardGate.test']],
  ].map(([name, only]) => {
    const pair = [run('react-example-chromium', only), run('example', only)];
    for (const one of pair) one();
    return { name, against: 'in a simulated page', ...inTurns(...pair, 3) };
  });
  const isOne = (file) => /\.(test|states)\.tsx$/.test(file) && !file.includes('node_modules');
  const files = readdirSync('examples/react-apiary', { recursive: true }).filter(isOne).length - 1;
  const perFile = (key) => (rows[0][key] - rows[1][key]) / files;
  const [ours, floor] = [perFile('ours'), perFile('floor')];
  return [
    ...rows,
    { name: 'the same: each further file', against: 'in a simulated page', ours, floor, ratio: ours / floor },
  ];
}

/** From a saved file to its picture on the page that is watched. */
async function watching() {
  writeProject(10, 10);
  const watch = spawn(process.execPath, [cli, ...light, '--watch', '--port', '0'], { cwd: place });
  const stop = new globalThis.AbortController();
  try {
    // Where the library is loaded, fetch is its own.
    const [events] = await once(
      get(`${await addressSaid(watch)}events`, { signal: stop.signal }),
      'response',
    );
    let heard = () => undefined;
    let awaited = 'nothing yet';
    let drawn = 0;
    void (async () => {
      for await (const bytes of events) {
        for (const line of Buffer.from(bytes).toString().split('\n')) {
          if (line.includes('"component"')) drawn++;
          if (line.includes('"component"') && line.includes(awaited)) heard();
        }
      }
    })().catch(() => undefined);
    while (drawn < 110) await new Promise((go) => setTimeout(go, 200));
    await new Promise((go) => setTimeout(go, 3000));
    const times = [];
    for (let round = 0; round < 12; round++) {
      const seen = new Promise((resolve) => (heard = resolve));
      const begun = performance.now();
      // It is told with the outline of each state that was drawn.
      awaited = `Round ${round} of s0`;
      write('src/Card3.jsx', cardOf(3).replace('<h2>', `<h2>Round ${round} of `));
      await seen;
      times.push(performance.now() - begun);
      await new Promise((go) => setTimeout(go, 1500));
    }
    const ours = middle(times);
    return [
      {
        name: 'a saved file, drawn on the sheet that is watched',
        against: 'the goal',
        ours,
        floor: 300,
        goal: 1,
        ratio: ours / 300,
      },
    ];
  } finally {
    stop.abort();
    watch.kill('SIGTERM');
    if (watch.exitCode === null) await new Promise((resolve) => watch.once('exit', resolve));
  }
}

/** The address that a command says it listens on. */
function addressSaid(child) {
  return new Promise((resolve, reject) => {
    let said = '';
    const hear = (text) => {
      said += String(text);
      const [address] = /http:\/\/localhost:\d+\//.exec(said) ?? [];
      if (address) resolve(address);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', () => reject(new Error(`The command ended: ${said}`)));
  });
}

/** The memory of a process and all it started, in MB, again and again until it ends. */
async function memoryOf(args) {
  const child = spawn(process.execPath, args, { cwd: place, stdio: 'ignore' });
  let isOver = false;
  child.once('exit', () => (isOver = true));
  const seen = [];
  while (!isOver) {
    seen.push(residentOf(child.pid));
    await new Promise((go) => setTimeout(go, 250));
  }
  const part = (from, to) => middle(seen.slice(Math.floor(seen.length * from), Math.floor(seen.length * to)));
  return { early: part(0.3, 0.5), late: part(0.75, 0.95) };
}

function residentOf(root) {
  const parents = new Map();
  for (const name of readdirSync('/proc'))
    try {
      const [, parent, pages] =
        /\) \S (\d+)(?: \S+){19} (\d+)/.exec(readFileSync(`/proc/${name}/stat`, 'utf8')) ?? [];
      if (parent)
        parents.set(Number(name), { parent: Number(parent), megabytes: (Number(pages) * 4096) / 1e6 });
    } catch {
      // It has ended meanwhile.
    }
  const isBelow = (id) => id === root || (parents.has(id) && isBelow(parents.get(id).parent));
  return [...parents].reduce((sum, [id, { megabytes }]) => (isBelow(id) ? sum + megabytes : sum), 0);
}

/** What runs long: whether what it takes of memory grows from its first half to its end. */
async function remembering() {
  writeProject(30, 10);
  const sheet = await memoryOf([cli, ...light]);
  const config = { runner: '../../dist/chromium.cjs', testMatch: ['**/*.test.jsx'] };
  write('jest.config.json', JSON.stringify(config));
  for (let file = 0; file < 100; file++) write(`tests/Card${file}.test.jsx`, testOf(file % 30));
  const tests = await memoryOf([jest, '--silent']);
  const row = (name, { early, late }) => ({ name, early, late, ratio: late / early });
  return [row('a sheet of 300 states', sheet), row('100 test files in Chromium', tests)];
}

const testOf = (card) => `import 'simulacra/jest';
import { role } from 'simulacra';
import { isolate } from 'simulacra/react';
import { Card${card} } from '../src/Card${card}';
it.each(Array.from({ length: 20 }, (_, at) => [at]))('shows %i', async (at) => {
  const card = await isolate(Card${card}, { props: { name: 's' + at }, network: { 'GET /api/:name': at } });
  expect(card).toShow(role('heading', 's' + at + ' ${card}'));
});
`;

/** Rows for the table, and how memory grows. */
export async function sheeting() {
  const rows = [...drawing(), ...(await watching()), ...running()];
  const memory = await remembering();
  rmSync(place, { recursive: true, force: true });
  return { rows, memory };
}

if (process.argv[1]?.endsWith('sheet.mjs')) {
  const isQuick = process.argv.includes('--quick');
  const { rows, memory } = isQuick
    ? { rows: [...drawing(), ...(await watching())], memory: [] }
    : await sheeting();
  for (const { name, ours, floor, ratio } of rows)
    console.log(`${name}: ${ours.toFixed(0)} ms against ${floor.toFixed(0)} ms, ${ratio.toFixed(2)}`);
  for (const { name, early, late, ratio } of memory)
    console.log(`${name}: ${early.toFixed(0)} MB, at the end ${late.toFixed(0)} MB, ${ratio.toFixed(2)}`);
}
