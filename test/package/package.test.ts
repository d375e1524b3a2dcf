/** @jest-environment node */
import { execFile } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { followPages } from './pages';

const root = join(__dirname, '../..');
const run = promisify(execFile);
let place: string;
let tarball: string;
const { NODE_ENV: _, ...env } = process.env;
const node = (args: string[]) => run(process.execPath, args, { cwd: place, env: env as NodeJS.ProcessEnv });
const versions = (
  JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as {
    packages: Record<string, { version: string }>;
  }
).packages;
const at = (name: string) => `${name}@${versions[`node_modules/${name}`]!.version}`;

const entries = {
  simulacra: ['fail', 'role', 'takeDown'],
  'simulacra/react': ['isolate', 'isolateWith', 'stub'],
  'simulacra/vue': ['isolate', 'isolateWith', 'stub'],
  'simulacra/angular': ['isolate', 'isolateWith', 'stub', 'startAt'],
  'simulacra/jest': ['matchers', 'takeDown'],
  'simulacra/har': ['fromHar', 'toHar'],
  'simulacra/serve': ['serve'],
};
const frameworks = {
  react: ['react', 'react-dom', '@types/react'],
  vue: ['vue'],
  angular: ['core', 'common', 'compiler', 'platform-browser'].map((name) => `@angular/${name}`),
};

