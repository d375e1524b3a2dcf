/** @jest-environment node */
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv2020 from 'ajv/dist/2020';
import { dataOf, makeProject } from './project';

import { root } from '../sheet/project';

const card = `export const HiveCard = ({ hive }) => <p>{hive}</p>;`;
const apiary = {
  'src/HiveBoard.tsx': `import { HiveCard } from './HiveCard';
import { PreviewCard } from './PreviewCard';
export function HiveBoard({ yard, onOpen, children, renderEmpty }) {
  return <section><HiveCard hive={yard} /><PreviewCard />{children}{renderEmpty()}</section>;
}
export const Small = () => <i />;`,
  'src/HiveCard.tsx': card,
  'src/PreviewCard.tsx': `import { useEffect, lazy, useRef } from 'react';
import { openFeed } from './feed';
import { useYards } from './yards';
import { Chart } from './Chart';
const Late = lazy(() => import('./Late'));
export function PreviewCard() { const chart = useRef(); useYards(); useEffect(() => openFeed('weights')); return <><Chart ref={chart} /><Late /></>; }`,
  'src/feed.ts': `export const openFeed = (name) => new WebSocket('/live/' + name);`,
  'src/yards.ts': `import { createStore } from 'redux'; export const useYards = createStore(() => ({}));`,
  'src/Chart.tsx': `export const Chart = () => { const now = Date.now(); return <svg>{now}</svg>; };`,
  'src/Late.tsx': `export default function Late() { return <b>{localStorage.getItem('late')}</b>; }`,
  'src/units.ts': `export const kilos = (grams) => grams / 1000;`,
};

const unchanged = makeProject(apiary);

it('prints a tree within 100 columns, what is hard in it, and where to cut', async () => {
  const { code, stdout, stderr } = await unchanged.survey('src/HiveBoard.tsx');
  expect({ code, stderr }).toEqual({ code: 0, stderr: '' });
  expect(Math.max(...stdout.split('\n').map(({ length }) => length))).toBeLessThanOrEqual(100);
  expect(stdout).toMatchSnapshot();
});

const project1 = makeProject(apiary);
it('describes what it prints as data', async () => {
  const validate = new Ajv2020({ strictRequired: false, allowUnionTypes: true }).compile(
    JSON.parse(readFileSync(join(root, 'docs/survey.schema.json'), 'utf8')) as object,
  );
  for (const asked of ['src/HiveBoard.tsx', 'src']) {
    const { stdout } = await project1.survey(asked, '--json');
    const data: unknown = JSON.parse(stdout);
    expect([asked, validate(data), validate.errors]).toEqual([asked, true, null]);
  }
  expect(validate({ version: 1, component: {} })).toBe(false);
});

it('tells what a component takes, what is loaded late and what is kept by a ref', async () => {
  const data = await dataOf(unchanged, 'src/HiveBoard.tsx');
  expect(data).toMatchObject({
    ...{ name: 'HiveBoard', framework: 'react', modules: 7, others: ['Small'] },
    ...{ inputs: ['yard'], outputs: ['onOpen'], slots: ['children'], renders: ['renderEmpty'] },
    hard: ['network', 'clock', 'global state'],
  });
  const named = new Map(data.nodes.map(({ id, name }) => [id, name]));
  const marked = (key: 'isLazy' | 'hasRef') =>
    data.edges.filter((edge) => edge[key]).map(({ to }) => named.get(to));
  expect(marked('isLazy')).toEqual(['Late']);
  expect(marked('hasRef')).toEqual(['Chart']);
});

const cut = makeProject(apiary);
it('finds the cut that takes most away, with figures that hold', async () => {
  const before = await dataOf(cut, 'HiveBoard');
  const [first] = before.cuts;
  expect(first).toMatchObject({ line: 'stub: [PreviewCard]', modules: 5, how: 'not used' });
  // What the figures say is what is left when the child is taken out.
  writeFileSync(cut.path('src/PreviewCard.tsx'), `export const PreviewCard = () => <p />;`);
  const after = await dataOf(cut, 'HiveBoard');
  expect(before.modules - first!.modules).toBe(after.modules - 1);
  expect(after.hard).toEqual([]);
});

const circled = makeProject({
  ...apiary,
  'src/Other.tsx': `import { PreviewCard } from './PreviewCard'; export const Other = () => <PreviewCard />;`,
  'src/a.ts': `import { b } from './b'; export const a = () => b();`,
  'src/b.ts': `import { a } from './a'; export const b = () => a();`,
});
it('lists all components of a folder, circles among files, and the cuts that help most', async () => {
  const { stdout } = await circled.survey('src');
  expect(Math.max(...stdout.split('\n').map(({ length }) => length))).toBeLessThanOrEqual(100);
  expect(stdout).toMatchSnapshot();
});

