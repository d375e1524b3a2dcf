// Opens a sheet as a file, as a person would, and prints what is to be seen.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';
import { openBrowser } from '../../scripts/browser.mjs';

const [file] = process.argv.slice(2);
const address = pathToFileURL(file).href;
const { browser, close } = await openBrowser();
const page = await browser.newPage();
const [errors, requests] = [[], []];
page.on('pageerror', (error) => errors.push(error.message));
page.on('request', (request) => {
  if (!/^(file|data):/.test(request.url())) requests.push(request.url());
});
await page.goto(address);
const text = (selector) => page.$eval(selector, ({ textContent }) => textContent.replace(/\s+/g, ' ').trim());
const tiles = () => page.$$eval('.tile .name', (names) => names.map(({ textContent }) => textContent));
const seen = {
  counts: await page.$$eval('.counts span', (all) => all.map(({ textContent }) => textContent).join(' ')),
};
seen.tiles = await tiles();
await page.waitForFunction(() =>
  [...document.querySelectorAll('.tile img')].every((image) => image.naturalWidth > 0),
);
seen.drawn = await page.$$eval('.tile img', ({ length }) => length);
await page.keyboard.press('/');
await page.keyboard.type('sign fail');
seen.found = await tiles();
for (let letter = 0; letter < 9; letter++) await page.keyboard.press('Backspace');
await (await page.$$('.tile')).at(-1).focus();
await page.keyboard.press('Enter');
await page.waitForSelector('dialog[open]');
seen.opened = await text('dialog h2');
seen.address = await page.evaluate('location.hash');
seen.text = (await text('.facts')).includes('<b>Anemone</b>');
seen.markup = await page.$$eval(
  'b',
  (found) => found.filter(({ textContent }) => textContent === 'Anemone').length,
);
await page.keyboard.press('Tab');
await page.focus('.bar button');
await page.keyboard.press('ArrowRight');
seen.after = await text('dialog h2');
await page.evaluate(() => [...document.querySelectorAll('[name=screen]')].at(-2).click());
seen.dark = await page.$eval('.look img', (image) => image.decode().then(() => image.naturalWidth));
await page.keyboard.press('Escape');
await page.waitForFunction('document.querySelector("dialog").open === false && location.hash === ""');
seen.closed = true;
await page.goto('about:blank');
await page.goto(`${address}#${encodeURIComponent('src/HiveSign/failed')}`);
seen.linked = await text('dialog[open] h2');
await page.evaluate(readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8'));
seen.problems = await page.evaluate(
  'axe.run(document).then(({ violations }) => violations.map(({ id, nodes }) => id + nodes.map((node) => node.html)))',
);
await close();
console.log(JSON.stringify({ ...seen, requests, errors }));
process.exit(0);
