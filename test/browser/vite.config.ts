// How the specification is served to a browser: each framework's files as in Jest, and what stands for Node's modules.
import { createRequire } from 'node:module';
import vue from '@vitejs/plugin-vue';
import { defineConfig, type Plugin } from 'vite';

interface Transformer {
  process(code: string, file: string, options: object): { code: string };
}
const angular = createRequire(import.meta.url)('../../dist/angular-transform.cjs') as Transformer;

// What only Node has, as far as anything asks for it in a page.
const node: Readonly<Record<string, string>> = {
  'node:vm': 'export const runInNewContext = () => () => { throw new Error("a page cannot collect") }',
  'node:v8': 'export const setFlagsFromString = () => undefined',
  'node:http': 'export const createServer = () => { throw new Error("a page has no server") }',
  'node:net': 'export const connect = () => undefined',
};
const standIns: Plugin = {
  name: 'node',
  enforce: 'pre',
  resolveId: (id) => (id.startsWith('node:') ? `\0${id}` : undefined),
  load: (id) => (id.startsWith('\0node:') ? (node[id.slice(1)] ?? 'export default {}') : undefined),
  // Decorators and signals, as in Jest.
  transform: (code, id) =>
    /\/test\/.*\.ts$/.test(id) && code.includes("'@angular/")
      ? angular.process(code, id, { supportsStaticESM: true })
      : undefined,
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue(), standIns],
  // With what compiles templates.
  resolve: { alias: [{ find: /^vue$/, replacement: 'vue/dist/vue.esm-bundler.js' }] },
  define: {
    __VUE_OPTIONS_API__: 'true',
    __VUE_PROD_DEVTOOLS__: 'false',
    __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: 'false',
  },
});