describe('the weight of a package', () => {
  const entries: Readonly<Record<string, object>> = {
    main: { main: './index.js' },
    module: { main: './small.cjs', module: './index.js' },
    exports: { exports: './index.js' },
    'types first': { exports: { '.': { types: './index.d.ts', import: './index.js' } } },
    'only types': { types: './index.d.ts' },
  };
  const filesOf = ([kind, entry]: [string, object]): [string, string][] => {
    const name = kind.replace(' ', '-');
    const folder = `node_modules/${name}`;
    return [
      [`src/${name}.tsx`, `import { draw } from '${name}'; export const Board = () => <p>{draw()}</p>;`],
      [`${folder}/package.json`, JSON.stringify({ name, ...entry })],
      [`${folder}/index.d.ts`, 'export declare const draw: () => number;'],
      [`${folder}/small.cjs`, ''],
      ...(kind === 'only types'
        ? []
        : [[`${folder}/index.js`, `export const draw = 0; // ${'.'.repeat(1_100_000)}`] as [string, string]]),
    ];
  };
  const charts = makeProject(Object.fromEntries(Object.entries(entries).flatMap(filesOf)));
  it.each(Object.keys(entries))('is that of its code: %s', async (kind) => {
    const { stdout } = await charts.survey(`src/${kind.replace(' ', '-')}.tsx`, '--json');
    expect(JSON.parse(stdout)).toMatchObject({
      component: { hard: kind === 'only types' ? [] : ['heavy'], problems: [] },
    });
  });
});

