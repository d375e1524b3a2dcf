/** @jest-environment node */
import { execFile } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

/* The ways into the runners, as a project has them: from the built package. */

const root = join(__dirname, '../..');
const built = createRequire(join(root, 'dist/index.cjs'));
let place: string;
beforeAll(() => {
  mkdirSync(join(root, '.cache'), { recursive: true });
  place = mkdtempSync(join(root, '.cache/doors-'));
});
afterAll(() => rmSync(place, { recursive: true, force: true }));
const write = (file: string, text: string) => writeFileSync(join(place, file), text);

it('leaves a standard module that is asked for by require() what it is', async () => {
  write('scale.mjs', 'export const weigh = (kilos) => `${kilos} kg, ${typeof import.meta.url}`;');
  write('yard.cjs', "console.log(require('./scale.mjs').weigh(31), require('./hive.cjs').name);");
  write('hive.cjs', "exports.name = 'Anemone';");
  const { NODE_ENV: _, ...env } = process.env;
  const door = join(root, 'dist/seam-node.js');
  const { stdout } = await promisify(execFile)(
    process.execPath,
    ['--import', door, join(place, 'yard.cjs')],
    {
      env: { ...env, NODE_NO_WARNINGS: '1' } as unknown as NodeJS.ProcessEnv,
    },
  );
  expect(stdout.trim()).toBe('31 kg, string Anemone');
});

describe('a single-file component is transformed again when', () => {
  const { getCacheKey } = built('./vue-transform.cjs') as {
    getCacheKey(code: string, file: string, options?: object): string;
  };
  const card = `<script setup lang="ts">import type { Hive } from './hive'; defineProps<Hive>();</script>
    <template src="./card.html" />`;
  const keyOf = (code = card) => getCacheKey(code, join(place, 'Card.vue'), {});
  beforeEach(() => {
    write('hive.ts', 'export interface Hive { name: string }');
    write('card.html', '<p>{{ name }}</p>');
  });

  it.each([
    ['its own text changes', () => keyOf(`${card}\n`)],
    [
      'a type its macros read changes',
      () => (write('hive.ts', 'export interface Hive { name: string; weight: number }'), keyOf()),
    ],
    ['the file of its template changes', () => (write('card.html', '<b>{{ name }}</b>'), keyOf())],
  ])('%s', (_, change) => {
    const before = keyOf();
    expect(keyOf()).toBe(before);
    expect(change()).not.toBe(before);
  });
});

describe('a preset', () => {
  let inside: string;
  // Jest loads nothing from the project's own folder of caches.
  beforeAll(() => {
    inside = place;
    place = mkdtempSync(join(tmpdir(), 'doors-'));
  });
  afterAll(() => {
    rmSync(place, { recursive: true, force: true });
    place = inside;
  });
  type Wrapped = { transform: Record<string, [string, { transformer: string }]> };
  const seams = built('./seam-jest.cjs') as (given: object) => Wrapped;
  const transform = { '\\.hive$': 'hive-transform' };
  const given = (preset: string) => ({ rootDir: place, preset, transform });

  it('has its transformers wrapped beside those of the project', () => {
    mkdirSync(join(place, 'node_modules/of-the-yard'), { recursive: true });
    write('node_modules/of-the-yard/jest-preset.json', `{ "transform": { "\\\\.comb$": "comb-transform" } }`);
    const wrapped = seams(given('of-the-yard')).transform;
    expect(Object.entries(wrapped).map(([pattern, [, { transformer }]]) => [pattern, transformer])).toEqual([
      ['\\.comb$', 'comb-transform'],
      ['\\.hive$', 'hive-transform'],
    ]);
  });

  it.each([
    ['is not there', 'of-nobody', 'of-nobody'],
    ['cannot be loaded', 'broken', 'the preset is broken'],
  ])('that %s is told of', (_, preset, told) => {
    mkdirSync(join(place, 'node_modules/broken'), { recursive: true });
    write('node_modules/broken/jest-preset.js', "throw new Error('the preset is broken');");
    let failure: (Error & { cause?: Error }) | undefined;
    try {
      seams(given(preset));
    } catch (error) {
      failure = error as typeof failure;
    }
    expect(`${failure?.message} ${failure?.cause?.message}`).toMatch(
      new RegExp(`SIM-SEAM-PRESET[^]*${told}`),
    );
  });
});
