import { commitChange } from './edit';
import { dispatch, focusTargetOf, sendPointer, type Send } from './dispatch';

/**
 * A click with the main button, from the pointer's arrival to the click itself.
 *
 * @see https://www.w3.org/TR/uievents/#events-mouseevent-event-order
 */
export function click(element: Element, send: Send): void {
  hoverOn(element, send);
  press(element, send);
  release(element, send);
}

function hoverOn(element: Element, send: Send): void {
  send(() => void sendPointer(element, 'over'));
  send(() => void sendPointer(element, 'move'));
}

function press(element: Element, send: Send): void {
  let allowed = true;
  send(() => void (allowed = sendPointer(element, 'down')));
  if (allowed) moveFocus(focusTargetOf(element), element.ownerDocument, send);
}

function release(element: Element, send: Send): void {
  // What the press has taken off the page, or disabled, is not clicked any more.
  if (!element.isConnected) return;
  send(() => void sendPointer(element, 'up'));
  if (!element.isConnected || element.matches(':disabled')) return;
  send(() => void dispatch(element, 'click', { detail: 1, pointerId: 1, pointerType: 'mouse' }));
}

/** Moves the focus as a person does; a field that is left tells what was changed in it. */
export function moveFocus(target: HTMLElement | null, document: Document, send: Send): void {
  const before = document.activeElement as HTMLElement | null;
  if (before === target) return;
  if (before && before !== document.body) commitChange(before, send);
  if (target) send(() => target.focus());
  else if (before && before !== document.body) send(() => before.blur());
}
