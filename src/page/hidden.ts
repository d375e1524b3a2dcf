import { isOpenPopover, openModals } from './features/top-layer';
import { isUnslotted, parentOf, shadowOf } from './flat-tree';
import { factsOf, onceFor, scan } from './looking';
import { hasStyles, isSimulated, isUnstyled, styleOf } from './styles';
import { isSummary } from './summary';

const unrendered = /^(script|style|template|head|noscript|datalist)$/;

/** True for an element whose content a person never meets, looking at it alone. */
export const isLeftOut = (element: Element): boolean =>
  isAriaHidden(element) ||
  (!element.getAttribute('role') && unrendered.test(element.localName)) ||
  whyUnrendered(element) !== undefined;

const isAriaHidden = (element: Element): boolean =>
  element.getAttribute('aria-hidden')?.toLowerCase() === 'true';

/**
 * Why a person cannot perceive an element: it, or something around it, is not displayed or is hidden from
 * assistive technology. Undefined if the element can be perceived.
 *
 * @param aria whether a person perceives it by assistive technology, rather than by the eye
 */
export const whyHidden = (element: Element, aria: boolean): string | undefined =>
  whyAway(element, aria, factsOf(`away ${aria}`)) ??
  whyInvisible(element) ??
  (aria ? whyBehind(element) : undefined);

