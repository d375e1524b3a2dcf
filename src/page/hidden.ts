import { factsOf, hasStyles, onceFor, scan } from './looking';

const unrendered = /^(script|style|template|head|noscript|datalist)$/;

/** True for an element whose content a person never meets, looking at it alone. */
export function isLeftOut(element: Element): boolean {
  return (
    element.getAttribute('aria-hidden') === 'true' ||
    (!element.getAttribute('role') && unrendered.test(element.localName)) ||
    whyUnrendered(element) !== undefined ||
    /^(hidden|collapse)$/.test(styleOf(element)?.visibility ?? '')
  );
}

/**
 * Why a person cannot perceive an element: it or something around it is not displayed or hidden
 * from assistive technology. Undefined for one that can be perceived.
 */
export const whyHidden = (element: Element, aria: boolean): string | undefined =>
  whyAway(element, aria, factsOf(`away ${aria}`)) ?? whyInvisible(element);

/** Why an element is not there for a person, whatever is visible of it: nothing inside of it is there either. */
function whyAway(
  element: Element,
  aria: boolean,
  seen: Map<Element, string | undefined>,
): string | undefined {
  // Up by a loop: a page may be nested more deeply than calls can be.
  const path: Element[] = [];
  let why: string | undefined;
  for (let at: Element | null = element; at; at = at.parentElement) {
    if (seen.has(at)) {
      why = seen.get(at);
      break;
    }
    path.push(at);
    why = whyAwayItself(at, aria);
    if (why) break;
  }
  for (const one of path) seen.set(one, why);
  return why;
}

const whyAwayItself = (element: Element, aria: boolean): string | undefined =>
  (aria && element.getAttribute('aria-hidden') === 'true'
    ? `aria-hidden="true" on ${tagOf(element)} hides it from assistive technology`
    : undefined) ??
  (unrendered.test(element.localName) ? `${tagOf(element)} is never displayed` : undefined) ??
  whyUnrendered(element);

function whyUnrendered(element: Element): string | undefined {
  if (element.hasAttribute('hidden')) return `${tagOf(element)} has the attribute hidden`;
  if (element.localName === 'input' && element.getAttribute('type') === 'hidden') {
    return 'an input of the type "hidden" is never displayed';
  }
  if (element.localName === 'dialog' && !element.hasAttribute('open')) return 'the dialog is not open';
  if (isFolded(element)) return 'it is inside <details> that is closed';
  return styleOf(element)?.display === 'none' ? `${tagOf(element)} has display: none` : undefined;
}

/**
 * Why an element is invisible by `visibility`, which what is inside of something hidden can take back.
 *
 * @see https://www.w3.org/TR/css-display-4/#visibility
 */
function whyInvisible(element: Element): string | undefined {
  for (let at: Element | null = element; at; at = at.parentElement) {
    const visibility = styleOf(at)?.visibility;
    // A computed style has taken over what stands around it; a written one has not.
    if (visibility && visibility !== 'inherit')
      return visibility === 'visible' ? undefined : `${tagOf(at)} has visibility: ${visibility}`;
  }
  return undefined;
}

// Computing styles is by far the slowest thing a simulated page does. Without a style sheet the
// element's own style attribute is all that can hide it.
function styleOf(element: Element): { display: string; visibility: string } | undefined {
  const { ownerDocument } = element;
  if (hasStyles(ownerDocument) && element.isConnected && ownerDocument.defaultView)
    return ownerDocument.defaultView.getComputedStyle(element);
  return element.hasAttribute('style') ? (element as HTMLElement).style : undefined;
}

const hidingTags = new Set([
  ...['script', 'style', 'template', 'head', 'noscript', 'datalist', 'dialog', 'details'],
]);
const hidingAttributes = new Set(['hidden', 'aria-hidden', 'style']);

/** True where something at or below an element may be hidden: where not, none of it need be asked. */
export const mayHide = (root: Element): boolean =>
  hasStyles(root.ownerDocument) || onceFor('hides', root, findHiding);

function findHiding(root: Element): boolean {
  const { tags, elements, attributed } = scan(root);
  if (tags.some((tag) => hidingTags.has(tag))) return true;
  return attributed.some((at) =>
    elements[at]!.getAttributeNames().some(
      (name) =>
        hidingAttributes.has(name) || (name === 'type' && elements[at]!.getAttribute(name) === 'hidden'),
    ),
  );
}

function isFolded(element: Element): boolean {
  const parent = element.parentElement;
  return parent?.localName === 'details' && !parent.hasAttribute('open') && element.localName !== 'summary';
}

/** `<div class="tray">`: the start tag of an element, cut short. */
export function tagOf(element: Element): string {
  const shown = ['id', 'class', 'type', 'data-part'].flatMap((name) => {
    const value = element.getAttribute(name);
    return value ? [` ${name}="${value.length > 24 ? `${value.slice(0, 23)}…` : value}"`] : [];
  });
  return `<${element.localName}${shown.slice(0, 2).join('')}>`;
}
