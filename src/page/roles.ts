import { globalAttributes, knownRoles, tagRoles } from './aria';
import { byId, parentOf, referredBy } from './flat-tree';
import { onceFor } from './looking';
import { isSummary } from './summary';

/** What else a role is called. @see https://www.w3.org/TR/wai-aria-1.3/#image */
const synonyms: Readonly<Record<string, string>> = { none: 'presentation', image: 'img', directory: 'list' };

/** The role as this library calls it. */
export const roleNamed = (role: string): string => synonyms[role] ?? role;

/** The ARIA role of an element; undefined for one that has none (a plain `div` or `span`). */
export const roleOf = (element: Element): string | undefined => onceFor('role', element, findRole);

function findRole(element: Element): string | undefined {
  const role = givenRole(element) ?? ownRole(element);
  return role === 'generic' ? undefined : role;
}

// Without a name it is no landmark.
const needsName = new Set(['form', 'region']);

/** The first role of its attribute that is one. @see https://www.w3.org/TR/wai-aria-1.3/#document-handling_author-errors_roles */
function givenRole(element: Element): string | undefined {
  const given = element.getAttribute('role');
  if (!given) return undefined;
  for (const token of given.toLowerCase().split(/\s+/)) {
    const role = roleNamed(token);
    if (!knownRoles.has(role) || (needsName.has(role) && !isNamed(element))) continue;
    return role === 'presentation' && refusesPresentation(element) ? undefined : role;
  }
  return undefined;
}

/** @see https://www.w3.org/TR/wai-aria-1.3/#conflict_resolution_presentation_none */
const refusesPresentation = (element: Element): boolean =>
  isFocusable(element) || element.getAttributeNames().some((name) => globalAttributes.has(name));

const focusable = /^(button|input|select|textarea)$/;

function isFocusable(element: Element): boolean {
  if (Number.isInteger(parseInt(element.getAttribute('tabindex') ?? '', 10))) return true;
  const tag = element.localName;
  if (tag === 'a' || tag === 'area') return element.hasAttribute('href');
  if (tag === 'summary') return isSummary(element);
  return focusable.test(tag) && !element.hasAttribute('disabled');
}

const hasText = (element: Element, attribute: string) =>
  (element.getAttribute(attribute) ?? '').trim() !== '';

const isNamed = (element: Element): boolean =>
  hasText(element, 'aria-label') ||
  hasText(element, 'title') ||
  referredBy(element, 'aria-labelledby').length > 0;

interface Own {
  /** The roles it can come to. */
  readonly may: readonly string[];
  of(element: Element): string | undefined;
}
const own = (may: string, of: Own['of']): Own => ({ may: may.split(' '), of });

const inputRoles: Readonly<Record<string, string | undefined>> = {
  button: 'button',
  checkbox: 'checkbox',
  email: 'textbox',
  file: 'button',
  image: 'button',
  number: 'spinbutton',
  password: 'textbox',
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
  const { type } = element as HTMLInputElement;
  const role = inputRoles[type];
  if ((role !== 'textbox' && role !== 'searchbox') || type === 'password') return role;
  const list = element.getAttribute('list');
  return list && byId(element, list)?.localName === 'datalist' ? 'combobox' : role;
}

const link = own('link', (element) => (element.hasAttribute('href') ? 'link' : undefined));
const landmark = (role: string) =>
  own(role, (element) =>
    element.parentElement?.closest(
      'article,aside,main,nav,section,[role=article],[role=complementary],[role=main],[role=navigation]',
    )
      ? undefined
      : role,
  );
const titled = (role: string) =>
  own(role, (element) =>
    childWithTag(element, 'title') || hasText(element, 'aria-label') ? role : undefined,
  );
const tablePart = (role: string, find: (element: Element, table: string) => string = () => role) =>
  own(`${role} presentation`, (element) => {
    const table = tableAround(element);
    // An isolated part of a table has no table around it.
    const kind = table ? roleOf(table) : 'table';
    if (kind === 'table' || kind === 'grid' || kind === 'treegrid') return find(element, kind);
    return kind === 'presentation' ? 'presentation' : undefined;
  });

/** The first child with a tag. */
export function childWithTag(element: Element, tag: string): Element | undefined {
  for (let child = element.firstElementChild; child; child = child.nextElementSibling)
    if (child.localName === tag) return child;
  return undefined;
}

function tableAround(element: Element): Element | undefined {
  for (let at = element.parentElement; at; at = at.parentElement) if (at.localName === 'table') return at;
  return undefined;
}

/** @see https://html.spec.whatwg.org/multipage/tables.html#header-and-data-cell-semantics */
function headerRole(element: Element): string {
  const scope = element.getAttribute('scope')?.toLowerCase();
  if (scope === 'row' || scope === 'rowgroup') return 'rowheader';
  if (scope === 'col' || scope === 'colgroup') return 'columnheader';
  if (element.parentElement?.parentElement?.localName === 'thead') return 'columnheader';
  const beside = [element.previousElementSibling, element.nextElementSibling];
  return beside.some((cell) => cell?.localName === 'td') ? 'rowheader' : 'columnheader';
}

