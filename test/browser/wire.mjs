// Prints as JSON what a page observes of each carrier: of the browser's own with a server on this machine, of
// ours in the same browser, and of ours in a simulated page.
import { mkdirSync, writeFileSync } from 'node:fs';
import { Script } from 'node:vm';
import { build } from 'esbuild';
import { JSDOM, VirtualConsole } from 'jsdom';
import { openBrowser } from '../../scripts/browser.mjs';

const [only = ''] = process.argv.slice(2);

const bundle = async (contents, options) => {
  const { outputFiles } = await build({
    stdin: { contents, resolveDir: `${process.cwd()}/test/browser` },
    ...{ bundle: true, write: false, format: 'iife', target: 'es2022', ...options },
  });
  return outputFiles[0].text;
};

/** Runs in a page: each case, a few at a time; where `open` is given, within our network. */
const runner = `
  import { cases } from './wire/cases.mjs';
  export async function run(only, bench, match) {
    const chosen = Object.entries(cases).filter(([name]) => name.includes(only));
    const seen = {};
    const one = async ([name, work]) => {
      try {
        seen[name] = (await (bench ? bench(work) : work(match))) ?? null;
      } catch (error) {
        seen[name] = 'threw ' + error;
      }
    };
    if (bench) for (const each of chosen) await one(each);
    else while (chosen.length > 0) await Promise.all(chosen.splice(0, 4).map(one));
    return JSON.stringify(seen);
  }
`;
const really = `${runner}
  // What a route makes of an address: the groups that have names.
  const match = (pattern, path) => {
    const found = new URLPattern({ pathname: pattern }).exec(new URL(path, document.baseURI).href);
    if (!found) return 'no match';
    const named = Object.entries(found.pathname.groups).filter(([name, value]) => !/^\\d/.test(name) && value !== undefined);
    return Object.fromEntries(named.map(([name, value]) => [name, decodeURIComponent(value)]));
  };
  window.run = (only) => run(only, undefined, match);`;
const ours = `${runner}
  import { open } from '../../src/index';
  import { makeRoutes } from './wire/routes.mjs';
  const match = async (pattern, path) => {
    const bench = await open({ network: { [\`GET \${pattern}\`]: (_, params) => params } });
    try {
      const response = await bench.run(() => fetch(path).catch(() => undefined));
      return response ? await response.json() : 'no match';
    } finally {
      await bench.takeDown().catch(() => undefined);
    }
  };
  window.run = (only) => run(only, async (work) => {
    if (work.length > 0) return work(match);
    const bench = await open({ network: makeRoutes(), logs: 'allowed', leaks: 'allowed' });
    try {
      return await bench.run(work);
    } finally {
      await bench.takeDown().catch(() => undefined);
    }
  });`;

const served = await bundle(
  `export { serve } from '../../src/serve/server';
   export { makeRoutes } from './wire/routes.mjs';`,
  {
    format: 'esm',
    platform: 'node',
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
    },
  },
);
mkdirSync('.cache', { recursive: true });
writeFileSync('.cache/wire-server.mjs', served);
const { serve, makeRoutes } = await import(`${process.cwd()}/.cache/wire-server.mjs`);

const server = await serve({
  network: {
    ...makeRoutes(),
    'GET /page': () =>
      new Response('<!doctype html><title>Wire</title>', { headers: { 'content-type': 'text/html' } }),
  },
});
const { browser, close } = await openBrowser();
try {
  const inBrowser = async (code) => {
    const page = await browser.newPage();
    await page.goto(`${server.url}/page`);
    await page.evaluate(await bundle(code));
    return JSON.parse(await page.evaluate(`run(${JSON.stringify(only)})`));
  };
  const simulated = async () => {
    const dom = new JSDOM('<!doctype html><title>Wire</title>', {
      ...{ url: `${server.url}/page`, runScripts: 'dangerously', pretendToBeVisual: true },
      virtualConsole: new VirtualConsole(),
    });
    // What a runner hands to a simulated page.
    Object.assign(dom.window, { Buffer, TextDecoder, TextEncoder, structuredClone });
    new Script(await bundle(ours)).runInContext(dom.getInternalVMContext());
    const seen = JSON.parse(await dom.window.run(only));
    dom.window.close();
    return seen;
  };
  const seen = { real: await inBrowser(really), ours: await inBrowser(ours), simulated: await simulated() };
  const names = Object.keys(seen.ours);
  const rows = names.map((name) => ({
    name,
    real: seen.real[name],
    ours: seen.ours[name],
    simulated: seen.simulated[name],
  }));
  console.log(JSON.stringify(rows));
} finally {
  await close();
  await server.close();
}
process.exit(0);
