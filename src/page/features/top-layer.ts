import { domException } from './exceptions';
import { once } from '../../core/shared';

// A simulated page has no pseudo-class for open popovers and modal dialogs, so we remember them here.
const open = once('popovers', () => new Set<Element>());

/** @see https://html.spec.whatwg.org/multipage/popover.html */
const isPopover = (element: Element): boolean => element.hasAttribute('popover');

/** The popovers that are shown, the first one first. */
export function popoversShown(document: Document): Element[] {
  if (hasTopLayer(document)) return [...document.querySelectorAll(':popover-open')];
  forgetGone(open);
  return [...open].filter(({ ownerDocument }) => ownerDocument === document);
}

/** True for a page that knows by itself what lies on top. */
const hasTopLayer = ({ documentElement }: Document): boolean => 'popover' in documentElement;

// What was taken off the page is not shown any more.
function forgetGone(shown: Set<Element>): void {
  for (const element of shown) if (!element.isConnected) shown.delete(element);
}

/** True for a popover that is shown. */
export const isOpenPopover = (element: Element): boolean =>
  hasTopLayer(element.ownerDocument) ? element.matches(':popover-open') : open.has(element);

const windowOf = ({ ownerDocument }: Element) => ownerDocument.defaultView as unknown as typeof globalThis;

/** Shows or hides a popover, and fires its events. @throws where it is none */
export function setPopover(element: Element, isOpen: boolean): void {
  if (!isPopover(element))
    throw domException(windowOf(element), 'NotSupportedError', 'The element has no popover attribute.');
  if (open.has(element) === isOpen) return;
  const states = statesOf(isOpen);
  const { ToggleEvent } = windowOf(element);
  // Only showing can be prevented.
  const before = new ToggleEvent('beforetoggle', { ...states, cancelable: isOpen });
  if (!element.dispatchEvent(before) && isOpen) return;
  forgetGone(open);
  if (isOpen) open.add(element);
  else open.delete(element);
  tellToggled(element, isOpen);
}

/** What a toggle event says of before and after. */
export const statesOf = (isOpen: boolean): { oldState: string; newState: string } =>
  isOpen ? { oldState: 'closed', newState: 'open' } : { oldState: 'open', newState: 'closed' };

// What an element was before the toggle event that is still to come.
const untold = new WeakMap<Element, string>();

/** Tells in a task of its own that a popover or a dialog was shown or hidden; once for several times. */
export function tellToggled(element: Element, isOpen: boolean): void {
  const { oldState } = statesOf(isOpen);
  const before = untold.get(element);
  untold.set(element, before ?? oldState);
  if (before !== undefined) return;
  const { ToggleEvent, setTimeout: later } = windowOf(element);
  later(() => {
    const since = untold.get(element)!;
    untold.delete(element);
    const now = isShown(element) ? 'open' : 'closed';
    element.dispatchEvent(new ToggleEvent('toggle', { oldState: since, newState: now }));
  }, 0);
}

const isShown = (element: Element): boolean =>
  element.localName === 'dialog' ? element.hasAttribute('open') : isOpenPopover(element);

const modals = once('modals', () => new Set<Element>());

/** Takes down that a dialog is modal, where the page does not know by itself. */
export function noteModal(dialog: Element): void {
  forgetGone(modals);
  modals.add(dialog);
}

/** Takes down that it is closed. */
export const forgetModal = (dialog: Element): void => void modals.delete(dialog);

/** The modal dialogs that are open. @see https://html.spec.whatwg.org/multipage/interactive-elements.html#dom-dialog-showmodal */
export function openModals(document: Document): Element[] {
  if (hasTopLayer(document)) return [...document.querySelectorAll('dialog:modal')];
  forgetGone(modals);
  return [...modals].filter(
    (dialog) => dialog.ownerDocument === document && (dialog as HTMLDialogElement).open,
  );
}
