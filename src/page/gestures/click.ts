import { commitChange } from './edit';
import { dispatch, focusTargetOf, sendPointer, type Send } from './dispatch';

/**
 * A click with the main button: the pointer moves onto the element, presses and releases.
 *
 * @see https://www.w3.org/TR/uievents/#events-mouseevent-event-order
 */
export async function click(element: Element, send: Send): Promise<void> {
  await hoverOn(element, send);
  await press(element, send);
  await release(element, send);
}

async function hoverOn(element: Element, send: Send): Promise<void> {
  await send(() => void sendPointer(element, 'over'));
  await send(() => void sendPointer(element, 'move'));
}

async function press(element: Element, send: Send): Promise<void> {
  let allowed = true;
  await send(() => void (allowed = sendPointer(element, 'down')));
  if (allowed) await moveFocus(focusTargetOf(element), element.ownerDocument, send);
}

async function release(element: Element, send: Send): Promise<void> {
  // If the press removed or disabled the element, no click follows.
  if (!element.isConnected) return;
  await send(() => void sendPointer(element, 'up'));
  if (!element.isConnected || element.matches(':disabled')) return;
  await send(() => void dispatch(element, 'click', { detail: 1, pointerId: 1, pointerType: 'mouse' }));
}

/** Moves the focus as a person does; a field that is left tells what was changed in it. */
export async function moveFocus(target: HTMLElement | null, document: Document, send: Send): Promise<void> {
  const before = document.activeElement as HTMLElement | null;
  if (before === target) return;
  if (before && before !== document.body) await commitChange(before, send);
  if (target) await send(() => target.focus());
  else if (before && before !== document.body) await send(() => before.blur());
}
