import './page.mjs';
import { isolate } from 'simulacra/vue';
import { createApp, defineComponent, h, nextTick } from 'vue';
import { compare, compareBatches, isolatedBy, turn } from './measure.mjs';

const Label = defineComponent({
  name: 'Label',
  props: ['name'],
  render() {
    return h('p', this.name);
  },
});

// Heavy as real cards are: some forty elements, each with attributes.
const Card = defineComponent({
  name: 'Card',
  props: ['hive'],
  render() {
    return h(
      'article',
      { class: 'card' },
      Array.from({ length: 20 }, (_, n) =>
        h('div', { key: n, title: `row ${n}` }, h('span', `${this.hive} ${n}`)),
      ),
    );
  },
});
const Yard = defineComponent({
  name: 'Yard',
  render: () =>
    h(
      'section',
      Array.from({ length: 100 }, (_, n) => h(Card, { key: n, hive: `h${n}` })),
    ),
});

// As a component library has it: a component for each row, cell and button.
const Cell = defineComponent({
  name: 'Cell',
  setup:
    (_, { slots }) =>
    () =>
      h('td', slots.default()),
});
const Open = defineComponent({
  name: 'Open',
  props: ['hive'],
  setup: (props) => () => h('button', { type: 'button', onClick() {} }, `Open ${props.hive}`),
});
const Row = defineComponent({
  name: 'Row',
  props: ['hive'],
  setup: (props) => () =>
    h('tr', [
      h(Cell, () => props.hive),
      h(Cell, () => '31.2 kg'),
      h(Cell, () => 'calm'),
      h(Cell, () => h(Open, { hive: props.hive })),
    ]),
});
const Table = defineComponent({
  name: 'Table',
  render: () =>
    h('table', [
      h(
        'tbody',
        Array.from({ length: 200 }, (_, n) => h(Row, { key: n, hive: `h${n}` })),
      ),
    ]),
});

/** A mount with nothing around it, brought to rest by the same number of turns. */
async function bare(component, props) {
  const container = document.body.appendChild(document.createElement('div'));
  const app = createApp(component, props);
  app.mount(container);
  await nextTick();
  await turn();
  app.unmount();
  container.remove();
}

const isolated = isolatedBy(isolate);

export async function mountingVue() {
  const props = { name: 'Anemone' };
  const trivial = await compare({
    ours: isolated(Label, { props }),
    floor: () => bare(Label, props),
    rounds: 1500,
  });
  const batches = await compareBatches({ ours: isolated(Label, { props }), floor: () => bare(Label, props) });
  const full = await compare({ ours: isolated(Yard, {}), floor: () => bare(Yard), rounds: 60 });
  const table = await compare({ ours: isolated(Table, {}), floor: () => bare(Table), rounds: 60 });
  const stubbed = await compare({
    ours: isolated(Yard, { stub: [Card] }),
    floor: () => bare(Yard),
    rounds: 60,
  });
  const more = ((trivial.ours - trivial.floor) * 1000).toFixed(0);
  const why = `the ${more} µs more are the watch over the page and the environment of the subject, its container, and what an application provides, throws and warns of. Bare Vue mounts this in so little that they weigh much; they are paid once for a subject, whatever its size: see the next row.`;
  return [
    {
      name: 'Vue: isolate a trivial component and take it down',
      against: 'bare mount, same turns',
      goal: 1.7,
      ...trivial,
      why: trivial.ratio > 1.7 ? why : undefined,
    },
    {
      name: 'Vue: the same in batches of 50, collection counted',
      against: 'the same, bare',
      goal: 2.5,
      ...batches,
      why:
        batches.ratio > 2.5
          ? 'it is the row above with what is left to be collected: the records, the closures and the promises of a subject.'
          : undefined,
    },
    { name: 'Vue: isolate 100 heavy children, in full', against: 'bare mount', goal: 1.3, ...full },
    { name: 'Vue: isolate a table of 200 rows', against: 'bare mount', goal: 1.1, ...table },
    { name: 'Vue: isolate 100 heavy children, stubbed', against: 'bare mount in full', goal: 1, ...stubbed },
  ];
}
