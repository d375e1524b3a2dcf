import { execFileSync } from 'node:child_process';

const rounds = 21;
const middle = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)];

// A process of its own each time, with React there already, as it is in any test of a component.
const load = (name) =>
  Number(
    execFileSync(
      process.execPath,
      [
        '-e',
        `require('react'); const start = performance.now(); require('${name}'); console.log(performance.now() - start)`,
      ],
      { encoding: 'utf8' },
    ),
  );

const why =
  'nearly all of it is the engine reading the text of the file, which has to be one file. A sixth of the text is the URL Pattern standard, which Node has built in only since version 23.';

export async function loading() {
  const entries = ['simulacra', 'simulacra/react', 'simulacra/jest'];
  const times = new Map([...entries, 'react-dom/client'].map((name) => [name, []]));
  for (let round = 0; round < rounds; round++) for (const [name, taken] of times) taken.push(load(name));
  const floor = middle(times.get('react-dom/client'));
  return entries.map((name) => {
    const ours = middle(times.get(name));
    return {
      name: `loading ${name}`,
      against: 'loading react-dom/client',
      goal: 0.2,
      ours,
      floor,
      ratio: ours / floor,
      why: ours / floor > 0.2 ? why : undefined,
    };
  });
}
