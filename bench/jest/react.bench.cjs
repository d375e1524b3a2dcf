/* Run by bench/in-jest.mjs: what a user pays inside of Jest. */
const { isolate } = require('simulacra/react');
const { takeDown } = require('simulacra');
const { act, createElement } = require('react');
const { createRoot } = require('react-dom/client');
const { measureInJest } = require('./measure.cjs');

const Label = ({ name }) => createElement('p', null, name);
const turn = () => new Promise((resolve) => setTimeout(resolve, 0));

async function bare() {
  globalThis.IS_REACT_ACT_ENVIRONMENT = true;
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  await act(async () => root.render(createElement(Label, { name: 'Anemone' })));
  await act(async () => {});
  await act(async () => root.unmount());
  container.remove();
  globalThis.IS_REACT_ACT_ENVIRONMENT = undefined;
}
async function ours() {
  await isolate(Label, { props: { name: 'Anemone' } });
  await takeDown();
}

measureInJest({ ours, bare, turn });