describe('the package, packed and installed elsewhere', () => {
  beforeAll(async () => {
    place = mkdtempSync(join(tmpdir(), 'simulacra-'));
    writeFileSync(join(place, 'package.json'), '{ "private": true }');
    const { stdout } = await run(
      'npm',
      ['pack', root, '--pack-destination', place, '--json', '--ignore-scripts', '--loglevel=error'],
      { cwd: root },
    );
    const [{ filename }] = JSON.parse(stdout) as [{ filename: string }];
    tarball = filename;
    const wanted = [
      ...Object.values(frameworks).flat(),
      ...['rxjs', 'esbuild'],
      'oxc-parser',
      'jest',
      'jest-environment-jsdom',
      'jsdom',
      'typescript',
      '@types/jest',
    ].map(at);
    await run(
      'npm',
      [
        'install',
        '--prefer-offline',
        '--no-audit',
        '--no-fund',
        '--loglevel=error',
        `./${filename}`,
        ...wanted,
      ],
      { cwd: place },
    );
  }, 240_000);
  afterAll(() => rmSync(place, { recursive: true, force: true }));

  it('serves routes, without any package but its own', async () => {
    writeFileSync(join(place, 'routes.mjs'), `export default { 'GET /api/hives': ['Anemone'] };`);
    expect((await node([join(__dirname, 'serving.mjs')])).stdout.trim()).toBe('["Anemone"]');
  });

  it.each(Object.keys(entries))('%s can be imported both ways', async (entry) => {
    const names = JSON.stringify(entries[entry as keyof typeof entries]);
    await node([
      '--input-type=module',
      '-e',
      `import * as m from '${entry}'; if (!${names}.every((n) => n in m)) process.exit(1)`,
    ]);
    await node(['-e', `const m = require('${entry}'); if (!${names}.every((n) => n in m)) process.exit(1)`]);
  });

  it('shares its state where both formats are loaded', async () => {
    writeFileSync(
      join(place, 'both.mjs'),
      `import { createRequire } from 'node:module';
       import { JSDOM } from 'jsdom';
       const { window } = new JSDOM('<body></body>', { url: 'http://localhost/' });
       Object.assign(globalThis, { window, document: window.document });
       const require = createRequire(import.meta.url);
       const { isolate } = await import('simulacra/react');
       const { takeDown, fail, part } = require('simulacra');
       const { createElement: h, useEffect, useState } = await import('react');
       const Child = () => h('p', null, 'child');
       const Asker = () => {
         const [status, set] = useState(0);
         useEffect(() => void fetch('/api').then((r) => set(r.status)), []);
         return h('div', null, status, h(Child));
       };
       const subject = await isolate(Asker, { stub: [Child], network: { 'GET /api': fail(503) } });
       console.log(subject.container.textContent, subject.findAll(part(Child)).length);
       const other = await require('simulacra/react').isolate(Asker, { stub: [Child], network: { 'GET /api': fail(404) } });
       console.log(other.container.textContent, other.findAll(part(Child)).length, other.chronicle.of('rendered').length > 0);
       await subject.update({ again: true });
       console.log(subject.chronicle.entries.at(-1).kind, subject.findAll(part(Child)).length);
       await takeDown();
       console.log(document.body.innerHTML === '');`,
    );
    const { stdout } = await node(['both.mjs']);
    expect(stdout.trim().split('\n')).toEqual(['503 1', '404 1 true', 'rendered 1', 'true']);
  });

  it.each([
    ['bundler', 'esnext', ['consumer.tsx']],
    ['nodenext', 'nodenext', ['consumer.tsx', 'consumer.cts']],
  ])('is typed under %s (%s, %j)', async (resolution, module, files) => {
    for (const file of files)
      writeFileSync(
        join(place, file),
        `import { createElement } from 'react'; import { isolate } from 'simulacra/react'; import { hold, role } from 'simulacra'; import 'simulacra/jest';
       const Card = ({ name }: { name: string }) => { void createElement; return ${file.endsWith('.cts') ? 'createElement("p")' : '<p />'} };
       export async function test() {
         const card = await isolate(Card, { props: { name: 'Anemone' }, network: { 'GET /': hold() } });
         expect(card).toShow(role('button'), { times: 1 });
         const names: string[] = card.part(Card).props.map((p) => p.name);
         return names;
       }`,
      );
    const flags = [
      '--noEmit',
      '--strict',
      '--jsx',
      'react-jsx',
      '--skipLibCheck',
      'false',
      '--lib',
      'es2022,dom,dom.iterable',
      '--types',
      'jest',
    ];
    await node([
      join(place, 'node_modules/typescript/bin/tsc'),
      ...flags,
      '--module',
      module,
      '--moduleResolution',
      resolution,
      ...files,
    ]).catch((error: { stdout: string }) => {
      throw new Error(error.stdout);
    });
  });

  it.each([
    [
      'vue',
      'Card.vue',
      `<script setup lang="ts">import { capital } from './capital'; defineProps<{ name: string }>(); defineEmits<{ open: [] }>();</script>
       <template><button @click="$emit('open')">{{ capital(name) }}</button></template>`,
      `./Card.vue`,
    ],
    [
      'angular',
      'card.ts',
      `import { Component, input, output } from '@angular/core';
       import { capital } from './capital';
       @Component({ selector: 'a-card', templateUrl: './card.html' })
       export class Card { readonly capital = (text: string) => capital(text); readonly name = input.required<string>(); readonly open = output<void>(); }`,
      `./card`,
    ],
  ])(
    'loads what %s is written in, and swaps what it imports, by one line each of configuration',
    async (framework, file, source, imported) => {
      const folder = join(place, framework);
      mkdirSync(folder);
      writeFileSync(join(folder, file), source);
      writeFileSync(
        join(folder, 'card.html'),
        `<button (click)="open.emit()">{{ capital(name()) }}</button>`,
      );
      writeFileSync(
        join(folder, 'capital.ts'),
        `throw new Error('loaded'); export const capital = (text: string) => text;`,
      );
      // Of the project's own transformer only what a test itself needs.
      const test = `import { isolate } from 'simulacra/${framework}';
      import { role, swap } from 'simulacra';
      import 'simulacra/jest';
      test('a card', async () => {
        const capital = swap(() => import('./capital'), { capital: (text) => text.toUpperCase() });
        const card = await isolate(() => import('${imported}'), { props: { name: 'Anemone' }, swap: [capital] });
        await card.click(role('button', 'ANEMONE'));
        expect(card.outputs.open.length).toBe(1);
        card.find(role('button', 'ANEMONY'));
      });`;
      writeFileSync(join(folder, 'card.test.ts'), test);
      writeFileSync(
        join(folder, 'esbuild.cjs'),
        `const { transformSync } = require('esbuild');
       module.exports = { process: (code, file) => transformSync(code, { format: 'cjs', loader: 'ts', sourcemap: 'inline', sourcefile: file, supported: { 'dynamic-import': false } }) };`,
      );
      const own =
        framework === 'vue' ? `, transform: { ...loaded.transform, '\\\\.ts$': './esbuild.cjs' }` : '';
      writeFileSync(
        join(folder, 'jest.config.cjs'),
        `const loaded = require('simulacra/${framework}/jest'); module.exports = require('simulacra/seam/jest')({ ...loaded${own} });`,
      );
      const { stdout } = await run('npx', ['jest', '--json', '--rootDir', folder], {
        cwd: folder,
        env: env as NodeJS.ProcessEnv,
      }).catch((error: { stdout: string }) => error);
      const report = JSON.parse(stdout) as {
        testResults: [{ message: string; assertionResults: { failureMessages: string[] }[] }];
      };
      const [result] = report.testResults;
      const said = result.assertionResults[0]?.failureMessages.join() ?? result.message;
      expect(said).toMatch(/SIM-FIND-NONE[^]*card\.test\.ts:9:/);
    },
    120_000,
  );

  followPages(() => place);

  it('passes the checks of package surfaces', async () => {
    const { stdout } = await run(process.execPath, [
      join(__dirname, 'surface.mjs'),
      root,
      join(place, tarball),
    ]);
    expect(JSON.parse(stdout)).toEqual([]);
  });

  it('reads only what every test needs until it is used', async () => {
    const read = `Object.keys(require('${place}/node_modules/simulacra/dist/parts/core.cjs').partsRead).join()`;
    const { stdout } = await node([
      '-e',
      `for (const entry of ['react', 'vue', 'jest']) require('simulacra/' + entry);
       console.log(${read}); void fetch('/api').catch(() => console.log(${read}))`,
    ]);
    expect(stdout.trim().split('\n')).toEqual(['core', 'core,answering,wording']);
  });

  // With modules that are loaded anew before each test, what is read late must be of the same copy.
  it.each([[[]], [['--resetModules']]])(
    'takes down at the end of each test in a user’s Jest %p',
    async (more: string[]) => {
      cpSync(join(__dirname, 'fixture'), place, { recursive: true });
      writeFileSync(
        join(place, 'jest.config.json'),
        JSON.stringify({ testEnvironment: 'jsdom', setupFilesAfterEnv: ['simulacra/jest'], transform: {} }),
      );
      const { stdout } = await run('npx', ['jest', '--json', '--no-cache', ...more], {
        cwd: place,
        env: env as NodeJS.ProcessEnv,
      }).catch((error: { stdout: string }) => error);
      const report = JSON.parse(stdout) as {
        testResults: [{ assertionResults: { title: string; status: string; failureMessages: string[] }[] }];
      };
      const results = Object.fromEntries(
        report.testResults[0].assertionResults.map(({ title, status, failureMessages }) => [
          title,
          { status, said: failureMessages.join('\n') },
        ]),
      );
      const statuses = Object.fromEntries(
        Object.entries(results).map(([title, { status }]) => [title, status]),
      );
      expect(statuses).toEqual({
        'ends while an answer is held': 'passed',
        'ends with a request that nobody answered': 'failed',
        'fails half-way': 'failed',
        'fails to find': 'failed',
        'finds nothing left of the tests before': 'passed',
        'forgets to await': 'failed',
        'throws after its last step': 'failed',
        'starts a promise that is rejected': 'failed',
        'is not told of what went wrong before': 'passed',
      });
      expect(results['forgets to await']!.said).toMatch(
        /SIM-STEP-UNAWAITED[^]*click was not awaited[^]*end\.test\.js:\d+/,
      );
      expect(results['throws after its last step']!.said).toMatch(/SIM-HANDLER-THREW[^]*too late/);
      expect(results['starts a promise that is rejected']!.said).toContain('lost');
      expect(results['ends with a request that nobody answered']!.said).toMatch(
        /SIM-REQUEST-UNMATCHED.*GET \/api\/hives, asked by Asker/,
      );
      expect(results['fails to find']!.said).toMatch(
        /SIM-FIND-NONE[^]*Did you mean {3}role\('button', 'there'\)[^]*\n\s+at .*end\.test\.js:\d+/,
      );
    },
    60_000,
  );
});
