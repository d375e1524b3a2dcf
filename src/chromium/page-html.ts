import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';
import { runnerPath } from './told';

/** The page that tests run on. */
export const printTestsHtml = (): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<link rel="icon" href="data:,">
<script src="${runnerPath}"></script>
</head>
<body></body>
</html>
`;

// Its functions, imported by name as from the runner's own package.
const globals = '@jest/globals';
const names = [
  'describe',
  'it',
  'test',
  'fdescribe',
  'xdescribe',
  'fit',
  'xit',
  'xtest',
  'expect',
  'jest',
].concat(['beforeAll', 'beforeEach', 'afterAll', 'afterEach']);

/** Serves describe, it and expect to the page, as globals and as a module. */
export function serveRunner(folder: string): Plugin {
  return {
    name: 'simulacra-tests',
    enforce: 'pre',
    resolveId: (id) => (id === globals ? `\0${globals}` : undefined),
    load: (id) =>
      id === `\0${globals}`
        ? `export const { ${names.join(', ')} } = globalThis.simulacraGlobals;`
        : undefined,
    config: () => ({ optimizeDeps: { exclude: [globals] } }),
    configureServer({ middlewares }) {
      middlewares.use((request, response, next) => {
        if (request.url !== runnerPath) return next();
        response.setHeader('content-type', 'text/javascript; charset=utf-8');
        response.setHeader('cache-control', 'max-age=3600');
        response.end(readFileSync(join(folder, 'chromium-page.js')));
      });
    },
  };
}