const shape = titled('graphics-symbol');

/** What a tag is, where more than the tag decides. @see https://www.w3.org/TR/html-aam-1.0/ */
const deciding: Readonly<Record<string, Own>> = {
  a: link,
  area: link,
  aside: own('complementary', (element) =>
    element.parentElement?.closest('article,aside,nav,section') && !isNamed(element)
      ? undefined
      : 'complementary',
  ),
  footer: landmark('contentinfo'),
  form: own('form', (element) => (isNamed(element) ? 'form' : undefined)),
  g: titled('group'),
  header: landmark('banner'),
  img: own('img presentation', (element) =>
    element.getAttribute('alt') === '' && !isNamed(element) && !refusesPresentation(element)
      ? 'presentation'
      : 'img',
  ),
  input: own('button checkbox textbox spinbutton radio slider searchbox combobox', inputRole),
  li: own('listitem presentation', (element) => {
    const parent = element.parentElement;
    return parent && /^(ul|ol|menu)$/.test(parent.localName) && roleOf(parent) !== 'list'
      ? 'presentation'
      : 'listitem';
  }),
  section: own('region', (element) => (isNamed(element) ? 'region' : undefined)),
  select: own('listbox combobox', (element) =>
    element.hasAttribute('multiple') || Number(element.getAttribute('size')) > 1 ? 'listbox' : 'combobox',
  ),
  summary: own('button', (element) => (isSummary(element) ? 'button' : undefined)),
  svg: own('img graphics-document', (element) =>
    element.querySelector('text,a,foreignObject,[role]') ? 'graphics-document' : 'img',
  ),
  tbody: tablePart('rowgroup'),
  td: tablePart('cell gridcell', (_, table) => (table === 'table' ? 'cell' : 'gridcell')),
  tfoot: tablePart('rowgroup'),
  th: tablePart('columnheader rowheader', headerRole),
  thead: tablePart('rowgroup'),
  tr: tablePart('row'),
  image: own('img', () => 'img'),
  ...{
    circle: shape,
    ellipse: shape,
    line: shape,
    path: shape,
    polygon: shape,
    polyline: shape,
    rect: shape,
  },
};

const ownRole = (element: Element): string | undefined => {
  const tag = element.localName;
  return deciding[tag] ? deciding[tag].of(element) : tagRoles[tag];
};

const tags = new Map<string, Set<string>>();
for (const [tag, role] of Object.entries(tagRoles)) if (!deciding[tag]) tagsOf(role).add(tag);
for (const [tag, { may }] of Object.entries(deciding)) for (const role of may) tagsOf(role).add(tag);

/** The tags that can have a role by themselves: asking only these keeps a search off the other elements. */
export function tagsOf(role: string): Set<string> {
  let found = tags.get(role);
  if (!found) tags.set(role, (found = new Set()));
  return found;
}

/** A selector for every element that may have the role. */
export const selectorOf = (role: string): string => [...tagsOf(role), '[role]'].join(',');

/** True for a role that there is. */
export const isRole = (role: string): boolean => knownRoles.has(roleNamed(role));

/** Every role there is, for near misses: those of books and drawings only where one of them is meant. */
export const rolesLike = (role: string): string[] =>
  [...knownRoles].filter((one) => !/^(doc|graphics)-/.test(one) || /^(doc|graphics)/.test(role));

/** How deep an element stands in others of a kind. */
function depthIn(element: Element, kind: string, end?: string): number {
  let depth = 0;
  for (let at = parentOf(element); at; at = parentOf(at)) {
    const role = roleOf(at);
    if (role === kind) depth++;
    if (end !== undefined && role === end) return depth + 1;
  }
  return depth;
}

/** The level of a heading, or of an item in a list or tree, from 1. */
export function levelOf(element: Element): number | undefined {
  const role = roleOf(element);
  if (role !== 'heading' && role !== 'listitem' && role !== 'treeitem') return undefined;
  const given = Math.floor(Number(element.getAttribute('aria-level') ?? 0));
  if (given > 0) return given;
  if (role === 'heading') return Number(/^h([1-6])$/.exec(element.localName)?.[1] ?? 2);
  if (role === 'listitem') return depthIn(element, 'list') || 1;
  return role === 'treeitem' ? depthIn(element, 'group', 'tree') : undefined;
}

/** Roles without a name of their own whose text is what a person hears. */
export const saidByText = new Set([
  ...['alert', 'status', 'log', 'timer', 'marquee', 'listitem', 'paragraph', 'definition', 'term'],
  ...['note', 'blockquote', 'caption', 'code', 'emphasis', 'strong', 'time', 'deletion', 'insertion'],
  ...['mark', 'subscript', 'superscript', 'suggestion', 'math'],
]);
