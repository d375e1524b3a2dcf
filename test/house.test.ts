/** @jest-environment node */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, normalize, relative } from 'node:path';
import { registry } from '../src/registry';

const root = join(__dirname, '..');

function files(folder: string): string[] {
  return readdirSync(join(root, folder)).flatMap((name) => {
    const path = join(folder, name);
    return statSync(join(root, path)).isDirectory() ? files(path) : [path];
  });
}

const source = files('src');
const read = (path: string) => readFileSync(join(root, path), 'utf8');
const roomOf = (path: string) => path.split(/[\\/]/)[1]!.replace(/\.tsx?$/, '');

/** Which rooms a room may know. */
const allowed: Record<string, string[]> = {
  core: [],
  network: ['core'],
  page: ['core'],
  syntax: ['core'],
  seam: ['core', 'syntax'],
  stage: ['core', 'network', 'page', 'seam'],
  arrivals: ['core'],
  states: ['arrivals', 'core', 'page', 'seam', 'stage'],
  react: ['core', 'page', 'seam', 'stage', 'states'],
  vue: ['core', 'page', 'seam', 'stage', 'states'],
  angular: ['core', 'page', 'seam', 'stage', 'states'],
  transform: ['core'],
  jest: ['core', 'page', 'seam', 'stage', 'states'],
  har: ['core', 'network', 'stage'],
  browser: ['core', 'network'],
  chromium: ['browser', 'core', 'page'],
  sheet: ['browser', 'core', 'page', 'stage', 'states'],
  serve: ['core', 'draft', 'har', 'network', 'page', 'sheet', 'stage'],
  survey: ['core', 'syntax'],
  draft: ['core', 'jest', 'network', 'page', 'stage', 'states', 'survey', 'transform'],
  cli: ['arrivals', 'core', 'draft', 'har', 'network', 'serve', 'sheet', 'stage', 'states', 'survey'],
  registry: [
    'arrivals',
    'browser',
    'chromium',
    'core',
    'draft',
    'har',
    'network',
    'page',
    'seam',
    'serve',
    'sheet',
    'stage',
    'states',
    'survey',
    'syntax',
    'transform',
    'react',
    'vue',
    'angular',
  ],
  index: ['arrivals', 'registry', 'core', 'network', 'page', 'seam', 'stage', 'states'],
};

const imports = (path: string) =>
  [...read(path).matchAll(/(?:from|import) ['"]([^'"]+)['"]/g)].map(([, name]) => name!);

const edges = source.flatMap((path) =>
  imports(path)
    .filter((name) => name.startsWith('.'))
    .map((name) => ({ path, to: relative(root, normalize(join(root, dirname(path), name))) })),
);

it('has arrows that go down only', () => {
  const wrong = edges.filter(
    ({ path, to }) => roomOf(path) !== roomOf(to) && !allowed[roomOf(path)]?.includes(roomOf(to)),
  );
  expect(wrong).toEqual([]);
  expect(edges.length).toBeGreaterThan(100);
});

it('has no import cycle at run time', () => {
  const typed = (path: string, to: string) =>
    new RegExp(`import type [^;]*from '[^']*${to.split('/').at(-1)}'`).test(read(path));
  const next = new Map<string, string[]>();
  const resolve = (to: string) =>
    source.find(
      (path) => path.replace(/\.tsx?$/, '') === to || path.replace(/[\\/]index\.tsx?$/, '') === to,
    ) ?? to;
  for (const { path, to } of edges)
    if (!typed(path, to)) next.set(path, [...(next.get(path) ?? []), resolve(to)]);
  const cycles: string[] = [];
  const done = new Set<string>();
  const walk = (path: string, trail: string[]): void => {
    if (trail.includes(path)) cycles.push([...trail.slice(trail.indexOf(path)), path].join(' -> '));
    if (trail.includes(path) || done.has(path)) return;
    for (const to of next.get(path) ?? []) walk(to, [...trail, path]);
    done.add(path);
  };
  for (const path of source) walk(path, []);
  expect(cycles).toEqual([]);
});

it('has a core that knows no page, no Node and no framework', () => {
  const foreign = source
    .filter((path) => roomOf(path) === 'core')
    .flatMap((path) => imports(path).filter((name) => !name.startsWith('.')));
  expect(foreign).toEqual([]);
  const named = source.filter(
    (path) => roomOf(path) === 'core' && /\b(document|window)\.|\bprocess\./.test(read(path)),
  );
  expect(named).toEqual([]);
});

it('makes errors in one place only, and each code is told in the catalogue', () => {
  const throwing = source.filter((path) =>
    /throw new (?!SimulacraError)/.test(read(path).replace(/throw new TypeError\('Failed/g, '')),
  );
  expect(throwing).toEqual([]);
  const catalogue = read('docs/errors.md');
  expect(Object.keys(registry).filter((code) => !catalogue.includes(`\`${code}\``))).toEqual([]);
});

it('has files that hold one idea each', () => {
  const lengths = source
    .map((path) => ({ path, lines: read(path).split('\n').length }))
    .sort((a, b) => a.lines - b.lines);
  expect(lengths.filter(({ lines }) => lines > 300)).toEqual([]);
  expect(lengths[Math.floor(lengths.length / 2)]!.lines).toBeLessThan(110);
});

it('takes the runner for nothing but running', () => {
  const own = /\bjest\.(fn|mock|spyOn|useFakeTimers|requireActual|resetModules|doMock|advanceTimers\w*)\b/;
  const used = [...source, ...files('test'), ...files('examples')].filter(
    (path) =>
      /\.tsx?$/.test(path) &&
      !path.includes('node_modules') &&
      own.test(read(path)) &&
      !path.endsWith('house.test.ts'),
  );
  expect(used).toEqual([]);
});
