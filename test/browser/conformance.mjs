// Runs the specification of one framework in a real browser, from files as Vite serves them, and prints as JSON
// what failed.
import { createRequire } from 'node:module';
import vue from '@vitejs/plugin-vue';
import { build } from 'esbuild';
import { createServer } from 'vite';
import { seams } from '../../dist/seam-vite.js';
import { openBrowser } from '../../scripts/browser.mjs';

const [framework, only = ''] = process.argv.slice(2);
const here = process.cwd();
const angular = createRequire(import.meta.url)('../../dist/angular-transform.cjs');
const isNode = /^(node:.*|path|url|process|module|util\/types|graceful-fs)$/;
// What only Node has, as far as anything asks for it in a page.
const node = {
  path: 'module.exports = { sep: "/", ...Object.fromEntries(["resolve", "join", "relative", "dirname", "basename"].map((name) => [name, String])) }',
  'util/types': 'exports.isPromise = (value) => typeof value?.then === "function"',
  'node:vm': 'export const runInNewContext = () => () => { throw new Error("a page cannot collect") }',
  'node:v8': 'export const setFlagsFromString = () => undefined',
  'node:http': 'export const createServer = () => { throw new Error("a page has no server") }',
  'node:net': 'export const connect = () => undefined',
};

/** `describe`, `it` and `expect`, for a page. */
const runner = await build({
  entryPoints: [`${here}/test/browser/conformance/in-page.mjs`],
  bundle: true,
  write: false,
  define: { __dirname: '"/"', global: 'globalThis' },
  banner: {
    js: 'globalThis.process = { env: {}, cwd: () => "/", hrtime: { bigint: ((time) => () => BigInt(Math.round(time() * 1e6)))(performance.now.bind(performance)) } };',
  },
  plugins: [
    {
      name: 'node',
      setup({ onResolve, onLoad }) {
        onResolve({ filter: isNode }, ({ path }) => ({ path, namespace: 'node' }));
        onLoad({ filter: /.*/, namespace: 'node' }, ({ path }) => ({ contents: node[path] ?? '' }));
      },
    },
  ],
});

const server = await createServer({
  configFile: false,
  root: here,
  cacheDir: `node_modules/.vite-conformance/${framework}`,
  appType: 'custom',
  logLevel: 'error',
  plugins: [
    vue(),
    seams(),
    {
      name: 'node',
      enforce: 'pre',
      resolveId: (id) => (isNode.test(id) ? `\0${id}` : undefined),
      load: (id) => node[id.slice(1)],
      // Decorators and signals, as in Jest.
      transform: (code, id) =>
        /\/test\/.*\.ts$/.test(id) && code.includes("'@angular/")
          ? angular.process(code, id, { supportsStaticESM: true })
          : undefined,
      configureServer({ middlewares }) {
        middlewares.use((request, response, next) => {
          if (request.url !== '/') return next();
          response.setHeader('content-type', 'text/html');
          response.end('<!doctype html><html lang="en"><head></head><body></body></html>');
        });
      },
    },
  ],
  resolve: {
    alias: [
      // With what compiles templates.
      { find: /^vue$/, replacement: 'vue/dist/vue.esm-bundler.js' },
      { find: /^simulacra$/, replacement: `${here}/dist/index.js` },
      { find: /^simulacra\/(.+)$/, replacement: `${here}/dist/$1.js` },
    ],
  },
  define: {
    __VUE_OPTIONS_API__: 'true',
    __VUE_PROD_DEVTOOLS__: 'false',
    __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: 'false',
  },
  optimizeDeps: {
    entries: [`test/browser/conformance/${framework}.ts`],
    // Found only when it is needed, which would reload the page.
    include: ['graphql', 'ajv', 'ajv/dist/2020.js', 'ajv-formats', 'yaml'],
  },
  server: { host: '127.0.0.1', port: 0, hmr: false },
});
await server.listen();
const { browser, close } = await openBrowser();
try {
  const page = await browser.newPage();
  if (process.env.SHOW) page.on('console', (message) => console.error(message.text().slice(0, 300)));
  page.on('pageerror', (error) => console.error(error.message.slice(0, 500)));
  await page.goto(`http://127.0.0.1:${server.httpServer.address().port}/`);
  await page.addScriptTag({ content: runner.outputFiles[0].text });
  await page.evaluate(`import('/test/browser/conformance/${framework}.ts')`);
  console.log(JSON.stringify(await page.evaluate(`runTests(${JSON.stringify(only)})`)));
} finally {
  await close();
  await server.close();
}
process.exit(0);
