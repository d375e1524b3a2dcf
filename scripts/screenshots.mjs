// Makes docs/screenshots anew from the demo data: the example's pages and the main commands' output.
import { spawn, spawnSync } from 'node:child_process';
import { copyFileSync, mkdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createServer } from 'vite';
import { openBrowser } from './browser.mjs';

const folder = 'docs/screenshots';
// `node scripts/screenshots.mjs terminal` makes only those of the commands, `… sheet` only those of the sheet.
const [, , part] = process.argv;
const frameworks = part ? [] : ['react', 'vue', 'angular'];
const { browser, close } = await openBrowser();
for (const framework of frameworks) {
  const server = await createServer({
    configFile: `examples/${framework}-apiary/vite.config.ts`,
    server: { port: 0 },
    logLevel: 'error',
  });
  await server.listen();
  const page = await browser.newPage();
  await page.goto(`http://127.0.0.1:${server.httpServer.address().port}/`);
  await page.setViewport({ width: 1280, height: 800 });
  // The three look alike; one of them shows all of it.
  const picture = (name) =>
    framework === 'react' || name === ''
      ? page.screenshot({ path: `${folder}/${framework}-apiary${name}.png` })
      : undefined;
  await page.waitForSelector('input');
  await picture('-gate');
  await page.type('form input', 'Imke');
  await page.keyboard.press('Enter');
  await page.waitForSelector('article');
  await picture('');
  await page.evaluate(() => [...document.querySelectorAll('nav button')][1].click());
  await page.waitForSelector('[role=alert]');
  await picture('-failed');
  await page.evaluate(() => [...document.querySelectorAll('nav button')][0].click());
  await page.waitForSelector('article button');
  await page.click('article button');
  await page.waitForSelector('.scale');
  await page.type('.inspection input', '60');
  await page.click('.inspection [type=submit]');
  await page.waitForSelector('.inspection [role=alert]');
  await picture('-hive');
  if (framework === 'react') await switchboard(page);
  await server.close();
}
if (part !== 'terminal') {
  await surveyPage();
  await sheet();
}
await close();
if (part === 'sheet') process.exit(0);

/** The graph of what the shell of the React example leans on. */
async function surveyPage() {
  const file = join(tmpdir(), 'survey.html');
  const asked = ['survey', 'YardShell', '--html', file];
  spawnSync(process.execPath, ['../../dist/cli.js', ...asked], {
    cwd: 'examples/react-apiary',
    stdio: 'inherit',
  });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(pathToFileURL(file).href);
  await page.screenshot({ path: `${folder}/survey-page.png` });
  await page.close();
  rmSync(file);
}

/** The sheet of all states of the examples: as a file, and as it is watched. */
async function sheet() {
  spawnSync(process.execPath, ['../dist/cli.js', 'sheet'], { cwd: 'examples', stdio: 'inherit' });
  const shown = async (name, address, screen, prepare = () => undefined) => {
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800, ...screen });
    await page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: name.includes('dark') ? 'dark' : 'light' },
    ]);
    await page.goto(address);
    await prepare(page);
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await page.screenshot({ path: `${folder}/${name}.png` });
    await page.close();
  };
  const file = pathToFileURL('examples/state-sheet/index.html').href;
  const phone = { width: 390, height: 844 };
  const choose = (page) => page.evaluate(() => document.querySelector('[name=scheme][value=dark]').click());
  // Begins with the example whose pages are shown elsewhere.
  const find = (page) => page.type('.tools input', 'react-apiary/src/hive');
  await shown('sheet', file, {}, find);
  await shown('sheet-dark', file, {}, async (page) => {
    await find(page);
    await choose(page);
  });
  await shown('sheet-phone', file, phone, find);
  const files = ['react-apiary/src/HiveBoard.states.tsx', 'react-apiary/src/HiveCard.states.tsx'];
  const watching = spawn(process.execPath, ['../dist/cli.js', 'sheet', ...files, '--watch', '--port', '0'], {
    cwd: 'examples',
  });
  let said = '';
  watching.stdout.on('data', (text) => (said += String(text)));
  while (!/states drawn/.test(said)) await new Promise((resolve) => setTimeout(resolve, 100));
  const [url] = /http:\/\/localhost:\d+\//.exec(said);
  const state = encodeURIComponent('react-apiary/src/HiveBoard/loading');
  await shown('sheet-watch', `${url}#${state}`, {}, async (page) => {
    await page.waitForSelector('dialog[open]');
    await page.evaluate(() =>
      [...document.querySelectorAll('.bar button')].find((one) => one.textContent === 'Try it').click(),
    );
  });
  watching.kill('SIGTERM');
}

