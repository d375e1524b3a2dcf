import { execFileSync } from 'node:child_process';

const rounds = 21;
const middle = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)];

// A process of its own each time, with the framework there already, as it is in any test of a component.
const load = (before, names) =>
  Number(
    execFileSync(
      process.execPath,
      [
        '-e',
        `${before.map((name) => `require('${name}');`).join('')} const start = performance.now(); ${names.map((name) => `require('${name}');`).join('')} console.log(performance.now() - start)`,
      ],
      { encoding: 'utf8' },
    ),
  );

const angular = ['compiler', 'core', 'common', 'common/http', 'platform-browser'].map(
  (name) => `@angular/${name}`,
);
const floors = {
  'react-dom/client': { before: ['react'], names: ['react-dom/client'] },
  vue: { before: [], names: ['vue'] },
  'Angular (core, compiler, common, platform-browser)': { before: [], names: angular },
};
const [react, vue, all] = Object.keys(floors);
const entries = [
  { name: 'simulacra', before: ['react'], against: react },
  { name: 'simulacra/jest', before: ['react'], against: react },
  { name: 'simulacra/react', before: ['react'], against: react },
  { name: 'simulacra/vue', before: ['vue'], against: vue },
  { name: 'simulacra/angular', before: angular, against: all },
];

const why =
  'nearly all of it is the engine reading the text of the file, which is one file for each entry; parts that only a failure needs could be read when there is one.';

export async function loading() {
  const times = new Map(
    [...Object.keys(floors), ...entries.map(({ name }) => name)].map((name) => [name, []]),
  );
  for (let round = 0; round < rounds; round++) {
    for (const [name, { before, names }] of Object.entries(floors)) times.get(name).push(load(before, names));
    for (const { name, before } of entries) times.get(name).push(load(before, [name]));
  }
  return entries.map(({ name, against }) => {
    const ours = middle(times.get(name));
    const floor = middle(times.get(against));
    return {
      name: `loading ${name}`,
      against: `loading ${against}`,
      goal: 0.2,
      ours,
      floor,
      ratio: ours / floor,
      why: ours / floor > 0.2 ? why : undefined,
    };
  });
}
