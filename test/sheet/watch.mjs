// Looks at a sheet that is served, saves a file, and tries a state by hand.
import { readFileSync, writeFileSync } from 'node:fs';
import { openBrowser } from '../../scripts/browser.mjs';

const [url, file] = process.argv.slice(2);
const { browser, close } = await openBrowser();
const page = await browser.newPage();
const errors = [];
page.on('pageerror', (error) => errors.push(error.message));
await page.goto(`${url}#${encodeURIComponent('src/HiveSign/loading')}`);
await page.waitForSelector('.look img');
const seen = { before: await page.$$eval('.tile', ({ length }) => length) };
const pictures = () => page.$eval('.look img', ({ src }) => src);
const before = await pictures();
const text = readFileSync(file, 'utf8');
writeFileSync(file, text.replace('<h2>Hive', '<h2>Beehive'));
await page.waitForFunction(
  (old) => document.querySelector('.look img')?.src !== old,
  { timeout: 20_000 },
  before,
);
seen.redrawn = true;
writeFileSync(file, text);
await page.waitForFunction(
  (old) => document.querySelector('.look img')?.src !== old,
  { timeout: 20_000 },
  await pictures(),
);
// What is drawn has come to an end.
await new Promise((resolve) => setTimeout(resolve, 1500));
// A page of another origin may not follow along, and nothing outside of the sheet is given out.
const other = await browser.newPage();
await other.goto('data:text/html,<p>other</p>');
seen.others = await other.evaluate(
  (address) =>
    fetch(address).then(
      () => 200,
      () => 403,
    ),
  `${url}events`,
);
const [link] = await page.$$('.bar a');
const alone = await browser.newPage();
alone.on('pageerror', (error) => errors.push(error.message));
await alone.goto(await link.evaluate(({ href }) => href));
const panel = (expression) =>
  alone.evaluate(
    `(() => { const root = [...document.documentElement.children].map((one) => one.shadowRoot).find(Boolean); return ${expression}; })()`,
  );
const wait = (expression) =>
  alone.waitForFunction(
    `(() => { const root = [...document.documentElement.children].map((one) => one.shadowRoot).find(Boolean); return root && ${expression}; })()`,
  );
await wait('root.querySelector(".waiting span")');
seen.waits = await panel('root.querySelector(".waiting span").textContent');
await panel(
  '[...root.querySelectorAll(".waiting button")].find(({ textContent }) => /loaded/.test(textContent)).click()',
);
await alone.waitForFunction(() => /Anemone/.test(document.querySelector('h2').textContent));
seen.released = await alone.$eval('h2', ({ textContent }) => textContent);
seen.props = await panel('[...root.querySelectorAll(".props code")].map(({ textContent }) => textContent)');
await panel(
  '(() => { const field = root.querySelector(".props input"); field.value = "h2"; field.dispatchEvent(new Event("input")); })()',
);
await wait(
  '/h2/.test(root.querySelector("details pre").textContent) || /h2/.test(root.querySelector(".trouble").textContent)',
);
seen.changed = (
  await panel('root.querySelector("details pre").textContent + root.querySelector(".trouble").textContent')
).match(/GET \/api\/hives\/h2/)?.[0];
await close();
console.log(JSON.stringify({ ...seen, errors }));
process.exit(0);
