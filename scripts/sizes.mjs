// The size budget of each entry with all it imports: what a page pays to load it, minified and compressed.
import { readFileSync } from 'node:fs';
import { transformSync } from 'esbuild';
import { dirname, join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** Kilobytes (of 1,000 bytes), minified and compressed with gzip. */
const budget = {
  'index.js': 90.5,
  'react.js': 123,
  'vue.js': 124.5,
  'angular.js': 127.5,
  'jest.js': 45.5,
  'seam.js': 12,
};

/** An entry and what it imports, each file once. */
function filesOf(file, found = new Set()) {
  if (found.has(file)) return found;
  found.add(file);
  for (const [, other] of readFileSync(file, 'utf8').matchAll(/(?:from|import) ?"(\.[^"]+)"/g))
    filesOf(join(dirname(file), other), found);
  return found;
}

/** Prints each entry's size against its budget. @returns whether all keep to it */
export function printSizes() {
  return Object.entries(budget)
    .map(([file, most]) => {
      const codes = [...filesOf(`dist/${file}`)].map((one) => readFileSync(one, 'utf8'));
      const packed =
        gzipSync(codes.map((code) => transformSync(code, { minify: true }).code).join('\n')).length / 1000;
      const kept = packed <= most;
      console.log(
        `${kept ? 'ok    ' : 'failed'}  size  ${file.padEnd(10)} ${packed.toFixed(1)} of ${most} kB compressed, ${(codes.join('').length / 1000).toFixed(0)} kB as it is`,
      );
      return kept;
    })
    .every(Boolean);
}