describe('since a commit', () => {
  const git = (cwd: string, ...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Imke', '-c', 'user.email=imke@apiary.example', ...args], { cwd });

  const kept = makeProject({ ...apiary, '.gitignore': 'node_modules' });
  it('says what was added and removed, and leaves the repository as it is', async () => {
    git(kept.place, 'init', '--quiet', '--initial-branch=main');
    git(kept.place, 'add', '.');
    git(kept.place, 'commit', '--quiet', '--message=first');
    writeFileSync(
      kept.path('src/HiveCard.tsx'),
      `export const HiveCard = ({ hive }) => { fetch('/api/weights'); return <p>{hive}</p>; };`,
    );
    writeFileSync(kept.path('src/feed.ts'), `\n\nexport const openFeed = () => 0;`);
    writeFileSync(kept.path('src/New.tsx'), `export const New = () => <i />;`);
    writeFileSync(kept.path('src/Bad.tsx'), `export const Bad = <`);
    git(kept.place, 'add', 'src/feed.ts');
    const before = git(kept.place, 'status', '--porcelain').toString();
    const { stdout, stderr } = await kept.survey('src', '--since', 'main');
    expect(stderr).toBe('');
    expect(stdout).toMatchSnapshot();
    expect(git(kept.place, 'status', '--porcelain').toString()).toBe(before);
    const same = await kept.survey('src/Chart.tsx', '--since', 'main');
    expect(same.stdout).toBe('No component leans on anything else than at main.\n');
  });

  const empty = makeProject(apiary);
  it('says why a commit cannot be read', async () => {
    git(empty.place, 'init', '--quiet');
    const { code, stderr } = await empty.survey('src', '--since', 'mian');
    expect({ code, stderr }).toEqual({
      code: 2,
      stderr: expect.stringMatching(/SIM-SURVEY-SINCE[^]*"mian"/) as string,
    });
  });
});

const wrong: readonly (readonly [
  what: string,
  asked: string,
  said: RegExp,
  files?: Record<string, string>,
])[] = [
  [
    'a file that is not there',
    'src/HiveBord.tsx',
    /SIM-SURVEY-MISSING[^]*simulacra survey src\/HiveBoard\.tsx/,
  ],
  ['a name that is not there', 'HiveCrad', /SIM-SURVEY-MISSING[^]*simulacra survey HiveCard/],
  ['a file with no component', 'src/units.ts', /SIM-SURVEY-NONE[^]*It exports kilos/],
  [
    'two components in a file',
    'src/pair.tsx',
    /SIM-SURVEY-WHICH[^]*pair\.tsx#One[^]*pair\.tsx#Two/,
    { 'src/pair.tsx': `export const One = () => <i/>; export const Two = () => <b/>;` },
  ],
  [
    'a name that two files have',
    'Same',
    /SIM-SURVEY-WHICH[^]*a\.tsx#Same[^]*b\.tsx#Same/,
    { 'a.tsx': `export const Same = () => <i/>;`, 'b.tsx': `export const Same = () => <b/>;` },
  ],
  ['a component that the file has not', 'src/HiveBoard.tsx#Larg', /SIM-SURVEY-WHICH[^]*#HiveBoard[^]*#Small/],
  [
    'a file with a mistake',
    'src/Bad.tsx',
    /SIM-SURVEY-UNREAD[^]*src\/Bad\.tsx:2/,
    { 'src/Bad.tsx': `export const Bad = () =>\n  <p;` },
  ],
  ['a binary', 'src/Picture.tsx', /SIM-SURVEY-UNREAD[^]*it is no text/, { 'src/Picture.tsx': 'a\0b' }],
  [
    'a file that is too long',
    'src/Long.tsx',
    /SIM-SURVEY-UNREAD[^]*it has 6 MB/,
    { 'src/Long.tsx': ' '.repeat(6_000_000) },
  ],
  ['a file that is no source', 'package.json', /SIM-SURVEY-UNREAD[^]*no file of source code/],
  ['a picture of a folder', 'src --svg all.svg', /SIM-SURVEY-WHICH[^]*src\/HiveBoard\.tsx#HiveBoard/],
  ['a picture in a folder that is not there', 'HiveCard --svg none/all.svg', /SIM-SURVEY-WRITE[^]*none/],
];

const broken = makeProject(
  Object.assign({}, apiary, ...wrong.map(([, , , files]) => files)) as Record<string, string>,
);
it.each(wrong.map(([what, asked, said]) => ({ what, asked, said })))(
  'explains $what',
  async ({ asked, said }) => {
    const { code, stdout, words } = await broken.survey(...asked.split(' '));
    expect({ code, stdout }).toEqual({ code: 2, stdout: '' });
    expect(words).toMatch(said);
  },
);

const linked = makeProject(apiary);
it('explains a link that leads back to itself, and does not follow one in a folder', async () => {
  symlinkSync('Round.tsx', linked.path('Round.tsx'));
  mkdirSync(linked.path('deep'));
  symlinkSync('..', linked.path('deep/up'));
  const { code, words } = await linked.survey('Round.tsx');
  expect({ code, words }).toEqual({
    code: 2,
    words: expect.stringMatching(/SIM-SURVEY-UNREAD[^]*leads back to itself/) as string,
  });
  const { stdout } = await linked.survey('.');
  expect(stdout).toContain('6 components in .');
});

const lacking = makeProject({
  'Board.tsx': `import { Bad } from './Bad';\nimport x from '@missing/alias';\nimport { y } from './nowhere';\nexport const Board = () => <Bad a={x} b={y()} />;`,
  'Bad.tsx': `export const Bad = () => {`,
  'tsconfig.json': `{ "compilerOptions": { "paths": { "@missing/*": ["./gone/*"] } } }`,
});
it('passes by what it cannot read or find, says where, and goes on', async () => {
  const { problems, nodes } = await dataOf(lacking, 'Board');
  expect(problems).toEqual([
    { file: 'Bad.tsx', line: 1, why: expect.stringMatching(/^not read: /) as string },
    {
      ...{ file: 'Board.tsx', line: 2 },
      why: '"@missing/alias" leads nowhere: no package of that name is installed, and no alias leads to a file',
    },
    { file: 'Board.tsx', line: 3, why: '"./nowhere" leads nowhere' },
  ]);
  expect(nodes.some(({ kind, name }) => kind === 'package' && name === 'x')).toBe(true);
});

const old = makeProject({
  'Old.vue':
    '<script lang="coffee">\nmodule.exports = name: "Old"\n</script>\n<template><p>Old</p></template>',
  'New.vue': '<script setup lang="ts">const hive = 1</script>\n<template><p>{{ hive }}</p></template>',
});
it('passes by a script in a language that it does not read, and goes on with the folder', async () => {
  const { code, stdout } = await old.survey('.', '--json');
  const { components, problems } = JSON.parse(stdout) as Record<'components' | 'problems', object[]>;
  expect({ code, problems }).toEqual({
    code: 0,
    problems: [{ file: 'Old.vue', line: 1, why: 'not read: its script is written in coffee' }],
  });
  expect(components).toMatchObject([{ name: 'New' }]);
});

const changed = makeProject(apiary);
it('keeps what files say between runs, by their content', async () => {
  const first = await changed.survey('src');
  expect((await changed.survey('src')).stdout).toBe(first.stdout);
  writeFileSync(changed.path('src/Chart.tsx'), `export const Chart = () => <svg />;`);
  expect((await changed.survey('src')).stdout).not.toBe(first.stdout);
});

const many = makeProject(
  Object.fromEntries(
    Array.from({ length: 70 }, (_, at) => [`src/Card${at}.tsx`, card.replace('HiveCard', `Card${at}`)]),
  ) as Record<string, string>,
);

it('tells how far it is on a line of a terminal, and puts in its place what it has to say', async () => {
  const onTerminal = 'data:text/javascript,process.stderr.isTTY = true';
  const { stderr } = await many.run('--import', [onTerminal, join(root, 'dist/cli.js'), 'survey', 'Nobody']);
  const anew = '\r\u001b[K';
  expect(stderr.split(anew).slice(0, -1).at(-2)).toMatch(/64 of 70/);
  expect(stderr.split(anew).at(-1)).toMatch(/^SIM-SURVEY-MISSING/);
});
