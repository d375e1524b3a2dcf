import { execFile } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';

const root = join(__dirname, '../..');
const run = promisify(execFile);
const { NODE_ENV: _, ...env } = process.env;

/** Does what the pages say that a stranger reads first, where the package is installed. */
export function followPages(place: () => string): void {
  it.each(['react', 'vue', 'angular'])('the first hour in %s is as its page says', async (framework) => {
    const folder = join(place(), `hour-${framework}`);
    const page = readFileSync(join(root, `docs/start-${framework}.md`), 'utf8');
    const blocks = [...page.matchAll(/```\w+\n(?:\/\/|<!--) (\S+\.\w+)(?: -->)?\n([^]*?)```/g)];
    expect(blocks.length).toBe(6);
    for (const [, file, text] of blocks) {
      mkdirSync(join(folder, file!, '..'), { recursive: true });
      writeFileSync(join(folder, file!), text!);
    }
    writeFileSync(join(folder, 'package.json'), '{ "private": true, "type": "module" }');
    const [, types] = /"types": (\[.*\])/.exec(page)!;
    const compilerOptions = {
      ...{ strict: true, noEmit: true, module: 'esnext', moduleResolution: 'bundler', target: 'es2022' },
      ...{ jsx: 'react-jsx', skipLibCheck: true, experimentalDecorators: true, lib: ['es2023', 'dom'] },
      types: (JSON.parse(types!) as string[]).filter((one) => one !== 'vite/client'),
    };
    writeFileSync(join(folder, 'tsconfig.json'), JSON.stringify({ compilerOptions, include: ['src'] }));
    for (const config of ['jest.config.cjs', 'jest.swap.config.cjs']) {
      const report = await run(
        process.execPath,
        [join(place(), 'node_modules/jest/bin/jest.js'), '-c', config, '--json'],
        { cwd: folder, env: env as NodeJS.ProcessEnv },
      ).catch((error: { stdout: string; stderr: string }) => {
        throw new Error(error.stderr || error.stdout);
      });
      expect(JSON.parse(report.stdout)).toMatchObject({ numPassedTests: 3, numTotalTests: 3 });
    }
    // Single-file components have a compiler of their own.
    if (framework !== 'vue')
      await run(process.execPath, [join(place(), 'node_modules/typescript/bin/tsc'), '-p', folder]).catch(
        (error: { stdout: string }) => {
          throw new Error(error.stdout);
        },
      );
  });

  it('says what is missing where modules are to be swapped', async () => {
    const parser = join(place(), 'node_modules/oxc-parser');
    renameSync(parser, `${parser}-away`);
    try {
      const jest = [
        join(place(), 'node_modules/jest/bin/jest.js'),
        '-c',
        'jest.swap.config.cjs',
        '--no-cache',
      ];
      const { stderr } = await run(process.execPath, jest, {
        cwd: join(place(), 'hour-react'),
        env: env as NodeJS.ProcessEnv,
      }).catch((error: { stderr: string }) => error);
      expect(stderr).toContain('npm install --save-dev oxc-parser');
      expect(stderr).toContain('SIM-PARSER');
    } finally {
      renameSync(`${parser}-away`, parser);
    }
  });

  it('links to what is packed, and to nothing else', async () => {
    const packed = join(place(), 'node_modules/simulacra');
    const pages = [
      'README.md',
      'CHANGELOG.md',
      ...readdirSync(join(packed, 'docs')).map((one) => `docs/${one}`),
    ];
    const dead = pages
      .filter((page) => page.endsWith('.md'))
      .flatMap((page) =>
        [...readFileSync(join(packed, page), 'utf8').matchAll(/\]\(([^)#\s]+)[^)]*\)/g)]
          .map(([, link]) => link!)
          .filter((link) => !/^[a-z]+:/.test(link) && !existsSync(join(packed, page, '..', link)))
          .map((link) => `${page}: ${link}`),
      );
    expect(dead).toEqual([]);
  });

  it('brings nothing along that not everybody needs', () => {
    const { dependencies } = JSON.parse(
      readFileSync(join(place(), 'node_modules/simulacra/package.json'), 'utf8'),
    ) as { dependencies?: object };
    expect(dependencies).toBeUndefined();
  });

  it('works where nothing is global', async () => {
    const folder = join(place(), 'no-globals');
    mkdirSync(folder);
    writeFileSync(
      join(folder, 'jest.config.cjs'),
      `module.exports = { ...require('simulacra/react/jest'), injectGlobals: false, setupFilesAfterEnv: ['simulacra/jest', 'simulacra/react'] };`,
    );
    writeFileSync(
      join(folder, 'card.test.tsx'),
      `import { expect, test } from '@jest/globals';
       import { text } from 'simulacra';
       import { isolate } from 'simulacra/react';
       const Card = () => <p>{import.meta.env.MODE} Anemone</p>;
       test('is matched', async () => { expect(await isolate(Card)).toShow(text('test Anemone')); });
       test('was taken down', () => { expect(document.body.innerHTML).toBe(''); });`,
    );
    const jest = [join(place(), 'node_modules/jest/bin/jest.js'), '--json'];
    const { stdout } = await run(process.execPath, jest, {
      cwd: folder,
      env: env as NodeJS.ProcessEnv,
    }).catch((error: { stderr: string }) => {
      throw new Error(error.stderr);
    });
    expect(JSON.parse(stdout)).toMatchObject({ numPassedTests: 2 });
    const guide = readFileSync(join(root, 'docs/guide.md'), 'utf8');
    writeFileSync(
      join(folder, 'matchers.d.ts'),
      /```ts\n(import type \{ SubjectMatchers[^]*?)```/.exec(guide)![1]!,
    );
    writeFileSync(
      join(folder, 'typed.ts'),
      `import { expect } from '@jest/globals'; import { role } from 'simulacra'; import 'simulacra/jest'; expect({}).toShow(role('button'), { times: 1 });`,
    );
    const flags = [
      '--noEmit',
      '--strict',
      '--skipLibCheck',
      '--module',
      'esnext',
      '--moduleResolution',
      'bundler',
    ];
    const tsc = [
      join(place(), 'node_modules/typescript/bin/tsc'),
      ...flags,
      '--types',
      'node',
      'matchers.d.ts',
      'typed.ts',
    ];
    await run(process.execPath, tsc, { cwd: folder }).catch((error: { stdout: string }) => {
      throw new Error(error.stdout);
    });
  });
}
