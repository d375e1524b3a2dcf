// Declared states against the same written by hand, and orders of arrival against running the scenario as often.
import './page.mjs';
import { isolate, states } from 'simulacra/react';
import { everyArrival, role, takeDown, text, verifyStates } from 'simulacra';
import { matchers } from 'simulacra/jest';
import { createElement as h, useEffect, useState } from 'react';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fileURLToPath } from 'node:url';
import { compare, middle, took } from './measure.mjs';

function Board({ yard }) {
  const [names, setNames] = useState();
  useEffect(() => {
    void fetch(`/api/hives?yard=${yard}`).then(async (response) => setNames(await response.json()));
  }, [yard]);
  return h(
    'section',
    { 'aria-label': 'Hives' },
    names
      ? h(
          'ul',
          null,
          names.map((name) => h('li', { key: name }, name)),
        )
      : h('p', { role: 'status' }, 'Loading hives'),
  );
}

const options = (at) => ({
  props: { yard: `y${at}` },
  network: { 'GET /api/hives': Array.from({ length: 10 }, (_, n) => `Hive ${at} ${n}`) },
});
const declared = (count) =>
  states(
    Board,
    {},
    Object.fromEntries(
      Array.from({ length: count }, (_, at) => [
        `state ${at}`,
        { ...options(at), shows: [text(`Hive ${at} 1`)], counts: [[role('listitem'), 10]] },
      ]),
    ),
  );

async function byHand(count) {
  for (let at = 0; at < count; at++) {
    const board = await isolate(Board, options(at));
    const verdicts = [
      matchers.toShow(board, text(`Hive ${at} 1`)),
      matchers.toShow(board, role('listitem'), { times: 10 }),
    ];
    if (!verdicts.every(({ pass }) => pass)) throw new Error('wrong');
    await takeDown();
  }
}

async function verified(board, pairs) {
  const report = await verifyStates(board);
  if (report.pairs.apart !== pairs || !report.states.every(({ holds }) => holds)) throw new Error('wrong');
}

const asks = ['a', 'b', 'c', 'd'];
function Feed() {
  const [came, setCame] = useState([]);
  useEffect(() => {
    for (const ask of asks) void fetch(`/api/${ask}`).then(() => setCame((all) => [...all, ask]));
  }, []);
  return h('output', null, came.join(' '));
}
const scenario = async () => {
  const feed = await isolate(Feed, { network: { 'GET /api/:thing': 'x' } });
  if (feed.find(role('status')).textContent.length !== 7) throw new Error('wrong');
};

const root = fileURLToPath(new URL('..', import.meta.url));

/** A project with many files of states, in which one is asked for. */
function projectOf(count) {
  const place = mkdtempSync(`${tmpdir()}/states-`);
  const put = (name, text) => writeFileSync(`${place}/${name}`, text);
  symlinkSync(`${root}node_modules`, `${place}/node_modules`);
  put(
    'jest.config.cjs',
    `module.exports = {
  ...require('${root}dist/react-jest.cjs'),
  moduleNameMapper: { '^simulacra$': '${root}dist/index.cjs', '^simulacra/(react|jest)$': '${root}dist/$1.cjs' },
  testMatch: ['**/*.states.tsx'],
  setupFilesAfterEnv: ['${root}dist/react.cjs', '${root}dist/jest-states.cjs'],
};`,
  );
  put('Sign.tsx', 'export const Sign = ({ hive }) => <h2>{hive}</h2>;');
  for (let at = 0; at < count; at++)
    put(
      `Sign${at}.states.tsx`,
      `import { role } from 'simulacra';
import { states } from 'simulacra/react';
import { Sign } from './Sign';
export default states(Sign, {}, { named: { props: { hive: 'Anemone ${at}' }, shows: [role('heading', 'Anemone ${at}')] } });`,
    );
  const run = () => {
    const args = ['node_modules/jest/bin/jest.js', '--rootDir', place, 'Sign0.states'];
    const { status, stderr } = spawnSync(process.execPath, args, { cwd: place, encoding: 'utf8' });
    if (status !== 0) throw new Error(stderr);
  };
  run();
  return { run, end: () => rmSync(place, { recursive: true, force: true }) };
}

async function startingUp() {
  const [many, one] = [projectOf(1000), projectOf(1)];
  const times = { ours: [], floor: [], ratios: [] };
  for (let round = 0; round < 5; round++) {
    const [ours, floor] = [await took(many.run), await took(one.run)];
    times.ours.push(ours);
    times.floor.push(floor);
    times.ratios.push(ours / floor);
  }
  many.end();
  one.end();
  const name = 'Jest on one of 1,000 files of states';
  const measured = { ours: middle(times.ours), floor: middle(times.floor), ratio: middle(times.ratios) };
  return { name, against: 'the only one of a project', goal: 1.2, ...measured };
}

export async function verifying() {
  const [hundred, ten] = [declared(100), declared(10)];
  const orders = 24;
  const tried = await compare({
    ours: async () => {
      const result = await everyArrival(scenario);
      if (result.tried !== orders) throw new Error(`${result.tried} orders`);
    },
    floor: async () => {
      for (let at = 0; at < orders; at++) {
        await scenario();
        await takeDown();
      }
    },
    rounds: 15,
  });
  return [
    {
      why: 'in it are 9,900 comparisons of what one state declares with the page of another, which no test by hand makes.',
      ...{
        name: '100 declared states verified, and told apart',
        against: 'a test of each by hand',
        goal: 1.1,
      },
      ...(await compare({ ours: () => verified(hundred, 9900), floor: () => byHand(100), rounds: 10 })),
    },
    {
      ...{
        name: '10 declared states verified, and told apart',
        against: 'a test of each by hand',
        goal: 1.1,
      },
      ...(await compare({ ours: () => verified(ten, 90), floor: () => byHand(10), rounds: 30 })),
    },
    {
      ...{ name: `a scenario in its ${orders} orders of arrival`, against: 'the scenario as often' },
      why: `${Math.round((orders / tried.ours) * 1000)} orders a second; an answer at a time is rendered by itself, and none is left out.`,
      ...tried,
    },
    await startingUp(),
  ];
}
