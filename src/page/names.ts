import { nameProhibited, namedByContent } from './aria';
import { childNodesOf, referredBy, shadowOf } from './flat-tree';
import { generatedText } from './generated';
import { isLeftOut, showsContent, visibilityOf, whyHidden } from './hidden';
import { labelElementsOf } from './labels';
import { foldSpace } from './locators';
import { onceFor, scan } from './looking';
import { hasStyles } from './styles';
import { childWithTag, saidByText, roleOf } from './roles';
import { isApart, isApartInside, isSpacedAnyway } from './spacing';

/**
 * The accessible name of an element.
 *
 * @see https://www.w3.org/TR/accname-1.2/
 */
export const nameOf = (element: Element): string => namedOf(element).name;

/** The name of an element, and where it comes from. */
export const namedOf = (element: Element): Named => onceFor('name', element, readName);

/** What a person hears of an element: its name or, where its role has none, its text. */
export const nameOrTextOf = (element: Element): string => onceFor('heard', element, hear);

function hear(element: Element): string {
  const name = nameOf(element);
  return name === '' && saidByText.has(roleOf(element) ?? '') ? textOf(element) : name;
}

/** The text of an element without what nobody sees. */
export const textOf = (element: Element): string => onceFor('text of', element, readText);

const readText = (element: Element): string =>
  foldSpace(hasOddContent(element) ? contentOf(element, plainText) : textIn(element));

/** The text an element is made of, as the platform puts it together. */
export const textIn = (element: Element): string =>
  onceFor('text', element, ({ textContent }) => textContent ?? '');

// Only these make the text of an element differ from what its text nodes say.
const oddAttributes = [
  'hidden',
  'aria-hidden',
  'style',
  'aria-label',
  'aria-labelledby',
  'aria-owns',
  'role',
  'title',
];
const oddTags = new Set([
  ...['img', 'input', 'select', 'textarea', 'svg', 'script', 'style', 'template', 'noscript', 'datalist'],
  ...['details', 'br', 'wbr', 'p', 'div', 'li', 'td', 'th', 'dd', 'dt', 'section', 'article', 'slot', 'rt'],
  ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'meter', 'progress', 'button'],
]);
const namingTags = new Set([
  ...['img', 'area', 'label', 'input', 'select', 'textarea', 'svg', 'script', 'style', 'template', 'slot'],
  ...['details', 'caption', 'figure', 'fieldset', 'dialog', 'noscript', 'datalist', 'optgroup', 'option'],
  ...['meter', 'progress', 'rt', 'wbr'],
]);
const harmless = new Set(['class', 'id', 'type', 'key', 'scope', 'href', 'data-testid', 'disabled']);

/** True where something at or below an element can make a name differ from the text it is made of. */
export const altersNames = (root: Element): boolean =>
  onceFor('alters', root, () => hasStyles(root.ownerDocument) || findAltering(root));

function findAltering(root: Element): boolean {
  const { elements, tags, attributed, hasShadows } = scan(root);
  if (hasShadows || tags.some((tag, at) => at > 0 && namingTags.has(tag))) return true;
  return attributed.some(
    (at) => at > 0 && elements[at]!.getAttributeNames().some((name) => !harmless.has(name)),
  );
}

const hasOddContent = (element: Element): boolean =>
  hasStyles(element.ownerDocument) ||
  element.hasAttribute('aria-owns') ||
  element.hasAttribute('style') ||
  (element.firstElementChild ? isOddInside(element) : isOdd(element));

// A loop, because a long selector takes a simulated page ten times as long.
function isOddInside(element: Element): boolean {
  for (let child = element.firstElementChild; child; child = child.nextElementSibling) {
    if (isOdd(child) || (child.hasAttributes() && oddAttributes.some((name) => child.hasAttribute(name))))
      return true;
    if (child.firstElementChild && isOddInside(child)) return true;
  }
  return false;
}

const isOdd = (element: Element): boolean => {
  const tag = element.localName;
  return oddTags.has(tag) || shadowOf(element, tag) !== null;
};

