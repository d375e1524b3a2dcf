// Prints as JSON what each snippet is to assistive technology: as Chromium has it in its own accessibility
// tree, as this library reads it in Chromium, and as this library reads it in a simulated page.
import { readFileSync } from 'node:fs';
import { build } from 'esbuild';
import { JSDOM } from 'jsdom';
import { openBrowser } from '../../scripts/browser.mjs';

const { outputFiles } = await build({
  entryPoints: [new URL('reading.ts', import.meta.url).pathname],
  bundle: true,
  format: 'iife',
  globalName: 'reading',
  write: false,
});
const code = outputFiles[0].text;

const snippets = [];
let chapter = '';
for (const line of readFileSync(new URL('snippets.txt', import.meta.url), 'utf8').split('\n')) {
  if (line.startsWith('# ')) chapter = line.slice(2);
  else if (line.trim()) {
    const [shown, disputed = ''] = line.split(' !! ');
    const [html, script = ''] = shown.split(' :: ');
    snippets.push({ chapter, html, script, disputed });
  }
}

/** Runs in a page: puts a snippet into its body and returns the element that is asked about. */
function show(document, { html, script }) {
  document.body.innerHTML = html;
  const fill = (root) => {
    for (const template of [...root.querySelectorAll('template[shadow]')]) {
      const shadow = template.parentElement.attachShadow({ mode: 'open' });
      shadow.append(template.content);
      template.remove();
      fill(shadow);
    }
  };
  fill(document.body);
  const seek = (root) => {
    const found = root.querySelector('[ask]');
    if (found) return found;
    for (const element of root.querySelectorAll('*')) {
      const inner = element.shadowRoot && seek(element.shadowRoot);
      if (inner) return inner;
    }
    return null;
  };
  const it = seek(document.body);
  it?.removeAttribute('ask');
  if (script) new Function('it', script)(it);
  return it;
}

// In a simulated page, with what the library adds to one.
function readSimulated() {
  const { window } = new JSDOM('<!doctype html><html lang="en"><body></body></html>', {
    pretendToBeVisual: true,
    runScripts: 'outside-only',
  });
  window.eval(`${code}\nreading.prepare(); window.reading = reading;`);
  return snippets.map((snippet) => {
    const it = show(window.document, snippet);
    return it ? window.reading.read(it) : undefined;
  });
}

async function readBrowser() {
  const { browser, close } = await openBrowser();
  try {
    const page = await browser.newPage();
    await page.setContent('<!doctype html><html lang="en"><body></body></html>');
    await page.evaluate(`${code}; window.reading = reading; window.show = ${show}`);
    const session = await page.createCDPSession();
    await session.send('Accessibility.enable');
    const seen = [];
    for (const snippet of snippets) {
      const { result } = await session.send('Runtime.evaluate', {
        expression: `window.it = show(document, ${JSON.stringify(snippet)})`,
      });
      if (!result.objectId) {
        seen.push(undefined);
        continue;
      }
      // What is off the screen is laid out at the next frame.
      if (snippet.html.includes('content-visibility'))
        await page.evaluate('new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)))');
      const { nodes } = await session.send('Accessibility.getPartialAXTree', {
        objectId: result.objectId,
        fetchRelatives: false,
      });
      seen.push({ node: nodes[0], ours: await page.evaluate('reading.read(it)') });
    }
    return seen;
  } finally {
    await close();
  }
}

// Roles that only Chromium has, by what the standards call them; the empty ones have none.
const roleNames = {
  ...{ generic: '', none: '', DescriptionList: '', Iframe: '', Abbr: '', Canvas: '' },
  // An input of a kind that HTML-AAM leaves open.
  ...{ ColorWell: '', Date: '', InputTime: '' },
  // Chromium guesses from their looks which tables are only layout.
  ...{ LayoutTable: 'table', LayoutTableRow: 'row', LayoutTableCell: 'cell' },
  ...{ image: 'img', MathMLMath: 'math', SvgRoot: 'graphics-document', Figcaption: 'caption' },
  // Of the draft of ARIA 1.3, for what is neither banner nor contentinfo.
  ...{ sectionheader: '', sectionfooter: '', DisclosureTriangle: 'button' },
};
const hiding = new Set([
  ...['notRendered', 'notVisible', 'ariaHiddenElement', 'ariaHiddenSubtree', 'inertElement', 'inertSubtree'],
  'activeModalDialog',
]);
const compared = ['level', 'checked', 'pressed', 'selected', 'expanded', 'disabled', 'required', 'invalid'];

const fold = (text = '') => text.replace(/\s+/g, ' ').trim();
const said = (value) => (value === 'true' ? true : value === 'false' || value === undefined ? false : value);

/** What Chromium has of an element, in the words of the standards. */
function readNode({ role, name, description, properties = [], ignoredReasons = [] }) {
  const reasons = ignoredReasons.map((reason) => reason.name);
  if (reasons.some((reason) => hiding.has(reason))) return { isHidden: true };
  const is = Object.fromEntries(properties.map((property) => [property.name, property.value.value]));
  const told = {
    isHidden: false,
    role: roleNames[role?.value] ?? role?.value ?? '',
    name: fold(name?.value),
    description: fold(description?.value),
    ...Object.fromEntries(compared.map((key) => [key, said(is[key])])),
    readonly: said(is.readonly),
    busy: is.busy === 1 || is.busy === true,
  };
  // What it passes over has neither name nor states.
  return reasons.length > 0 ? { isHidden: false, role: told.role } : told;
}

/** The same of what the library reads. */
function readOurs(ours, node) {
  if (ours.isHidden) return { isHidden: true };
  const told = { ...ours, role: ours.role === 'presentation' ? '' : ours.role };
  return Object.fromEntries(Object.keys(node).map((key) => [key, told[key] ?? false]));
}

const simulated = readSimulated();
const browser = await readBrowser();
const rows = snippets.map(({ chapter, html, script, disputed }, at) => {
  if (!browser[at] || !simulated[at]) throw new Error(`Nothing is asked about in ${html}`);
  const node = readNode(browser[at].node);
  return {
    chapter,
    html: script ? `${html} :: ${script}` : html,
    disputed,
    chromium: node,
    browser: readOurs(browser[at].ours, node),
    simulated: readOurs(simulated[at], node),
  };
});
console.log(JSON.stringify(rows));
