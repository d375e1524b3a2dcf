// Builds the package: its entries in both formats, their declarations, and what runners need.
import { chmod, copyFile, readFile, rm, writeFile } from 'node:fs/promises';
import { isBuiltin } from 'node:module';
import { resolve } from 'node:path';
import { build } from 'esbuild';
import { rollup } from 'rollup';
import { dts } from 'rollup-plugin-dts';
import { buildLibrary } from './library.mjs';

/** The published entries, by file name. */
export const entries = {
  index: 'src/index.ts',
  react: 'src/react/index.ts',
  vue: 'src/vue/index.ts',
  angular: 'src/angular/index.ts',
  jest: 'src/jest/index.ts',
  har: 'src/har/index.ts',
};
/** What rewritten files reach the modules they import through. */
const runtime = { seam: 'src/seam/index.ts' };
const external = [
  ...[
    'ajv',
    'ajv/*',
    'ajv-formats',
    'graphql',
    'yaml',
    'react',
    'react-dom',
    'react-dom/client',
    'react/jsx-runtime',
    'vue',
    'rxjs',
    '@angular/*',
  ],
  ...['simulacra', 'simulacra/*'],
];

await rm('dist', { recursive: true, force: true });
const shared = {
  outdir: 'dist',
  bundle: true,
  external,
  target: 'es2022',
  platform: 'neutral',
  mainFields: ['module', 'main'],
  jsx: 'automatic',
  legalComments: 'none',
  // A test runner reads these files again for every test file. Names stay, so that a stack can be read.
  minifyWhitespace: true,
  minifySyntax: true,
  sourcemap: false,
  logLevel: 'warning',
};
const patterns = 'urlpattern-polyfill/urlpattern';
const outside = [/^(ajv|ajv-formats|graphql|yaml|react|react-dom|vue|rxjs|simulacra|@angular)\b/, patterns];
// What makes tests of the files that declare states, in Jest.
const project = { 'jest-states': 'src/jest/project.ts' };
// What a sheet of states needs on the page itself.
// What a draft is looked at by while it is tried.
const ofDrafts = { 'draft-probe': 'src/draft/run/probe.ts' };
const onPage = { 'in-page': 'src/sheet/in-page.ts', live: 'src/sheet/live/index.ts' };
await buildLibrary({ ...entries, ...runtime, ...project, ...ofDrafts, ...onPage }, outside, 'dist');
// The URL Pattern standard, which few tests need and some platforms have, is a file of its own.
const patternsAlone = { ...shared, entryPoints: [{ in: patterns, out: 'parts/url-pattern' }] };
await build({ ...patternsAlone, format: 'esm' });
await build({ ...patternsAlone, format: 'cjs', outExtension: { '.js': '.cjs' } });

// What a page has of the runtime is served as one text.
await build({ ...shared, format: 'esm', entryPoints: [{ in: runtime.seam, out: 'seam-page' }] });

async function declare(out, input, external = outside) {
  const bundle = await rollup({
    ...{ input, external },
    plugins: [dts({ tsconfig: 'tsconfig.json', compilerOptions: { paths: {} } })],
    onwarn: (warning) => console.warn(warning.message),
  });
  await bundle.write({ file: `dist/${out}.d.ts` });
  await bundle.close();
  if (out !== 'vite') await copyFile(`dist/${out}.d.ts`, `dist/${out}.d.cts`);
}
for (const [out, input] of Object.entries(entries)) await declare(out, input);

const cli = { ...shared, platform: 'node', format: 'esm', target: 'node20', packages: 'external' };
// What only the commands need comes with them: whoever installs the library gets nothing else along.
const ofNode = {
  ...cli,
  packages: 'bundle',
  external: [
    ...external,
    './demo.js',
    'jsdom',
    'esbuild',
    'vite',
    'puppeteer-core',
    'oxc-parser',
    'oxc-resolver',
  ],
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url); const __dirname = import.meta.dirname;",
  },
};
await build({ ...ofNode, entryPoints: [{ in: 'src/cli/bin.ts', out: 'cli' }] });
await build({ ...cli, entryPoints: [{ in: 'examples/react-apiary/demo.tsx', out: 'demo' }] });
// The process that tries drafts, and what is refused there.
await build({
  ...{ ...cli, format: 'cjs', outExtension: { '.js': '.cjs' } },
  entryPoints: [
    { in: 'src/draft/run/child.ts', out: 'draft-child' },
    { in: 'src/draft/run/guard.ts', out: 'draft-guard' },
  ],
});
// A backend for people, of its own and within a dev server, and the page where they switch its states.
await build({
  ...ofNode,
  entryPoints: [
    { in: 'src/serve/index.ts', out: 'serve' },
    { in: 'src/serve/vite.ts', out: 'vite' },
  ],
});
await build({
  ...{ ...ofNode, banner: {}, format: 'cjs', outExtension: { '.js': '.cjs' } },
  entryPoints: [{ in: 'src/serve/index.ts', out: 'serve' }],
});
await build({
  ...shared,
  minifyIdentifiers: true,
  format: 'esm',
  entryPoints: [
    { in: 'src/serve/switchboard/panel.ts', out: 'switchboard' },
    { in: 'src/sheet/page/index.ts', out: 'sheet-page' },
  ],
});
// The page of a sheet of states holds its styles.
await build({ ...shared, entryPoints: [{ in: 'src/sheet/page/styles.css', out: 'sheet' }] });
for (const [out, input] of [
  ['serve', 'src/serve/index.ts'],
  ['vite', 'src/serve/vite.ts'],
])
  await declare(out, input, [...outside, 'vite', /^node:/]);

