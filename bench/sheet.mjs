// A sheet of 100 states against bare pictures of the same pages, and the tests of a project in a browser against the
// same in a simulated page: whole commands, one after the other in turns.
import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { middle } from './measure.mjs';

const place = '.cache/bench-sheet';
const write = (file, text) => {
  mkdirSync(`${place}/${file}`.replace(/\/[^/]*$/, ''), { recursive: true });
  writeFileSync(`${place}/${file}`, text);
};

function writeProject(files, states) {
  rmSync(place, { recursive: true, force: true });
  write(
    'vite.config.mjs',
    "import react from '@vitejs/plugin-react';\nexport default { root: import.meta.dirname, plugins: [react()] };\n",
  );
  const names = Array.from({ length: states }, (_, at) => `s${at}`);
  for (let file = 0; file < files; file++) {
    write(
      `src/Card${file}.jsx`,
      `import { useEffect, useState } from 'react';
export function Card${file}({ name }) {
  const [weight, setWeight] = useState();
  useEffect(() => void fetch('/api/' + name).then(async (answer) => setWeight(await answer.json())), [name]);
  return <article><h2>{name} {${file}}</h2><p>{weight ?? 'Loading'}</p><ul>{Array.from({ length: 12 }, (_, at) => <li key={at}>Frame {at}</li>)}</ul></article>;
}
`,
    );
    write(
      `src/Card${file}.states.jsx`,
      `import { text } from 'simulacra';
import { states } from 'simulacra/react';
import { Card${file} } from './Card${file}';
export default states(Card${file}, {}, {
${names.map((name, at) => `  ${name}: { props: { name: '${name}' }, network: { 'GET /api/${name}': ${at + 1} }, shows: [text('${name} ${file}')] },`).join('\n')}
});
`,
    );
  }
  write('shots.mjs', bare(files, names));
}

/** The same pages, rendered by the framework alone and photographed by the driver alone. */
const bare = (files, names) => `import { mkdirSync, writeFileSync } from 'node:fs';
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
const page = await browser.newPage();
await page.setViewport({ width: 600, height: 800 });
mkdirSync(import.meta.dirname + '/shots', { recursive: true });
for (let file = 0; file < ${files}; file++) {
  await page.goto('http://127.0.0.1:' + server.httpServer.address().port + '/');
  await page.evaluate(async (file) => {
    const [{ createRoot, createElement }, module] = await Promise.all([import('/entry.js'), import('/src/Card' + file + '.jsx')]);
    globalThis.show = (name) => { globalThis.root?.unmount(); globalThis.root = createRoot(document.querySelector('#root')); root.render(createElement(module['Card' + file], { name })); };
  }, file);
  for (const name of ${JSON.stringify(names)}) {
    await page.evaluate((one) => show(one), name);
    await page.waitForFunction(() => document.querySelector('p') && document.querySelector('p').textContent !== 'Loading');
    const { width, height } = await page.evaluate(() => document.documentElement.getBoundingClientRect().toJSON());
    writeFileSync(import.meta.dirname + '/shots/' + file + name + '.png', await page.screenshot({ clip: { x: 0, y: 0, width, height } }));
  }
}
await close();
await server.close();
process.exit(0);
`;

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

export function sheeting() {
  writeProject(10, 10);
  const cli = ['../../dist/cli.js', 'sheet', '--scheme', 'light', '--no-accessibility', '--out', 'sheet'];
  const ours = () => timed(cli[0], cli.slice(1), place);
  const floor = () => timed('shots.mjs', [], place);
  ours();
  floor();
  const rows = [
    {
      name: 'a sheet of 100 states',
      against: 'bare pictures of the same pages',
      goal: 1.2,
      ...inTurns(ours, floor, 5),
    },
  ];
  rmSync(place, { recursive: true, force: true });
  const jest = createRequire(import.meta.url).resolve('jest/bin/jest.js');
  const run = (project) => () => timed(jest, ['--selectProjects', project, '--silent'], '.');
  const pair = [run('react-example-chromium'), run('example')];
  for (const one of pair) one();
  rows.push({
    name: "the React example's tests in Chromium",
    against: 'in a simulated page',
    ...inTurns(...pair, 3),
  });
  return rows;
}

if (process.argv[1]?.endsWith('sheet.mjs'))
  for (const row of sheeting())
    console.log(
      `${row.name}: ${(row.ours / 1000).toFixed(2)} s against ${(row.floor / 1000).toFixed(2)} s, ${row.ratio.toFixed(2)}`,
    );
