// The rewriter by itself, built of its source.
import { mkdirSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

mkdirSync('.cache', { recursive: true });
const outfile = resolve(`.cache/rewriter-${process.pid}.mjs`);
await build({
  stdin: {
    contents: `export { rewrite } from './src/seam/rewrite/rewrite';
      export { findReferences } from './src/seam/rewrite/references';`,
    resolveDir: '.',
  },
  bundle: true,
  format: 'esm',
  platform: 'node',
  external: ['oxc-parser'],
  outfile,
});
export const { rewrite, findReferences } = await import(pathToFileURL(outfile).href);
rmSync(outfile);