/** How a name comes about: of the element that was asked about, or of what it is made of. */
export interface Way {
  readonly seen: Set<Element>;
  readonly isAsked?: boolean;
  /** What an attribute refers to refers to nothing else. */
  readonly isReferred?: boolean;
  /** Something hidden that is referred to is read with all that is in it. */
  readonly withHidden?: boolean;
  /** Nothing but the text. */
  readonly isPlain?: boolean;
}

const plainText: Way = { seen: new Set(), isPlain: true };

export interface Named {
  readonly name: string;
  readonly from:
    'references' | 'value' | 'label' | 'native' | 'content' | 'title' | 'placeholder' | 'nothing';
}

const nothing: Named = { name: '', from: 'nothing' };

function readName(element: Element): Named {
  const { name, from } = compute(element, { seen: new Set(), isAsked: true });
  return { name: foldSpace(name), from };
}

function compute(element: Element, way: Way): Named {
  if (way.seen.has(element)) return nothing;
  way.seen.add(element);
  const within = way.isAsked ? { ...way, isAsked: false } : way;
  const role = roleOf(element);
  let content = '';
  const readContent = () => (content = hasOddContent(element) ? contentOf(element, within) : textIn(element));
  const hasAttributes = element.hasAttributes();
  return (
    (hasAttributes && !way.isReferred && found(textReferred(element, 'aria-labelledby'), 'references')) ||
    (!way.isAsked && found(valueIn(element, role, within), 'value')) ||
    (hasAttributes && found(element.getAttribute('aria-label'), 'label')) ||
    found(nativeName(element, within), 'native') ||
    ((!way.isAsked || namedByContent.has(role ?? '')) && found(readContent(), 'content')) ||
    (hasAttributes && found(titleOf(element, role, way), 'title')) ||
    (hasAttributes && found(placeholderOf(element, role), 'placeholder')) ||
    // White space keeps apart what stands around it.
    (content === '' ? nothing : { name: content, from: 'nothing' })
  );
}

const found = (name: string | null | undefined, from: Named['from']): Named | undefined =>
  name && name.trim() !== '' ? { name, from } : undefined;

function titleOf(element: Element, role: string | undefined, way: Way): string | null {
  const title = element.getAttribute('title');
  // A picture that is said to say nothing.
  if (!title || (/^(img|area)$/.test(element.localName) && element.getAttribute('alt') === '')) return null;
  const isNaming = !way.isAsked || /^(iframe|abbr)$/.test(element.localName);
  return isNaming || (role !== undefined && !nameProhibited.has(role)) ? title : null;
}

function placeholderOf(element: Element, role: string | undefined): string | null {
  return /^(input|textarea)$/.test(element.localName)
    ? element.getAttribute('placeholder') || element.getAttribute('aria-placeholder')
    : /^(textbox|searchbox|combobox)$/.test(role ?? '')
      ? element.getAttribute('aria-placeholder')
      : null;
}

/** What the elements say that an attribute refers to, hidden ones too. */
export const textReferred = (element: Element, attribute: string): string =>
  referredBy(element, attribute)
    .map((other) => {
      const way = { seen: new Set<Element>(), isReferred: true, withHidden: isHiddenItself(other) };
      return foldSpace(compute(other, way).name);
    })
    .filter(Boolean)
    .join(' ');

const isHiddenItself = (element: Element): boolean => whyHidden(element, true) !== undefined;

/** The value of a field that stands inside of a name. @see https://www.w3.org/TR/accname-1.2/#comp_embedded_control */
function valueIn(element: Element, role: string | undefined, within: Way): string | null | undefined {
  const field = element as HTMLInputElement;
  const isField = /^(input|textarea|select|meter|progress)$/.test(element.localName);
  switch (role) {
    case 'textbox':
    case 'searchbox':
      return isField ? field.value : contentOf(element, within);
    case 'combobox':
    case 'listbox': {
      if (element.localName === 'select')
        return [...(element as HTMLSelectElement).selectedOptions]
          .map((one) => compute(one, within).name)
          .join(' ');
      if (isField) return field.value;
      const selected = [...element.querySelectorAll('[aria-selected=true]')];
      return selected.map((one) => compute(one, within).name).join(' ');
    }
    case 'slider':
    case 'spinbutton':
    case 'scrollbar':
    case 'progressbar':
    case 'meter':
      return (
        element.getAttribute('aria-valuetext') ||
        element.getAttribute('aria-valuenow') ||
        (element.localName === 'input' ? field.value : isField ? element.getAttribute('value') : null)
      );
    default:
      return undefined;
  }
}

