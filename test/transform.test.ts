/** @jest-environment node */
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
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

it('what a package of Angular leaves to be compiled finds the compiler, whatever is loaded first', () => {
  const code = "import * as i0 from '@angular/core';\nexport const made = i0.ɵɵngDeclareFactory({});";
  const file = join(__dirname, '../node_modules/yard-store/index.mjs');
  expect(angular.process(code, file).code).toMatch(/^'use strict'; require\('@angular\/compiler'\);/);
  expect(angular.process(code, file, { supportsStaticESM: true }).code).toContain(
    `import '@angular/compiler'; ${code}`,
  );
  expect(angular.process('export const made = 1;', file).code).not.toContain('@angular/compiler');
});

it.each(cases)('%s', (_, transform) => {
  const { code } = transform();
  const module = { exports: {} as { read?: unknown } };
  const run = new Function('module', 'exports', 'require', '__filename', code);
  run(module, module.exports, () => ({ defineComponent: (own: object) => own }), '/yard/board.js');
  expect(module.exports.read).toEqual(['test', true, 'string']);
});

describe('a component of Vue whose props are declared elsewhere', () => {
  const folder = mkdtempSync(join(__dirname, '../node_modules/.types-'));
  const cacheDirectory = join(folder, 'kept');
  const options = { config: { cacheDirectory } };
  const file = join(folder, 'HiveCard.vue');
  const code = `<script setup lang="ts">\nimport type { Hive } from './hive';\ndefineProps<Hive>();\n</script>`;
  const write = (name: string, text: string) => writeFileSync(join(folder, name), text);
  // As Jest does: what is kept under a key is not compiled again.
  const results = new Map<string, string>();
  const run = () => {
    const key = vue.getCacheKey(code, file, options);
    const isKept = results.has(key);
    if (!isKept) results.set(key, vue.process(code, file, options).code);
    return { isKept, props: [...results.get(key)!.matchAll(/(\w+): \{ type: \w+/g)].map(([, name]) => name) };
  };
  beforeAll(() => {
    mkdirSync(cacheDirectory);
    write('hive.ts', 'export interface Hive { name: string }');
  });
  afterAll(() => rmSync(folder, { recursive: true }));

  it('is compiled again where that has changed, and only then', () => {
    expect(run()).toEqual({ isKept: false, props: ['name'] });
    expect(run()).toEqual({ isKept: true, props: ['name'] });
    write('hive.ts', 'export interface Hive { name: string; frames: number }');
    expect(run()).toEqual({ isKept: false, props: ['name', 'frames'] });
  });

  it('is compiled again where what that itself imports has changed', () => {
    write('queen.ts', 'export interface Queen { marked: string }');
    write(
      'hive.ts',
      "import type { Queen } from './queen';\nexport interface Hive extends Queen { name: string }",
    );
    expect(run().props).toEqual(['name', 'marked']);
    run();
    write('queen.ts', 'export interface Queen { clipped: boolean }');
    expect(run()).toEqual({ isKept: false, props: ['name', 'clipped'] });
    write('hive.ts', 'export interface Hive { name: string }');
    expect(run().props).toEqual(['name']);
  });

  it('is read again where what was kept of it is broken or gone', () => {
    const [list = ''] = readdirSync(join(cacheDirectory, 'simulacra-vue'));
    for (const text of ['{', '5', '']) {
      writeFileSync(join(cacheDirectory, 'simulacra-vue', list), text);
      expect(run()).toEqual({ isKept: true, props: ['name'] });
    }
    rmSync(cacheDirectory, { recursive: true });
    expect(run()).toEqual({ isKept: true, props: ['name'] });
    expect(readdirSync(join(cacheDirectory, 'simulacra-vue'))).toEqual([list]);
  });
});
