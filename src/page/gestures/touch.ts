import { isDisabled } from '../states';
import { activate } from './clicks';
import { tell, type Init } from './events';
import { focusTargetOf, moveFocus } from './focus';
import { holding, type Person } from './person';
import { middleOf, pathOf } from './pointer';
import { dismissPopovers } from './top-layer';

const finger = { pointerId: 2, pointerType: 'touch', isPrimary: true, width: 1, height: 1 };

/** A touch with one finger. The mouse events come after it. @see https://www.w3.org/TR/touch-events/#mouse-events */
export async function tap(person: Person, element: Element, heldFor: number): Promise<void> {
  const { send } = person;
  person.place = middleOf(element);
  const init = { ...person.place, ...holding(person) };
  const down = { ...finger, ...init, button: 0, buttons: 1 };
  const up = { ...finger, ...init, button: 0, buttons: 0 };
  await tell(send, element, 'pointerover', down);
  await tellAround(person, element, 'pointerenter', down);
  await tell(send, element, 'pointerdown', down);
  const isAllowed = await tellTouch(person, element, 'touchstart', true);
  if (heldFor > 0) await person.wait(heldFor);
  if (!element.isConnected) return;
  await tell(send, element, 'pointerup', up);
  await tell(send, element, 'pointerout', up);
  await tellAround(person, element, 'pointerleave', up);
  const isClick = (await tellTouch(person, element, 'touchend', false)) && isAllowed;
  await dismissPopovers(person, element);
  if (isClick && element.isConnected) await likeAMouse(person, element, init);
}

async function likeAMouse(person: Person, element: Element, init: Init): Promise<void> {
  const { send } = person;
  await tell(send, element, 'mouseover', init);
  await tellAround(person, element, 'mouseenter', init);
  await tell(send, element, 'mousemove', init);
  if (await tell(send, element, 'mousedown', { ...init, buttons: 1, detail: 1 }))
    await moveFocus(person, focusTargetOf(element));
  await tell(send, element, 'mouseup', { ...init, detail: 1 });
  if (element.isConnected && !isDisabled(element))
    await activate(person, element, { ...finger, ...init, detail: 1 });
}

async function tellAround({ send }: Person, element: Element, type: string, init: Init): Promise<void> {
  const path = pathOf(element);
  for (const one of type === 'pointerleave' ? path.reverse() : path) await tell(send, one, type, init);
}

function tellTouch(person: Person, element: Element, type: string, isDown: boolean): Promise<boolean> {
  const { clientX, clientY } = person.place;
  const point = { identifier: 0, target: element, clientX, clientY, pageX: clientX, pageY: clientY };
  const Touch = (element.ownerDocument.defaultView as unknown as { Touch?: new (init: Init) => object })
    .Touch;
  const touch = Touch ? new Touch(point) : point;
  const now = isDown ? [touch] : [];
  return tell(person.send, element, type, { touches: now, targetTouches: now, changedTouches: [touch] });
}