/** Why an element is not there for a person, whatever is visible of it: nothing inside of it is there either. */
function whyAway(element: Element, aria: boolean, seen: Map<Node, string | undefined>): string | undefined {
  // A loop instead of recursion: a page may be nested more deeply than the call stack allows.
  const path: Element[] = [];
  let why: string | undefined;
  for (let at: Element | null = element; at; at = parentOf(at)) {
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
  (aria ? whyClosedToAria(element) : undefined) ??
  (unrendered.test(element.localName) ? `${tagOf(element)} is never displayed` : undefined) ??
  whyUnrendered(element);

function whyClosedToAria(element: Element): string | undefined {
  if (isAriaHidden(element))
    return `aria-hidden="true" on ${tagOf(element)} hides it from assistive technology`;
  return element.hasAttribute('inert') ? `${tagOf(element)} has the attribute inert` : undefined;
}

/** Why an element is not rendered, looking at it and at what stands right around it. */
function whyUnrendered(element: Element): string | undefined {
  const tag = element.localName;
  if (tag === 'input' && element.getAttribute('type') === 'hidden')
    return 'an input of the type "hidden" is never displayed';
  if (tag === 'dialog' && !element.hasAttribute('open')) return 'the dialog is not open';
  if (tag === 'audio' && !element.hasAttribute('controls')) return 'it is <audio> without controls';
  if (isUnslotted(element)) return `no slot of ${tagOf(element.parentElement!)} takes it up`;
  return (
    (element.hasAttributes() ? whyOff(element) : undefined) ??
    whyFolded(element) ??
    (displayOf(element) === 'none' ? `${tagOf(element)} has display: none` : undefined)
  );
}

/** Why an attribute takes an element away, which a style sheet can bring back. */
function whyOff(element: Element): string | undefined {
  if (element.hasAttribute('hidden') && element.getAttribute('hidden') !== 'until-found')
    return isBroughtBack(element) ? undefined : `${tagOf(element)} has the attribute hidden`;
  if (!element.hasAttribute('popover') || isOpenPopover(element)) return undefined;
  // A page without support for popovers has no style for closed ones either.
  const isBack = 'popover' in element ? isBroughtBack(element) : /^(?!none|$)/.test(ownDisplay(element));
  return isBack ? undefined : `the popover ${tagOf(element)} is not shown`;
}

const isBroughtBack = (element: Element): boolean => /^(?!none|$)/.test(displayOf(element));

/** Why what stands right around an element shows nothing of its inside. */
function whyFolded(element: Element): string | undefined {
  const parent = element.parentElement;
  if (!parent) return undefined;
  if (parent.localName === 'details' && !parent.hasAttribute('open') && !isSummary(element))
    return 'it is inside <details> that is closed';
  return showsContent(parent) ? undefined : `${tagOf(parent)} does not show its content`;
}

/** Whether an element shows what it holds. @see https://www.w3.org/TR/css-contain-2/#content-visibility */
export function showsContent(element: Element): boolean {
  if (!hasStyles(element.ownerDocument) && !element.hasAttributes()) return true;
  return element.getAttribute('hidden') !== 'until-found' && styleOf(element)?.contentVisibility !== 'hidden';
}

/**
 * Why an element is invisible by `visibility`. A descendant of a hidden element can be visible again.
 *
 * @see https://www.w3.org/TR/css-display-4/#visibility
 */
function whyInvisible(element: Element): string | undefined {
  if (isUnstyled(element)) return undefined;
  for (let at: Element | null = element; at; at = parentOf(at)) {
    const visibility = styleOf(at)?.visibility;
    // A computed style includes inherited values; a style attribute does not.
    if (visibility && visibility !== 'inherit')
      return visibility === 'visible' ? undefined : `${tagOf(at)} has visibility: ${visibility}`;
  }
  return undefined;
}

/** Whether an element itself says that it is visible; nothing where it takes over what is around it. */
export function visibilityOf(element: Element): 'visible' | 'hidden' | '' {
  const visibility = styleOf(element)?.visibility ?? '';
  return visibility === '' || visibility === 'inherit' ? '' : visibility === 'visible' ? 'visible' : 'hidden';
}

/** Why an element is out of reach behind a modal dialog. */
export function whyBehind(element: Element): string | undefined {
  const { documentElement } = element.ownerDocument;
  if (!element.isConnected || !documentElement) return undefined;
  const open = onceFor('modals', documentElement, () => openModals(element.ownerDocument));
  return open.length === 0 || open.some((dialog) => isWithin(element, dialog))
    ? undefined
    : `the modal dialog ${tagOf(open[open.length - 1]!)} is open in front of it`;
}

function isWithin(element: Element, outer: Element): boolean {
  for (let at: Element | null = element; at; at = parentOf(at)) if (at === outer) return true;
  return false;
}

/** Why the pointer does not reach an element: it passes through, or something lies over it. */
export const whyUntouchable = (element: Element): string | undefined =>
  whyPassedThrough(element) ?? (isSimulated(element.ownerDocument) ? undefined : whyCovered(element));

function whyPassedThrough(element: Element): string | undefined {
  if (isPlain(element)) return undefined;
  for (let at: Element | null = element; at; at = parentOf(at)) {
    const pointerEvents = styleOf(at)?.pointerEvents;
    // A computed style includes inherited values; a style attribute does not.
    if (!pointerEvents || pointerEvents === 'inherit') continue;
    if (pointerEvents !== 'none') return undefined;
    return at === element
      ? 'pointer-events: none lets the pointer through'
      : `pointer-events: none of ${tagOf(at)} lets the pointer through`;
  }
  return undefined;
}

/** What lies over the middle of an element, on a page with a layout. */
function whyCovered(element: Element): string | undefined {
  const { width, height } = element.getBoundingClientRect();
  if (width === 0 || height === 0) return undefined;
  element.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  const { left, top } = element.getBoundingClientRect();
  const root = element.getRootNode() as Document | ShadowRoot;
  const over = root.elementFromPoint(left + width / 2, top + height / 2);
  if (!over || element.contains(over) || over.contains(element)) return undefined;
  const isLabelled = (element as HTMLInputElement).labels;
  if (isLabelled && [...isLabelled].some((label) => label.contains(over))) return undefined;
  return `${tagOf(over)} lies over it`;
}

/** How an element is displayed, as far as that is known: nothing where its tag alone decides. */
export const displayOf = (element: Element): string => styleOf(element)?.display ?? '';

const ownDisplay = (element: Element): string => (element as HTMLElement).style?.display ?? '';

/** True for an element that its place takes out of the line. @see https://www.w3.org/TR/css-display-4/#transformations */
export function isOutOfLine(element: Element): boolean {
  const style = styleOf(element);
  return (
    style !== undefined &&
    (/^(absolute|fixed)$/.test(style.position) || /^(left|right)$/.test(style.cssFloat))
  );
}

const hidingTags = new Set([
  ...['script', 'style', 'template', 'head', 'noscript', 'datalist', 'dialog', 'details', 'audio'],
]);
const hidingAttributes = new Set(['hidden', 'aria-hidden', 'style', 'inert', 'popover']);

/** True where something at or below an element may be hidden: where not, none of it need be asked. */
export const mayHide = (root: Element): boolean =>
  onceFor('hides', root, () => hasStyles(root.ownerDocument) || findHiding(root));

function findHiding(root: Element): boolean {
  const { tags, elements, attributed, hasShadows } = scan(root);
  if (hasShadows || tags.some((tag) => hidingTags.has(tag))) return true;
  return attributed.some((at) => hasHiding(elements[at]!));
}

const hasHiding = (element: Element): boolean =>
  element
    .getAttributeNames()
    .some(
      (name) => hidingAttributes.has(name) || (name === 'type' && element.getAttribute(name) === 'hidden'),
    );

/** True for an element that neither it nor anything around it can hide: none of that need be asked. */
export const isPlain = (element: Element): boolean =>
  !hasStyles(element.ownerDocument) && onceFor('plain', element, readPlain);

function readPlain(element: Element): boolean {
  let top = element;
  for (let at: Element | null = element; at; at = at.parentElement) {
    const tag = at.localName;
    if (hidingTags.has(tag) || (at.hasAttributes() && hasHiding(at)) || shadowOf(at, tag)) return false;
    top = at;
  }
  return (top.parentNode as Partial<ShadowRoot> | null)?.host === undefined;
}

/** `<div class="tray">`: the start tag of an element, cut short. */
export function tagOf(element: Element): string {
  const shown = ['id', 'class', 'type', 'data-part'].flatMap((name) => {
    const value = element.getAttribute(name);
    return value ? [` ${name}="${value.length > 24 ? `${value.slice(0, 23)}…` : value}"`] : [];
  });
  return `<${element.localName}${shown.slice(0, 2).join('')}>`;
}