/** The board, and a page that waits for a route which is held. */
async function switchboard(page) {
  await page.evaluate(() =>
    document.querySelector('simulacra-switchboard').shadowRoot.querySelector('.opener').click(),
  );
  await page.waitForFunction(() => {
    const { shadowRoot } = document.querySelector('simulacra-switchboard');
    const held = shadowRoot.querySelector('[aria-label="State of GET /api/hives"] [value=held]');
    held?.click();
    return held?.checked;
  });
  await page.evaluate(() => [...document.querySelectorAll('nav button')].at(-1).click());
  await page.waitForFunction(() =>
    /1 waiting/.test(document.querySelector('simulacra-switchboard').shadowRoot.textContent),
  );
  await page.screenshot({ path: `${folder}/switchboard.png` });
}

// The terminal is a real one, in a window of its own on a display without a screen.
const terminal = (name, command, seconds = 9, rows = 44) => {
  const script = `xterm -geometry 102x${rows} -fa 'DejaVu Sans Mono' -fs 11 -bg '#fdfaf3' -fg '#2b2416' -e bash -c "${command}; sleep 90" & sleep ${seconds}; import -window root ${folder}/${name}.png`;
  const { status } = spawnSync(
    'xvfb-run',
    ['-a', '-s', `-screen 0 924x${rows * 19 - 4}x24`, 'bash', '-c', script],
    {
      stdio: 'inherit',
    },
  );
  if (status !== 0) console.error(`no picture of ${name}: xvfb, xterm and imagemagick are needed`);
};
terminal('demo', 'node dist/cli.js demo');
const asking = [
  'GET /api/hives?yard=north',
  'GET /api/hivs',
  'POST /api/hives/h1/inspections -H content-type:application/json -d {}',
].map((one) => one.replace(/^(\S+) (\S+)/, 'curl -s -o /dev/null -X $1 127.0.0.1:4180$2'));
terminal(
  'serve',
  `cd examples/shared; (sleep 3; ${asking.join('; ')}) & node ../../dist/cli.js serve --state 'QUERY InFlower=slow 5s'`,
);
/** Drafts of some components of the React example, and of one that shows nothing. */
function draftFolder() {
  const copy = 'examples/drafted-apiary';
  const files = ['HiveCard', 'HiveBoard', 'InspectionForm', 'NoteField', 'NotePad', 'ScaleFeed', 'YardGate'];
  const helpers = ['inspections.tsx', 'session.tsx', 'units.ts', 'useHives.ts', 'useScale.ts'];
  for (const folder of ['src', 'node_modules']) mkdirSync(`${copy}/${folder}`, { recursive: true });
  for (const name of [...files.map((file) => `${file}.tsx`), ...helpers])
    copyFileSync(`examples/react-apiary/src/${name}`, `${copy}/src/${name}`);
  writeFileSync(`${copy}/package.json`, '{}');
  symlinkSync(resolve('.'), `${copy}/node_modules/simulacra`);
  writeFileSync(`${copy}/src/HiveGap.tsx`, 'export const HiveGap = () => <div className="gap" />;\n');
  terminal('draft-all', `cd ${copy}; clear; node ../../dist/cli.js draft --all src`, 40, 16);
  rmSync(copy, { recursive: true });
}
const failing = (file) =>
  `npx jest --colors --config scripts/showcase/jest.config.cjs ${file} 2>&1 | grep -v npm`;
terminal('survey', 'cd examples/react-apiary; node ../../dist/cli.js survey HiveDetail');
terminal('draft', 'cd examples/react-apiary; clear; node ../../dist/cli.js draft HiveCard --print 2>&1', 22);
draftFolder();
terminal('failure', failing('showcase/board.tsx'));
terminal('states', failing('showcase/board-states'));
process.exit(0);
