import { whyHidden } from '../hidden';
import { isEditable } from '../describe';
import { around } from '../around';
import { parentOf } from '../flat-tree';
import { isDisabled } from '../states';
import { commitChange, placeCaret, selectAll } from './fields';
import { focusedIn, type Person } from './person';

/** By tag: the attribute that makes it take the focus; none where it always does. */
const focusable: Readonly<Record<string, string>> = {
  ...{ a: 'href', area: 'href', audio: 'controls', video: 'controls' },
  ...{ button: '', input: '', select: '', textarea: '', iframe: '', summary: '' },
};

function isFocusable(element: Element): boolean {
  const { localName } = element;
  const needed = focusable[localName];
  const isByItself = needed === '' ? isMet(element) : needed !== undefined && element.hasAttribute(needed);
  if (!isByItself && !element.hasAttribute('tabindex') && !isHost(element)) return false;
  return !isDisabled(element) && !around(element, (at) => at.hasAttribute('inert'));
}

// Only the first summary of details takes the focus.
const isMet = (element: Element): boolean =>
  element.localName === 'summary'
    ? isOwnSummary(element)
    : element.localName !== 'input' || (element as HTMLInputElement).type !== 'hidden';

const isHost = (element: Element): boolean =>
  element.hasAttribute('contenteditable') && element.getAttribute('contenteditable') !== 'false';

const isOwnSummary = (element: Element): boolean =>
  element.parentElement?.localName === 'details' &&
  element.parentElement.querySelector(':scope > summary') === element;

/** The element a press of the pointer gives the focus to. */
export function focusTargetOf(element: Element): HTMLElement | null {
  for (let at: Element | null = element; at; at = parentOf(at)) if (isFocusable(at)) return at as HTMLElement;
  return null;
}

/** Moves the focus as a person does; a field that loses it fires its change event. */
export async function moveFocus({ document, send }: Person, target: Element | null): Promise<void> {
  const before = focusedIn(document) as HTMLElement;
  if (before === target) return;
  if (before !== document.body) await commitChange(before, send);
  if (target) await send(() => (target as HTMLElement).focus());
  else if (before !== document.body) await send(() => before.blur());
}

/** Every element that Tab reaches, in its order. @see https://html.spec.whatwg.org/#sequential-focus-navigation */
export function tabStops(root: ParentNode): HTMLElement[] {
  const stops = reachable(root).filter((element) => element.tabIndex >= 0 || isEditable(element));
  const ordered = [
    ...stops.filter(({ tabIndex }) => tabIndex > 0).sort((one, other) => one.tabIndex - other.tabIndex),
    ...stops.filter(({ tabIndex }) => tabIndex <= 0),
  ].filter((element) => element.getAttribute('tabindex') !== '-1');
  // Only one radio button of a group can be reached by Tab.
  return ordered.filter((element) => !isPassedRadio(element, ordered));
}

function reachable(root: ParentNode): HTMLElement[] {
  return [...root.querySelectorAll<HTMLElement>('*')].flatMap((element) => [
    ...(isFocusable(element) && whyHidden(element, false) === undefined ? [element] : []),
    ...(element.shadowRoot ? tabStops(element.shadowRoot) : []),
  ]);
}

function isPassedRadio(element: HTMLElement, stops: readonly HTMLElement[]): boolean {
  const radio = element as HTMLInputElement;
  if (radio.type !== 'radio' || !radio.name) return false;
  const group = (stops as readonly HTMLInputElement[]).filter(
    ({ type, name, form }) => type === 'radio' && name === radio.name && form === radio.form,
  );
  return (group.find(({ checked }) => checked) ?? group[0]) !== radio;
}

/** What Tab does: the next element that takes the focus, or out of the page after the last. */
export async function moveByTab(person: Person, isBack: boolean): Promise<void> {
  const { document } = person;
  const from = focusedIn(document) as HTMLElement;
  const modal = [...document.querySelectorAll<HTMLDialogElement>('dialog[open]')].at(-1);
  const stops = tabStops(modal?.contains(from) ? modal : document);
  const at = stops.indexOf(from);
  const next = at < 0 ? nextTo(from, stops, isBack) : stops[at + (isBack ? -1 : 1)];
  await moveFocus(person, next ?? null);
  if (next?.localName === 'input') selectAll(next);
  else if (next?.localName === 'textarea') placeCaret(next as HTMLTextAreaElement, 0);
}

/** From an element that Tab passes by, as one with the tabindex -1, it goes on by the order of the page. */
function nextTo(from: HTMLElement, stops: readonly HTMLElement[], isBack: boolean): HTMLElement | undefined {
  if (from === from.ownerDocument.body) return isBack ? stops.at(-1) : stops[0];
  const isAfter = (stop: HTMLElement) =>
    (from.compareDocumentPosition(stop) & from.DOCUMENT_POSITION_FOLLOWING) !== 0;
  return isBack ? stops.findLast((stop) => !isAfter(stop)) : stops.find(isAfter);
}
