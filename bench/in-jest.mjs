// What a user pays inside of Jest: the first ten subjects of a fresh test file, and those after.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';

const middle = (all) => all.sort((a, b) => a - b)[Math.floor(all.length / 2)];

function measure(framework, way) {
  mkdirSync('.cache', { recursive: true });
  const out = `${process.cwd()}/.cache/bench-${framework}.json`;
  execFileSync('node_modules/.bin/jest', ['-c', 'bench/jest/jest.config.cjs', '-i', framework], {
    env: { ...process.env, BENCH_WAY: way, BENCH_OUT: out },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  return JSON.parse(readFileSync(out, 'utf8'));
}

export function measuringInJest() {
  return ['react', 'vue'].flatMap((framework) => {
    const runs = { ours: [], bare: [] };
    for (let round = 0; round < 5; round++)
      for (const way of ['ours', 'bare']) runs[way].push(measure(framework, way));
    const [ours, floor] = [runs.ours, runs.bare].map((all) => middle(all.map(({ first }) => first)));
    const warm = middle([...runs.ours, ...runs.bare].map(({ warm: { ratio } }) => ratio));
    const pick = (key) => middle([...runs.ours, ...runs.bare].map(({ warm: one }) => one[key]));
    const name = framework === 'vue' ? 'Vue, in Jest' : 'React, in Jest';
    return [
      {
        name: `${name}: the first ten subjects of a file`,
        against: 'bare, ten times',
        ours,
        floor,
        ratio: ours / floor,
      },
      {
        name: `${name}: isolate and take down, warm`,
        against: 'bare',
        ours: pick('ours'),
        floor: pick('floor'),
        ratio: warm,
      },
    ];
  });
}