/** @see https://www.w3.org/TR/html-aam-1.0/#accessible-name-and-description-computation */
function nativeName(element: Element, within: Way): string | null | undefined {
  switch (element.localName) {
    case 'input': {
      const { type, value } = element as HTMLInputElement;
      const given = element.getAttribute('value');
      if (type === 'submit') return labelsOf(element, within) || (given ?? 'Submit');
      if (type === 'reset') return labelsOf(element, within) || (given ?? 'Reset');
      if (type === 'button') return labelsOf(element, within) || value;
      if (type === 'image')
        return element.getAttribute('alt') || given || (element.getAttribute('title') ? '' : 'Submit');
      return labelsOf(element, within);
    }
    case 'textarea':
    case 'select':
    case 'meter':
    case 'progress':
    case 'output':
    case 'button':
      return labelsOf(element, within);
    case 'img':
    case 'area':
      return element.getAttribute('alt');
    case 'optgroup':
    case 'option':
      return element.getAttribute('label');
    case 'fieldset':
      return childName(element, 'legend', within);
    case 'table':
      return childName(element, 'caption', within);
    case 'figure':
      return childName(element, 'figcaption', within);
    default:
      return /svg/.test(element.namespaceURI ?? '') ? childName(element, 'title', within) : undefined;
  }
}

const labelsOf = (element: Element, within: Way) =>
  labelElementsOf(element)
    .filter((label) => !within.seen.has(label) && !isHiddenItself(label))
    .map((label) => foldSpace(compute(label, { ...within, isReferred: true }).name))
    .filter(Boolean)
    .join(' ');

export const childName = (element: Element, tag: string, within: Way) => {
  const child = childWithTag(element, tag);
  return child ? contentOf(child, within) : undefined;
};

/** What an element is made of: its text, what it owns, and what style sheets put before and after. */
function contentOf(element: Element, way: Way, isSeen = true): string {
  const before = way.isPlain ? '' : generatedText(element, '::before');
  const after = way.isPlain ? '' : generatedText(element, '::after');
  const apart = isApartInside(element);
  if (!way.withHidden && !showsContent(element)) return '';
  let text = before;
  for (const node of childNodesOf(element)) {
    if (node.nodeType === 3) text += isSeen ? (node.nodeValue ?? '') : '';
    else if (node.nodeType === 1) text += partOf(node as Element, element, way, isSeen, apart);
  }
  if (!way.isPlain)
    for (const owned of referredBy(element, 'aria-owns')) text += partOf(owned, element, way, isSeen, apart);
  return text + after;
}

/** What a child adds to what an element is made of. */
function partOf(child: Element, parent: Element, way: Way, isSeen: boolean, apart: boolean): string {
  if (!way.withHidden && isLeftOut(child)) return isSpacedAnyway(child) ? ' ' : '';
  // The field that a label around it names.
  if (way.seen.has(child)) return ' ';
  if (!way.isPlain && isPassedOver(child, parent)) return '';
  const visibility = way.withHidden ? '' : visibilityOf(child);
  const isChildSeen = visibility === '' ? isSeen : visibility === 'visible';
  const { name, from } =
    way.isPlain || !isChildSeen
      ? { name: contentOf(child, way, isChildSeen), from: 'content' as const }
      : compute(child, way);
  return apart || isApart(child) || isSaidApart.has(from) ? ` ${name} ` : name;
}

const isSaidApart: ReadonlySet<Named['from']> = new Set([
  'references',
  'value',
  'label',
  'native',
  'placeholder',
]);

// A tree item is not called by the items in it; what is said over a text is no part of it.
const isPassedOver = (child: Element, parent: Element): boolean =>
  /^(rt|rp)$/.test(child.localName) || (roleOf(child) === 'group' && roleOf(parent) === 'treeitem');
