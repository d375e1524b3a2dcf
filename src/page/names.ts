import { isLeftOut } from './hidden';
import { hasStyles, onceFor, scan } from './looking';
import { foldSpace } from './locators';
import { heardAsText, namedByContent, roleOf } from './roles';

/**
 * The accessible name of an element.
 *
 * @see https://www.w3.org/TR/accname-1.2/
 */
export function nameOf(element: Element): string {
  return foldSpace(compute(element, new Set(), 'asked'));
}

/** What a person hears of an element: its name or, where its role has none, its text. */
export const heardOf = (element: Element): string => onceFor('heard', element, hear);

function hear(element: Element): string {
  const name = nameOf(element);
  return name === '' && heardAsText.has(roleOf(element) ?? '') ? textOf(element) : name;
}

/** The text of an element without what nobody sees. */
export const textOf = (element: Element): string => onceFor('text of', element, readText);

const readText = (element: Element): string =>
  foldSpace(hasOddContent(element) ? contentOf(element, new Set(), 'text') : textIn(element));

/** The text an element is made of, as the platform puts it together. */
export const textIn = (element: Element): string =>
  onceFor('text', element, ({ textContent }) => textContent ?? '');

// Only these make the text of an element differ from what its text nodes say.
const oddAttributes = ['hidden', 'aria-hidden', 'style', 'aria-label', 'aria-labelledby'];
const oddTags = new Set([
  ...['img', 'input', 'select', 'textarea', 'svg', 'script', 'style', 'template', 'noscript', 'datalist'],
  ...['details', 'br', 'p', 'div', 'li', 'td', 'th', 'dd', 'dt', 'section', 'article'],
  ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6'],
]);
const namingTags = new Set([
  ...['img', 'area', 'label', 'input', 'select', 'textarea', 'svg', 'script', 'style', 'template'],
  ...['details', 'caption', 'figure', 'fieldset', 'dialog', 'noscript', 'datalist'],
]);
const harmless = new Set(['class', 'id', 'type', 'key', 'scope', 'href', 'data-testid', 'disabled']);

/** True where something at or below an element can make a name differ from the text it is made of. */
export const altersNames = (root: Element): boolean =>
  hasStyles(root.ownerDocument) || onceFor('alters', root, findAltering);

function findAltering(root: Element): boolean {
  const { elements, tags, attributed } = scan(root);
  if (tags.some((tag, at) => at > 0 && namingTags.has(tag))) return true;
  return attributed.some(
    (at) => at > 0 && elements[at]!.getAttributeNames().some((name) => !harmless.has(name)),
  );
}

const hasOddContent = (element: Element): boolean =>
  element.firstElementChild !== null && (isOddInside(element) || hasStyles(element.ownerDocument));

// By hand: a long selector takes a simulated page ten times as long.
function isOddInside(element: Element): boolean {
  for (let child = element.firstElementChild; child; child = child.nextElementSibling) {
    if (oddTags.has(child.localName)) return true;
    if (child.hasAttributes() && oddAttributes.some((name) => child.hasAttribute(name))) return true;
    if (child.firstElementChild && isOddInside(child)) return true;
  }
  return false;
}

type Why = 'asked' | 'reference' | 'content' | 'text';

function compute(element: Element, seen: Set<Element>, why: Why): string {
  if (seen.has(element)) return '';
  seen.add(element);
  const references = why === 'reference' ? null : element.getAttribute('aria-labelledby');
  if (references) {
    const found = references.split(/\s+/).map((id) => byId(element, id));
    const named = found.map((other) => (other ? compute(other, new Set(seen), 'reference') : ''));
    if (named.some(Boolean)) return named.join(' ');
  }
  const label = element.getAttribute('aria-label')?.trim();
  if (label) return label;
  const native = nativeName(element, seen, why);
  if (native !== undefined && native !== '') return native;
  const role = roleOf(element);
  if (why !== 'asked' || namedByContent.has(role ?? '')) {
    const content = hasOddContent(element)
      ? contentOf(element, seen, 'content')
      : (element.textContent ?? '');
    if (content.trim() !== '') return content;
  }
  return element.getAttribute('title') ?? element.getAttribute('placeholder') ?? '';
}

