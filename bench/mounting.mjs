import './page.mjs';
import { isolate } from 'simulacra/react';
import { act, createElement as h } from 'react';
import { createRoot } from 'react-dom/client';
import { compare, compareBatches, isolatedBy, turn } from './measure.mjs';

const Label = ({ name }) => h('p', null, name);

// Heavy as real cards are: some forty elements, each with attributes.
const Card = ({ hive }) =>
  h(
    'article',
    { className: 'card' },
    Array.from({ length: 20 }, (_, n) =>
      h('div', { key: n, title: `row ${n}` }, h('span', null, `${hive} ${n}`)),
    ),
  );
const Yard = () =>
  h(
    'section',
    null,
    Array.from({ length: 100 }, (_, n) => h(Card, { key: n, hive: `h${n}` })),
  );

// As a component library has it: a component for each row, cell and button.
const Cell = ({ children }) => h('td', null, children);
const Open = ({ hive }) => h('button', { type: 'button', onClick() {} }, `Open ${hive}`);
const Row = ({ hive }) =>
  h(
    'tr',
    null,
    h(Cell, null, hive),
    h(Cell, null, '31.2 kg'),
    h(Cell, null, 'calm'),
    h(Cell, null, h(Open, { hive })),
  );
const Table = () =>
  h(
    'table',
    null,
    h(
      'tbody',
      null,
      Array.from({ length: 200 }, (_, n) => h(Row, { key: n, hive: `h${n}` })),
    ),
  );

/** A mount with nothing around it, rendered and brought to rest by the same number of turns. */
async function bare(component, props) {
  globalThis.IS_REACT_ACT_ENVIRONMENT = true;
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  await act(async () => root.render(h(component, props)));
  await act(turn);
  await act(async () => root.unmount());
  container.remove();
  globalThis.IS_REACT_ACT_ENVIRONMENT = undefined;
}

const isolated = isolatedBy(isolate);

export async function mounting() {
  const props = { name: 'Anemone' };
  const trivial = await compare({
    ours: isolated(Label, { props }),
    floor: () => bare(Label, props),
    rounds: 1500,
  });
  const more = ((trivial.ours - trivial.floor) * 1000).toFixed(0);
  const why = `the ${more} µs more are the boundary around the subject (a component of its own to React), the watch over the page, the record of what happened, and the environment of the subject (gate, open work, steps), and what is told of at its end. Globals are installed once, and a container is used again with its root. It is paid once for a subject, whatever its size: see the next row.`;
  const batches = await compareBatches({ ours: isolated(Label, { props }), floor: () => bare(Label, props) });
  const full = await compare({ ours: isolated(Yard, {}), floor: () => bare(Yard), rounds: 60 });
  const table = await compare({ ours: isolated(Table, {}), floor: () => bare(Table), rounds: 60 });
  const stubbed = await compare({
    ours: isolated(Yard, { stub: [Card] }),
    floor: () => bare(Yard),
    rounds: 60,
  });
  return [
    {
      name: 'isolate a trivial component and take it down',
      against: 'bare mount, same flushing',
      goal: 1.15,
      ...trivial,
      why: trivial.ratio > 1.15 ? why : undefined,
    },
    {
      name: 'the same in batches of 50, collection counted',
      against: 'the same, bare',
      goal: 1.2,
      ...batches,
      why:
        batches.ratio > 1.2
          ? 'it is the row above with what is left to be collected: the records, the closures and the promises of a subject.'
          : undefined,
    },
    { name: 'isolate 100 heavy children, in full', against: 'bare mount', goal: 1.3, ...full },
    { name: 'isolate a table of 200 rows', against: 'bare mount', goal: 1.1, ...table },
    { name: 'isolate 100 heavy children, stubbed', against: 'bare mount in full', goal: 1, ...stubbed },
  ];
}
