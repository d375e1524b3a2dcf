// Prints as JSON what a page hears: of a real person's input in a real browser, of our gestures in the
// same browser, and of our gestures in a simulated page.
import { build } from 'esbuild';
import { JSDOM } from 'jsdom';
import { openBrowser } from '../../scripts/browser.mjs';

const source = `
  export { click, moveFocus } from './src/page/gestures/click';
  export { press, typeKeys, clearField } from './src/page/gestures/keyboard';
  export { choose } from './src/page/gestures/choose';`;
const { outputFiles } = await build({
  stdin: { contents: source, resolveDir: process.cwd() },
  bundle: true,
  format: 'iife',
  globalName: 'gestures',
  write: false,
});
const code = outputFiles[0].text;

const html = `<!doctype html><html lang="en"><body style="margin: 40px">
  <form id="form">
    <p><label id="label">Note <input id="note"></label></p>
    <p><input id="marked" type="checkbox"></p>
    <p><input id="calm" type="radio" name="mood" checked><input id="angry" type="radio" name="mood"></p>
    <p><textarea id="log"></textarea></p>
    <p><button id="save" type="button">Save</button> <button id="off" disabled>Off</button></p>
  </form></body></html>`;

/** Runs in the page: writes down every event that reaches an element with an id. */
function listen(window) {
  const heard = [];
  const pointer = ['over', 'enter', 'move', 'down', 'up'].flatMap((what) => [
    `pointer${what}`,
    `mouse${what}`,
  ]);
  const others = [
    'click',
    'focus',
    'focusin',
    'blur',
    'focusout',
    'keydown',
    'keypress',
    'keyup',
    'beforeinput',
    'input',
    'change',
    'submit',
  ];
  for (const type of [...pointer, ...others]) {
    const hear = (event) => {
      const { id } = event.target;
      if (!id || (id === 'form' && type !== 'submit')) return;
      if (type === 'submit') event.preventDefault();
      const told = type.startsWith('key')
        ? event.key
        : type.endsWith('input')
          ? `${event.inputType ?? ''}:${event.data ?? ''}`
          : type === 'click'
            ? event.detail
            : /down$/.test(type)
              ? event.buttons
              : '';
      heard.push(`${type} ${id} ${told}`.trim());
    };
    window.document.addEventListener(type, hear, true);
  }
  window.heard = heard;
}

/** What is done, by a person with a mouse and keyboard, and by our gestures. */
const steps = [
  ['click a button', async (page) => page.click('#save'), (g, $, send) => g.click($('save'), send)],
  [
    'type into a field',
    async (page) => {
      await page.click('#note');
      await page.keyboard.type('Ab');
    },
    async (g, $, send) => {
      await g.click($('note'), send);
      await g.typeKeys($('note'), 'Ab', send);
    },
  ],
  [
    'take a letter back',
    async (page) => page.keyboard.press('Backspace'),
    (g, $, send) => g.press($('note'), 'Backspace', send),
  ],
  [
    'leave by Tab',
    async (page) => page.keyboard.press('Tab'),
    (g, $, send) => g.press($('note'), 'Tab', send),
  ],
  [
    'check by the space bar',
    async (page) => page.keyboard.press('Space'),
    (g, $, send) => g.press($('marked'), 'Space', send),
  ],
  ['uncheck by a click', async (page) => page.click('#marked'), (g, $, send) => g.click($('marked'), send)],
  ['choose a radio button', async (page) => page.click('#angry'), (g, $, send) => g.click($('angry'), send)],
  [
    'go to the other by an arrow',
    async (page) => page.keyboard.press('ArrowLeft'),
    (g, $, send) => g.press($('angry'), 'ArrowLeft', send),
  ],
  [
    'break a line',
    async (page) => {
      await page.click('#log');
      await page.keyboard.press('Enter');
    },
    async (g, $, send) => {
      await g.click($('log'), send);
      await g.press($('log'), 'Enter', send);
    },
  ],
  [
    'press a button by Enter',
    async (page) => {
      await page.focus('#save');
      await page.keyboard.press('Enter');
    },
    async (g, $, send) => {
      await g.moveFocus($('save'), $('save').ownerDocument, send);
      await g.press($('save'), 'Enter', send);
    },
  ],
  [
    'press a button by the space bar',
    async (page) => page.keyboard.press('Space'),
    (g, $, send) => g.press($('save'), 'Space', send),
  ],
];

/** What a page has heard in each step. */
async function record(act, hear) {
  const heard = {};
  for (const [name, real, ours] of steps) {
    await act(real, ours);
    heard[name] = await hear();
  }
  return heard;
}

const { browser, close } = await openBrowser();
const openPage = async () => {
  const page = await browser.newPage();
  await page.setContent(html);
  await page.evaluate(`(${listen})(window)`);
  await page.evaluate(code.replace(/^("use strict";)?\s*var gestures/m, 'window.gestures'));
  return page;
};
const hearIn = (page) => () => page.evaluate(() => window.heard.splice(0));

const person = await openPage();
const real = await record((act) => act(person), hearIn(person));
const acted = await openPage();
const ours = await record(
  (_, act) =>
    acted.evaluate(`(${act})(window.gestures, (id) => document.getElementById(id), (work) => work())`),
  hearIn(acted),
);
await close();

const { window } = new JSDOM(html, { runScripts: 'outside-only', pretendToBeVisual: true });
listen(window);
window.eval(code.replace(/^("use strict";)?\s*var gestures/m, 'window.gestures'));
const simulated = await record(
  (_, act) =>
    act(
      window.gestures,
      (id) => window.document.getElementById(id),
      (work) => work(),
    ),
  () => window.heard.splice(0),
);
console.log(JSON.stringify({ real, ours, simulated }));
