// Prints as JSON what a page hears in each sequence: of a real person's input in a real browser, of our
// gestures in the same browser, and of our gestures in a simulated page.
import { Script } from 'node:vm';
import { build } from 'esbuild';
import { JSDOM, VirtualConsole } from 'jsdom';
import { openBrowser } from '../../scripts/browser.mjs';
import { sequences } from './sequences/index.mjs';

const [only = ''] = process.argv.slice(2);
const chosen = Object.entries(sequences).filter(([name]) => name.includes(only));

/** Runs in the page: writes down every event that reaches an element with an id. */
function listen(window) {
  let heard = [];
  const each = (before, ...names) => names.map((name) => before + name);
  const types = [
    ...each('pointer', 'over', 'enter', 'move', 'down', 'up', 'out', 'leave', 'cancel'),
    ...each('mouse', 'over', 'enter', 'move', 'down', 'up', 'out', 'leave'),
    ...each('touch', 'start', 'move', 'end', 'cancel'),
    ...each('drag', 'start', '', 'enter', 'over', 'leave', 'end'),
    ...each('key', 'down', 'press', 'up'),
    ...each('composition', 'start', 'update', 'end'),
    ...['click', 'dblclick', 'auxclick', 'contextmenu', 'wheel', 'scroll', 'drop', 'copy', 'cut', 'paste'],
    ...['focus', 'focusin', 'blur', 'focusout', 'beforeinput', 'input', 'change', 'search'],
    ...['submit', 'reset', 'invalid', 'cancel', 'close', 'beforetoggle', 'toggle'],
  ];
  const idOf = (node) => node?.id ?? '';
  const keysOf = (event) =>
    ['ctrlKey', 'shiftKey', 'altKey', 'metaKey'].filter((key) => event[key]).map((key) => key.slice(0, -3));
  const details = {
    key: (event) => [event.key, event.code, event.keyCode, ...keysOf(event)],
    mouse: (event) => [
      event.button,
      event.buttons,
      event.detail,
      ...keysOf(event),
      idOf(event.relatedTarget),
    ],
    pointer: (event) => [event.button, event.buttons, event.pointerType, idOf(event.relatedTarget)],
    input: (event) => [event.inputType, event.data, event.target.value ?? event.target.textContent],
    focus: (event) => [idOf(event.relatedTarget)],
    composition: (event) => [event.data],
    drag: (event) => [event.button, event.buttons, event.dataTransfer?.files.length],
    submit: (event) => [idOf(event.submitter)],
    toggle: (event) => [event.oldState, event.newState],
  };
  const kindOf = (type) => {
    if (/^(key|mouse|pointer|composition|submit)/.test(type))
      return /^(key|mouse|pointer|composition|submit)/.exec(type)[0];
    if (/^(click|dblclick|auxclick|contextmenu)$/.test(type)) return 'mouse';
    if (/^(drag|drop)/.test(type)) return 'drag';
    if (/^(focus|blur)/.test(type)) return 'focus';
    if (/input$/.test(type)) return 'input';
    return /toggle$/.test(type) ? 'toggle' : '';
  };
  for (const type of types) {
    const hear = (event) => {
      const { id } = event.target;
      if (!id || (type === 'scroll' && heard.some((one) => one.event.type === 'scroll'))) return;
      const told = details[kindOf(type)]?.(event) ?? [];
      heard.push({
        event,
        told: [type, id, ...told.filter((part) => part !== '' && part !== undefined)].join(' '),
      });
    };
    window.document.addEventListener(type, hear, true);
  }
  window.addEventListener('submit', (event) => event.target.method !== 'dialog' && event.preventDefault());
  window.heard = () => {
    const told = heard.map(({ event, told }) => told + (event.defaultPrevented ? ' prevented' : ''));
    heard = [];
    // How often a browser tells that something is still over an element depends on its speed.
    const once = told.filter((one, at) => one !== told[at - 1]);
    // These come in tasks of their own, whose order a browser does not promise.
    const isQueued = (one) => /^(toggle|close) /.test(one);
    return [...once.filter((one) => !isQueued(one)), ...once.filter(isQueued).sort()];
  };
}

const htmlOf = ({ on }) => `<!doctype html><html lang="en"><body style="margin: 40px">${on}</body></html>`;

