// Opens an example in a real browser, on its simulated backend, and prints what a person sees of it.
import { createServer } from 'vite';
import { seams } from '../../dist/seam-vite.js';
import { openBrowser } from '../../scripts/browser.mjs';

const [config, how] = process.argv.slice(2);
const plugins = how === 'rewritten' ? [seams()] : [];
const server = await createServer({ configFile: config, plugins, server: { port: 0 }, logLevel: 'error' });
await server.listen();
const { browser, close } = await openBrowser();
const page = await browser.newPage();
const problems = [];
page.on('pageerror', (error) => problems.push(error.message));
page.on('console', (message) => message.type() === 'error' && problems.push(message.text()));

const { port } = server.httpServer.address();
await page.goto(`http://127.0.0.1:${port}/`);
const see = (selector) =>
  page.waitForSelector(selector).then((found) => found.evaluate((element) => element.textContent.trim()));
const seen = { gate: await see('form h2') };
await page.type('form input', 'Imke');
await page.keyboard.press('Enter');
await see('article');
seen.hives = await page.$$eval('article h3', (headings) => headings.map(({ textContent }) => textContent));
await page.type('input[type=search]', 'bor');
await page.waitForFunction(() => document.querySelectorAll('article').length === 1);
seen.found = await see('article h3');
await page.click('article button');
seen.hive = await see('.detail h2');
seen.scale = (await see('.scale')).replace(/[\d.]+/, '…').replace(/\s+/g, ' ');
await page.type('.inspection input', '4');
await page.click('.inspection [type=submit]');
seen.logged = await see('.inspection [role=status]');
await page.evaluate(() => [...document.querySelectorAll('nav button')].at(-1).click());
seen.empty = await see('.empty');
// A person switches a state from the page.
await page.evaluate(() => {
  const { shadowRoot } = document.querySelector('simulacra-switchboard');
  shadowRoot.querySelector('.opener').click();
});
await page.waitForFunction(() => {
  const { shadowRoot } = document.querySelector('simulacra-switchboard');
  const failing = shadowRoot.querySelector('[aria-label="State of QUERY InFlower"] [value=failing]');
  failing?.click();
  return failing?.checked;
});
await page.waitForFunction(() =>
  /1 switched/.test(document.querySelector('simulacra-switchboard').shadowRoot.textContent),
);
problems.push(...(await page.$$eval('.forage [role=alert]', (found) => found.map(() => 'failed too early'))));
const before = problems.length;
await page.select('.forage select', await page.$eval('.forage option:last-child', ({ value }) => value));
seen.failing = await see('.forage [role=alert] p');
// The browser itself tells of the status.
problems.splice(before, 1);
await close();
await server.close();
console.log(JSON.stringify({ seen, problems }));
process.exit(0);