const byId = (element: Element, id: string): Element | null =>
  (element.getRootNode() as Partial<Document>).getElementById?.(id) ??
  (element.getRootNode() as Element).querySelector?.(`[id=${JSON.stringify(id)}]`);

function nativeName(element: Element, seen: Set<Element>, why: Why): string | undefined {
  switch (element.localName) {
    case 'input': {
      const input = element as HTMLInputElement;
      if (['submit', 'reset', 'button'].includes(input.type)) {
        return input.value || (input.type === 'submit' ? 'Submit' : input.type === 'reset' ? 'Reset' : '');
      }
      if (input.type === 'image') return input.alt;
      return why === 'content' ? input.value : labelsOf(element, seen);
    }
    case 'textarea':
    case 'select':
      return why === 'content' ? (element as HTMLInputElement).value : labelsOf(element, seen);
    case 'meter':
    case 'progress':
    case 'output':
      return labelsOf(element, seen);
    case 'button':
      return labelsOf(element, seen) || undefined;
    case 'img':
    case 'area':
      return element.getAttribute('alt') ?? undefined;
    case 'fieldset':
      return childName(element, 'legend', seen);
    case 'table':
      return childName(element, 'caption', seen);
    case 'figure':
      return childName(element, 'figcaption', seen);
    case 'svg':
      return childName(element, 'title', seen);
    default:
      return undefined;
  }
}

/** The label elements tied to a field, by `for` or around it. */
export function labelElementsOf(element: Element): Element[] {
  if (labelable.test(element.localName)) return tiedLabels(element);
  const around = element.closest('label');
  return around ? [around] : [];
}

const labelable = /^(button|input|meter|output|progress|select|textarea)$/;

// Not by the platform's `labels`: a simulated page walks the whole document for it, for each element anew.
function tiedLabels(element: Element): Element[] {
  const around = element.closest('label');
  const tied = around && !around.hasAttribute('for') && firstLabelable(around) === element ? [around] : [];
  if (!element.id) return tied;
  const all = element.ownerDocument.getElementsByTagName('label');
  for (let at = 0; at < all.length; at++) {
    const label = all[at]!;
    if (label.getAttribute('for') === element.id && !tied.includes(label)) tied.push(label);
  }
  if (element.isConnected || tied.length > 0) return tied;
  // At an earlier moment, which is a copy beside the page.
  const root = element.getRootNode() as Element;
  return [...(root.querySelectorAll?.('label[for]') ?? [])].filter(
    (label) => label.getAttribute('for') === element.id,
  );
}

const firstLabelable = (label: Element): Element | null =>
  label.querySelector('button,input:not([type=hidden]),meter,output,progress,select,textarea');

const labelsOf = (element: Element, seen: Set<Element>) =>
  labelElementsOf(element)
    .map((label) => contentOf(label, new Set(seen).add(element), 'content'))
    .map(foldSpace)
    .join(' ');

const childName = (element: Element, tag: string, seen: Set<Element>) => {
  const child = [...element.children].find(({ localName }) => localName === tag);
  return child ? contentOf(child, seen, 'content') : undefined;
};

const blocks =
  /^(address|article|aside|blockquote|br|dd|div|dl|dt|fieldset|figure|footer|form|h\d|header|hr|li|main|nav|ol|p|section|table|td|th|tr|ul)$/;

function contentOf(element: Element, seen: Set<Element>, why: 'content' | 'text'): string {
  let text = '';
  for (const node of element.childNodes) {
    if (node.nodeType === 3) text += node.nodeValue ?? '';
    if (node.nodeType !== 1 || isLeftOut(node as Element) || seen.has(node as Element)) continue;
    const child = node as Element;
    const inner = why === 'content' ? compute(child, seen, 'content') : contentOf(child, seen, 'text');
    text += blocks.test(child.localName) ? ` ${inner} ` : inner;
  }
  return text;
}
