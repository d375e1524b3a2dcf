/**
 * The role an element has by itself, from its tag and attributes.
 *
 * @see https://www.w3.org/TR/html-aam-1.0/#html-element-role-mappings
 */
type Implicit = string | ((element: Element) => string | undefined);

const has = (name: string) => (element: Element) => element.hasAttribute(name);
const sectioning = 'article,aside,main,nav,section';

const landmark = (role: string) => (element: Element) =>
  element.parentElement?.closest(sectioning) ? undefined : role;

const inputRoles: Record<string, string | undefined> = {
  button: 'button',
  checkbox: 'checkbox',
  email: 'textbox',
  image: 'button',
  number: 'spinbutton',
  radio: 'radio',
  range: 'slider',
  reset: 'button',
  search: 'searchbox',
  submit: 'button',
  tel: 'textbox',
  text: 'textbox',
  url: 'textbox',
};

function inputRole(element: Element): string | undefined {
  const type = (element as HTMLInputElement).type;
  const role = inputRoles[type];
  return element.hasAttribute('list') && (role === 'textbox' || role === 'searchbox') ? 'combobox' : role;
}

const isNamed = (element: Element) =>
  ['aria-label', 'aria-labelledby', 'title'].some((name) => element.hasAttribute(name));

const implicit: Record<string, Implicit> = {
  a: (element) => (has('href')(element) ? 'link' : undefined),
  address: 'group',
  area: (element) => (has('href')(element) ? 'link' : undefined),
  article: 'article',
  aside: 'complementary',
  blockquote: 'blockquote',
  button: 'button',
  caption: 'caption',
  code: 'code',
  datalist: 'listbox',
  dd: 'definition',
  del: 'deletion',
  details: 'group',
  dfn: 'term',
  dialog: 'dialog',
  dt: 'term',
  em: 'emphasis',
  fieldset: 'group',
  figure: 'figure',
  footer: landmark('contentinfo'),
  form: (element) => (isNamed(element) ? 'form' : undefined),
  h1: 'heading',
  h2: 'heading',
  h3: 'heading',
  h4: 'heading',
  h5: 'heading',
  h6: 'heading',
  header: landmark('banner'),
  hr: 'separator',
  img: (element) => (element.getAttribute('alt') === '' ? 'presentation' : 'img'),
  input: inputRole,
  ins: 'insertion',
  li: 'listitem',
  main: 'main',
  math: 'math',
  menu: 'list',
  meter: 'meter',
  nav: 'navigation',
  ol: 'list',
  optgroup: 'group',
  option: 'option',
  output: 'status',
  p: 'paragraph',
  progress: 'progressbar',
  search: 'search',
  section: (element) => (isNamed(element) ? 'region' : undefined),
  select: (element) =>
    has('multiple')(element) || Number(element.getAttribute('size')) > 1 ? 'listbox' : 'combobox',
  strong: 'strong',
  sub: 'subscript',
  summary: 'button',
  sup: 'superscript',
  svg: 'graphics-document',
  table: 'table',
  tbody: 'rowgroup',
  td: (element) => (element.closest('table')?.getAttribute('role') === 'grid' ? 'gridcell' : 'cell'),
  textarea: 'textbox',
  tfoot: 'rowgroup',
  th: (element) => (element.getAttribute('scope') === 'row' ? 'rowheader' : 'columnheader'),
  thead: 'rowgroup',
  time: 'time',
  tr: 'row',
  ul: 'list',
};

/** The ARIA role of an element; undefined for one that has none (a plain `div` or `span`). */
export function roleOf(element: Element): string | undefined {
  const given = element.getAttribute('role')?.trim().split(/\s+/)[0];
  if (given) return given === 'none' ? 'presentation' : given === 'image' ? 'img' : given;
  const own = implicit[element.localName];
  return typeof own === 'function' ? own(element) : own;
}

// Which tags can have a role by themselves: asking only these keeps a search off the other elements.
const probes: Record<string, string> = {
  banner: 'header',
  button: 'button,input,summary',
  cell: 'td',
  checkbox: 'input',
  combobox: 'select,input',
  contentinfo: 'footer',
  gridcell: 'td',
  form: 'form',
  img: 'img',
  link: 'a[href],area[href]',
  listbox: 'select,datalist',
  presentation: 'img',
  radio: 'input',
  region: 'section',
  columnheader: 'th',
  rowheader: 'th',
  searchbox: 'input',
  slider: 'input',
  spinbutton: 'input',
  textbox: 'input,textarea',
};
for (const [tag, role] of Object.entries(implicit)) {
  if (typeof role === 'string' && !probes[role]?.split(',').includes(tag)) {
    probes[role] = probes[role] ? `${probes[role]},${tag}` : tag;
  }
}

/** A selector for every element that may have the role. */
export const selectorOf = (role: string): string => `${probes[role] ? `${probes[role]},` : ''}[role]`;

const tags = new Map<string, ReadonlySet<string>>();

/** The tags that can have a role by themselves. */
export function tagsOf(role: string): ReadonlySet<string> {
  let found = tags.get(role);
  if (!found) {
    const probe = probes[role]?.split(',') ?? [];
    tags.set(role, (found = new Set(probe.map((selector) => /^\w+/.exec(selector)![0]))));
  }
  return found;
}

/** Every role this library knows by an element, for near misses. */
export const knownRoles = (): string[] => [
  ...new Set([
    ...Object.keys(probes),
    'alert',
    'alertdialog',
    'menu',
    'menuitem',
    'tab',
    'tablist',
    'tabpanel',
    'switch',
    'tooltip',
    'toolbar',
    'tree',
    'treeitem',
    'grid',
    'log',
    'radiogroup',
  ]),
];

/** Level of a heading, from 1. */
export function levelOf(element: Element): number | undefined {
  const given = element.getAttribute('aria-level');
  if (given) return Number(given);
  const own = /^h([1-6])$/.exec(element.localName);
  return own ? Number(own[1]) : undefined;
}

/** Roles whose name comes from what they contain. @see https://www.w3.org/TR/wai-aria-1.2/#namefromcontent */
export const namedByContent = new Set([
  ...['button', 'cell', 'checkbox', 'columnheader', 'gridcell', 'heading', 'link', 'menuitem'],
  ...['menuitemcheckbox', 'menuitemradio', 'option', 'radio', 'row', 'rowheader', 'switch', 'tab'],
  ...['tooltip', 'treeitem'],
]);

/** Roles without a name of their own whose text is what a person hears. */
export const heardAsText = new Set([
  ...['alert', 'status', 'log', 'timer', 'marquee', 'listitem', 'paragraph', 'definition', 'term'],
  ...['note', 'blockquote', 'caption', 'code', 'emphasis', 'strong', 'time', 'deletion', 'insertion'],
]);
