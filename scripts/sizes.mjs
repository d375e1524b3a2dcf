// The size budget of each entry: what a test file pays to load it, minified and compressed.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { transformSync } from 'esbuild';

/** Kilobytes (of 1,000 bytes), minified and compressed with gzip. */
const budget = {
  'index.js': 11.5,
  'react.js': 48,
  'vue.js': 49,
  'angular.js': 52,
  'jest.js': 9,
  'seam.js': 12,
};

/** Prints each entry's size against its budget. @returns whether all keep to it */
export function printSizes() {
  return Object.entries(budget)
    .map(([file, most]) => {
      const code = readFileSync(`dist/${file}`, 'utf8');
      const packed = gzipSync(transformSync(code, { minify: true }).code).length / 1000;
      const kept = packed <= most;
      console.log(
        `${kept ? 'ok    ' : 'failed'}  size  ${file.padEnd(10)} ${packed.toFixed(1)} of ${most} kB compressed, ${(code.length / 1000).toFixed(0)} kB as it is`,
      );
      return kept;
    })
    .every(Boolean);
}