/** Runs in the page: where a sequence begins. */
function begin(window, { start, caret, before }) {
  if (before) window.eval(before);
  if (start) window.document.getElementById(start).focus();
  if (caret) window.document.getElementById(start).setSelectionRange(...caret);
}
/** Runs in the page: what is left of it. */
function stateOf(window) {
  const fields = [...window.document.querySelectorAll('input,textarea,select,[contenteditable]')];
  return [
    `focus ${window.document.activeElement.id}`,
    ...fields.map(
      ({ id, type, value, textContent, checked }) =>
        `${id} ${/checkbox|radio/.test(type) ? checked : type === 'file' ? '' : (value ?? textContent)}`,
    ),
    ...[...window.document.querySelectorAll('details,dialog')].map(({ id, open }) => `${id} ${open}`),
  ];
}

const heardOf = {};
const note = (who, name, heard) => {
  const { ignores } = sequences[name];
  const told = ignores ? heard.filter((one) => !one.startsWith(ignores)) : heard;
  (heardOf[name] ??= {})[who] = told;
};

const tick = () => new Promise((done) => setTimeout(done, 20));
/** Lets each sequence be acted in a browser of its own, so that it has its own focus and clipboard. */
async function inBrowser(who, open, act) {
  const { browser, close } = await openBrowser();
  try {
    for (const [name, sequence] of chosen) {
      const page = await open(browser);
      await page.setContent(htmlOf(sequence));
      await page.waitForFunction('document.hasFocus()');
      await page.evaluate(`(${begin})(window, ${JSON.stringify(sequence)})`);
      await tick();
      await page.evaluate(`(${listen})(window)`);
      await act(sequence, page);
      await tick();
      note(who, name, await page.evaluate(`[...heard(), ...(${stateOf})(window)]`));
    }
  } finally {
    await close();
  }
}

/** A person's input, each time on a page whose pointer is nowhere yet. */
async function really() {
  let last;
  const open = async (browser) => {
    await last?.close();
    return (last = await browser.newPage());
  };
  await inBrowser('real', open, async ({ real }, page) => real(page, await page.createCDPSession()));
}

/** Our gestures, on one page. */
async function byOurs(code) {
  let page;
  const open = async (browser) => {
    if (page) return page;
    page = await browser.newPage();
    await page.evaluate(code);
    return page;
  };
  await inBrowser('ours', open, ({ ours }) => page.evaluate(`(${perform})(window, ${JSON.stringify(ours)})`));
}

/** Lets each sequence be acted in a simulated page. */
async function simulated(code) {
  const script = new Script(code);
  for (const [name, sequence] of chosen) {
    const dom = new JSDOM(htmlOf(sequence), {
      runScripts: 'dangerously',
      pretendToBeVisual: true,
      virtualConsole: new VirtualConsole(),
    });
    const { window } = dom;
    script.runInContext(dom.getInternalVMContext());
    window.gestures.supplyFeatures(window);
    begin(window, sequence);
    await tick();
    listen(window);
    await perform(window, sequence.ours);
    await tick();
    note('simulated', name, [...window.heard(), ...stateOf(window)]);
    window.close();
  }
}

const bundle = async () => {
  const contents = `
    export { personAt } from './src/page/gestures/acts';
    export { supplyFeatures } from './src/page/globals/features';`;
  const { outputFiles } = await build({
    stdin: { contents, resolveDir: process.cwd() },
    bundle: true,
    format: 'iife',
    globalName: 'gestures',
    minify: true,
    write: false,
  });
  return outputFiles[0].text.replace(/^("use strict";)?\s*var gestures/, '$1window.gestures');
};

/** Runs in the page: our gestures, on elements that are told by their ids. */
async function perform(window, calls) {
  const wait = (ms) => new Promise((done) => window.setTimeout(done, ms));
  const acts = window.gestures.personAt({ document: window.document, send: (work) => work(), wait });
  const read = (one, at, name) =>
    one?.file
      ? new window.File(['{}'], one.file)
      : typeof one === 'string' && name !== 'press' && (at === 0 || name === 'drag')
        ? window.document.getElementById(one)
        : one;
  for (const [name, ...args] of calls) {
    await acts[name](...args.map((one, at) => read(one, at, name)));
    // A person is slower than what waits for the next task.
    await wait(5);
  }
}

const code = await bundle();
await Promise.all([really(), byOurs(code), simulated(code)]);
console.log(JSON.stringify(chosen.map(([name, { differs = {} }]) => ({ name, differs, ...heardOf[name] }))));
