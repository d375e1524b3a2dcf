/** @jest-environment node */
import { join } from 'node:path';
import * as angular from '../src/transform/angular';
import * as react from '../src/transform/react';
import type { Transformed } from '../src/transform/transformer';
import * as vue from '../src/transform/vue';

/* `import.meta`, which CommonJS does not have, has its values in every kind of file that a preset compiles. */

const reads = 'export const read = [import.meta.env.MODE, import.meta.env.DEV, typeof import.meta.url];';
const ofPackage = join(__dirname, '../node_modules/some-package/index.mjs');
const own = (name: string) => join(__dirname, name);

const cases: [string, () => Transformed][] = [
  ['React: a script', () => react.process(reads, own('Board.tsx'))],
  ['React: a package', () => react.process(reads, ofPackage)],
  ['Vue: a script', () => vue.process(reads, own('board.ts'))],
  [
    'Vue: a single-file component',
    // Without semicolons: the script ends with what it exports.
    () => vue.process(`<script lang="ts">\n${reads}\nexport default {}\n</script>`, own('Board.vue')),
  ],
  [
    'Vue: a script of setup',
    () =>
      vue.process(
        `<script setup lang="ts">const mode = import.meta.env.MODE;</script><script lang="ts">${reads}</script><template>{{ mode }}</template>`,
        own('Board.vue'),
      ),
  ],
  ['Vue: a package', () => vue.process(reads, ofPackage)],
  ['Angular: a script', () => angular.process(reads, own('board.ts'))],
  ['Angular: a component', () => angular.process(`import '@angular/core'; ${reads}`, own('board.ts'))],
  ['Angular: a package', () => angular.process(reads, ofPackage)],
];

it.each(cases)('%s', (_, transform) => {
  const { code } = transform();
  const module = { exports: {} as { read?: unknown } };
  const run = new Function('module', 'exports', 'require', '__filename', code);
  run(module, module.exports, () => ({ defineComponent: (own: object) => own }), '/yard/board.js');
  expect(module.exports.read).toEqual(['test', true, 'string']);
});
