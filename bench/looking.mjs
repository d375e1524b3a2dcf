import './page.mjs';
import { isolate } from 'simulacra/react';
import { role, takeDown } from 'simulacra';
import { createElement as h } from 'react';
import { build } from 'esbuild';
import { compare } from './measure.mjs';

const rows = Array.from({ length: 1000 }, (_, n) => n);
const Table = () =>
  h(
    'table',
    null,
    h(
      'tbody',
      null,
      rows.map((n) =>
        h(
          'tr',
          { key: n },
          h('td', null, `Hive ${n}`),
          h('td', null, `${n} kg`),
          h('td', null, 'calm'),
          h('td', null, h('button', null, `Open hive ${n}`)),
        ),
      ),
    ),
  );

// The same names and roles, computed for every element there is, and only then compared.
const source = `export { nameOf } from './src/page/names'; export { roleOf } from './src/page/roles';`;
const { outputFiles } = await build({
  stdin: { contents: source, resolveDir: '.' },
  bundle: true,
  format: 'esm',
  write: false,
});
const { nameOf, roleOf } = await import(
  `data:text/javascript;base64,${Buffer.from(outputFiles[0].text).toString('base64')}`
);

export async function looking() {
  const subject = await isolate(Table);
  const naive = (wanted, name) => {
    const named = [...subject.container.querySelectorAll('*')].map((element) => [
      element,
      roleOf(element),
      nameOf(element),
    ]);
    return named.filter(([, role, said]) => role === wanted && said === name).map(([element]) => element);
  };
  const find = (wanted, name) =>
    compare({
      ours: () => {
        if (subject.find(role(wanted, name)).localName === '') throw new Error('not found');
      },
      floor: () => {
        if (naive(wanted, name).length !== 1) throw new Error('not found');
      },
      rounds: 12,
    });
  const button = await find('button', 'Open hive 700');
  const row = await find('row', 'Hive 700 700 kg calm Open hive 700');
  await takeDown();
  return [
    {
      name: 'find a button by name in a table of 1,000 rows',
      against: 'naive walk over every name',
      goal: 0.2,
      ...button,
    },
    { name: 'find a row by name in a table of 1,000 rows', against: 'naive walk over every name', ...row },
  ];
}
