import { isolate } from 'simulacra/react';
import { role, takeDown, text } from 'simulacra';
import { whyHidden } from '../../src/page/hidden';
import { nameOrTextOf, textOf } from '../../src/page/names';
import { roleOf } from '../../src/page/roles';

/* A search takes short cuts. On odd pages it finds what asking each element, one by one, finds. */

const roles = ['button', 'heading', 'listitem', 'list', 'link', 'region', 'table', 'cell', 'status', 'img'];
const more = ['textbox', 'checkbox', 'option', 'group', 'navigation', 'article', 'combobox', 'paragraph'];
const words = ['Hive', '12', 'Anemone', 'a b', ' x', 'Log ', 'Hive 12', '', 'no'];
const wanted = ['Hive', 'Hive 12', 'Hive12', 'Anemone', 'Log', 'a b', '12', 'x'];
const common =
  'div p span b button ul li h2 h3 label section a table summary article figure legend nav em td strong code';
const rare =
  'details dialog fieldset output select option textarea input img br svg wbr template style i ruby rt slot meter';
const attributes: Readonly<Record<string, readonly string[]>> = {
  hidden: ['', 'until-found'],
  style: ['display:none', 'visibility:hidden', 'visibility:visible', 'display:inline', 'float:left'],
  role: ['button', 'none', 'heading', 'status', 'img', 'list'],
  type: ['checkbox', 'hidden', 'submit', 'text'],
  ...{ 'aria-hidden': ['true', 'false'], 'aria-label': ['Hive', 'Log', ''], title: ['Hive', 'x'] },
  ...{ 'aria-labelledby': ['q', 'r'], 'aria-owns': ['q'], id: ['q', 'r'], for: ['q'], class: ['c'] },
  ...{ alt: ['Hive', ''], value: ['Hive', '12'], open: [''], href: ['/'], inert: [''], popover: [''] },
};

/** The same odd pages in each run. */
function oddPages(seed: number) {
  let state = seed;
  const below = (limit: number) => {
    state = (state * 1103515245 + 12345) % 0x80000000;
    return Math.floor((state / 0x80000000) * limit);
  };
  const one = <T,>(all: readonly T[]): T => all[below(all.length)]!;
  const make = (tags: readonly string[], depth: number): Node => {
    if (depth === 0 || below(3) === 0) return document.createTextNode(one(words));
    const element = document.createElement(one(tags));
    for (let n = below(3); n > 0; n--) {
      const [name, values] = one(Object.entries(attributes));
      if (tags.length > 30 || name === 'class') element.setAttribute(name, one(values));
    }
    const places: ParentNode[] = [element];
    if (tags.length > 30 && element.localName === 'div' && below(6) === 0)
      places.push(element.attachShadow({ mode: 'open' }));
    for (const place of places) for (let n = below(4); n >= 0; n--) place.append(make(tags, depth - 1));
    return element;
  };
  return (tags: string) => Array.from({ length: 1 + below(4) }, () => make(tags.split(' '), 4));
}

function* elementsIn(place: ParentNode): Generator<Element> {
  for (const child of place.children) {
    yield child;
    yield* elementsIn(child);
    if (child.shadowRoot) yield* elementsIn(child.shadowRoot);
  }
}

function isIn(outer: Element, inner: Element): boolean {
  for (let at: Node | null = inner; at; at = at.parentNode ?? (at as Partial<ShadowRoot>).host ?? null)
    if (at === outer) return true;
  return false;
}

const isVisible = (aria: boolean) => (element: Element) => whyHidden(element, aria) === undefined;

function ofText(all: readonly Element[], said: string): Element[] {
  const fitting = all.filter(
    (element) =>
      !element.closest('style') && (element.shadowRoot ?? element).firstChild && textOf(element) === said,
  );
  // The innermost ones.
  return fitting
    .filter((element) => !fitting.some((other) => other !== element && isIn(element, other)))
    .filter(isVisible(false));
}

it.each([
  ['common pages', common],
  ['odd ones', `${common} ${rare}`],
])('%s', async (_, tags) => {
  const parts = oddPages(13);
  for (let page = 0; page < 60; page++) {
    const place = document.createElement('main');
    place.append(...parts(tags));
    const subject = await isolate(() => <div ref={(element) => element?.append(place)} />);
    const all = [...elementsIn(subject.container)];
    const differ = (found: readonly Element[], expected: readonly Element[]) =>
      found.length !== expected.length || found.some((element) => !expected.includes(element));
    const wrong: unknown[] = [];
    for (const kind of [...roles, ...more]) {
      const known = all.filter((element) => roleOf(element) === kind).filter(isVisible(true));
      if (differ(subject.findAll(role(kind)), known)) wrong.push(role(kind));
      for (const name of wanted) {
        const named = known.filter((element) => nameOrTextOf(element) === name);
        if (differ(subject.findAll(role(kind, name)), named)) wrong.push(role(kind, name));
      }
    }
    for (const said of wanted)
      if (differ(subject.findAll(text(said)), ofText(all, said))) wrong.push(text(said));
    expect({ wrong, of: place.outerHTML }).toEqual({ wrong: [], of: place.outerHTML });
    await takeDown();
  }
});