// What a runner needs to load a framework's files: a transformer each, and the configuration that names it.
const loaders = {
  ...cli,
  format: 'cjs',
  external: ['typescript', 'vue/*'],
  packages: 'bundle',
  outExtension: { '.js': '.cjs' },
};
await build({
  ...loaders,
  entryPoints: [
    ...['react', 'vue', 'angular'].flatMap((framework) => [
      { in: `src/transform/${framework}.ts`, out: `${framework}-transform` },
      { in: `src/transform/${framework}-config.ts`, out: `${framework}-jest` },
    ]),
    { in: 'src/transform/vue-resolve.ts', out: 'vue-resolve' },
  ],
  // As a runner reads it: plain properties, and no sign of a standard module.
  footer: { js: 'module.exports = { ...module.exports };' },
});
// The ways into the runners for the rewriter, which has a parser of its own.
const ofRunners = { ...cli, packages: 'bundle', external: ['vite'] };
const runnerNamed = (runner, out) => ({ in: `src/seam/runners/${runner}.ts`, out });
const filesOfJest = {
  // As a runner reads it: plain properties, and what is called itself.
  transform: 'module.exports = { ...module.exports };',
  jest: 'module.exports = module.exports.seams;',
};
for (const [runner, footer] of Object.entries(filesOfJest)) {
  await build({
    ...ofRunners,
    format: 'cjs',
    outExtension: { '.js': '.cjs' },
    entryPoints: [runnerNamed(runner, `seam-${runner}`)],
    footer: { js: footer },
  });
}
await build({
  ...ofRunners,
  entryPoints: [
    runnerNamed('node', 'seam-node'),
    runnerNamed('node-hooks', 'seam-node-hooks'),
    runnerNamed('vite', 'seam-vite'),
  ],
});
// What runs tests in a browser: the part of it in Jest, and the part of it on the page.
await build({ ...ofNode, entryPoints: [{ in: 'src/chromium/runner.ts', out: 'chromium-runner' }] });
await build({
  ...{ ...cli, format: 'cjs', outExtension: { '.js': '.cjs' } },
  entryPoints: [{ in: 'src/chromium/load.ts', out: 'chromium' }],
  footer: { js: 'module.exports = module.exports.ChromiumRunner;' },
});
await build({
  ...{ ...shared, format: 'iife', platform: 'browser', mainFields: ['main'], external: [] },
  minifyIdentifiers: true,
  define: { __dirname: '"/"', __filename: '"/"', global: 'globalThis', 'require.resolve': 'String' },
  inject: ['src/chromium/in-page/node/process.ts'],
  entryPoints: [{ in: 'src/chromium/in-page/index.ts', out: 'chromium-page' }],
  plugins: [
    {
      name: 'node',
      setup({ onResolve }) {
        onResolve({ filter: /.*/ }, ({ path }) => {
          const own = (name) => ({ path: resolve(`src/chromium/in-page/${name}.ts`) });
          const bare = path.replace(/^node:/, '');
          if (bare === '@jest/expect') return own('expect');
          if (bare === 'process' || bare === 'path') return own(`node/${bare}`);
          if (/^util\b/.test(bare)) return own('node/util');
          return bare === 'graceful-fs' || isBuiltin(bare) ? own('node/other') : undefined;
        });
      },
    },
  ],
});
await writeFile(
  'dist/chromium.d.cts',
  `/** Runs the test files of a project of Jest in Chromium: \`runner: 'simulacra/chromium'\`. */
declare class ChromiumRunner {
  constructor(globalConfig: object);
}
export = ChromiumRunner;
`,
);
await writeFile(
  'dist/seam-jest.d.cts',
  `/** A configuration of Jest, or a function that returns one. */
type Given<C> = C | (() => C | Promise<C>);
/** Wraps a configuration of Jest: modules are rewritten as they are loaded, so that they can be swapped. */
declare function seams<C extends object>(configuration?: Given<C>): C;
export = seams;
`,
);
await writeFile('dist/seam-node.d.ts', 'export {};\n');
await writeFile('dist/jest-states.d.cts', 'export {};\n');
await writeFile(
  'dist/seam-vite.d.ts',
  `import type { Plugin } from 'vite';
/** For pages that Vite serves: modules are rewritten as they are loaded, so that they can be swapped. */
export declare function seams(): Plugin;
`,
);
const configurationOf = (
  more,
) => `/** What Jest needs to load a framework's files: spread it into the configuration. */
declare const configuration: {
  testEnvironment: string;
  transform: Record<string, string>;
  transformIgnorePatterns: string[];${more}
};
export = configuration;
`;
await writeFile('dist/vue-jest.d.cts', configurationOf('\n  resolver: string;'));
await writeFile('dist/angular-jest.d.cts', configurationOf(''));
await writeFile('dist/react-jest.d.cts', configurationOf(''));
await chmod('dist/cli.js', 0o755);
if (!(await readFile('dist/cli.js', 'utf8')).startsWith('#!')) {
  await writeFile('dist/cli.js', `#!/usr/bin/env node\n${await readFile('dist/cli.js', 'utf8')}`);
}
