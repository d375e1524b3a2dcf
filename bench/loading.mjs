import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';

const rounds = 15;
const middle = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** In a test file of its own each time, as Jest evaluates it: the framework first, then our entries. */
function loadInJest(what) {
  mkdirSync('.cache', { recursive: true });
  const out = `${process.cwd()}/.cache/bench-loading.json`;
  execFileSync('node_modules/.bin/jest', ['-c', 'bench/jest/jest.config.cjs', '-i', 'loading'], {
    env: { ...process.env, BENCH_LOAD: JSON.stringify(what), BENCH_OUT: out },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  return JSON.parse(readFileSync(out, 'utf8'));
}

/** In a process of its own each time: Jest would have to rewrite Angular's packages, and measure that. */
function loadInNode({ before, floor, entries }) {
  const took = (names) =>
    `{ const start = performance.now(); ${names.map((name) => `require('${name}');`).join('')} times.push(performance.now() - start); }`;
  const steps = [floor, ...entries.map((entry) => [entry])].map(took);
  const code = `const times = []; ${before.map((name) => `require('${name}');`).join('')} ${steps.join('')} console.log(JSON.stringify(times))`;
  return JSON.parse(execFileSync(process.execPath, ['-e', code], { encoding: 'utf8' }));
}

const angular = ['compiler', 'core', 'common', 'common/http', 'platform-browser'].map(
  (name) => `@angular/${name}`,
);
const beside = (framework) => [`simulacra/${framework}`, 'simulacra', 'simulacra/jest'];
const runs = [
  {
    floorName: 'react-dom/client',
    load: loadInJest,
    what: { before: ['react'], floor: ['react-dom/client'], entries: beside('react') },
  },
  { floorName: 'vue', load: loadInJest, what: { before: [], floor: ['vue'], entries: beside('vue') } },
  {
    floorName: 'Angular (core, compiler, common, platform-browser)',
    load: loadInNode,
    what: { before: [], floor: angular, entries: ['simulacra/angular'] },
  },
];

const why =
  'nearly all of it is the engine reading the text of the files. What the first subject of a file reads beside them is in the row of the first ten subjects.';

export function loading() {
  return runs.flatMap(({ floorName, load, what }) => {
    const all = Array.from({ length: rounds }, () => load(what));
    const [floor, ...ours] = all[0].map((_, at) => middle(all.map((times) => times[at])));
    return what.entries.map((entry, at) => ({
      name: `${load === loadInJest ? 'in Jest, ' : ''}loading ${entry}${at > 0 ? ` beside ${what.entries[0]}` : ''}`,
      against: `loading ${floorName}`,
      goal: at > 0 ? 0.05 : 0.2,
      ours: ours[at],
      floor,
      ratio: ours[at] / floor,
      why: at === 0 ? why : undefined,
    }));
  });
}
