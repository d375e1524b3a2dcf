/* Run by bench/in-jest.mjs: what a user pays inside of Jest. */
const { isolate } = require('simulacra/vue');
const { takeDown } = require('simulacra');
const { createApp, defineComponent, h, nextTick } = require('vue');
const { measureInJest } = require('./measure.cjs');

const Label = defineComponent({
  name: 'Label',
  props: ['name'],
  render() {
    return h('p', this.name);
  },
});

async function bare() {
  const container = document.body.appendChild(document.createElement('div'));
  const app = createApp(Label, { name: 'Anemone' });
  app.mount(container);
  await nextTick();
  app.unmount();
  container.remove();
}
async function ours() {
  await isolate(Label, { props: { name: 'Anemone' } });
  await takeDown();
}

measureInJest({ ours, bare });
