import { isField } from '../describe';
import { around } from '../around';
import { parentOf } from '../flat-tree';
import { isDisabled } from '../states';
import { tell } from './events';
import { isTextField, placeCaret, select, selectAll, selectionOf, shownIn } from './fields';
import { focusTargetOf, moveFocus } from './focus';
import { holding, type Person, type Place } from './person';
import { dismissPopovers } from './top-layer';
import { placeBeside } from './words';

export const buttons = { primary: [0, 1], auxiliary: [1, 4], secondary: [2, 2] } as const;

/** The middle of an area, in pixels of the viewport. */
export const middleOfArea = ({ left, top, width, height }: DOMRect): Place => ({
  clientX: left + width / 2,
  clientY: top + height / 2,
});

/** The middle of an element, in pixels of the viewport. */
export const middleOf = (element: Element): Place => middleOfArea(element.getBoundingClientRect());

/** An element and all around it, the outermost first. */
export function pathOf(element: Element | null): Element[] {
  const path: Element[] = [];
  for (let at = element; at; at = parentOf(at)) path.unshift(at);
  return path;
}

export const asPointer = { pointerId: 1, pointerType: 'mouse', isPrimary: true };

/** Moves the pointer onto an element (or off the page) and fires the events of everything it leaves and enters. */
export async function moveTo(
  person: Person,
  target: Element | null,
  place: Place = target ? middleOf(target) : { clientX: 0, clientY: 0 },
  pressed = 0,
): Promise<void> {
  const old = person.path;
  const path = pathOf(target);
  person.path = path;
  person.place = place;
  const before = old[old.length - 1];
  if (before !== target) {
    const left = old.filter((one) => !path.includes(one) && one.isConnected).reverse();
    const entered = path.filter((one) => !old.includes(one));
    await cross(person, 'pointer', { before, target, left, entered }, pressed);
    await cross(person, 'mouse', { before, target, left, entered }, pressed);
  }
  if (target) await tellPointer(person, target, 'move', -1, pressed, 0);
}

interface Crossing {
  readonly before: Element | undefined;
  readonly target: Element | null;
  readonly left: readonly Element[];
  readonly entered: readonly Element[];
}

async function cross(
  person: Person,
  device: 'pointer' | 'mouse',
  { before, target, left, entered }: Crossing,
  pressed: number,
): Promise<void> {
  const { send, place } = person;
  const init = {
    ...place,
    ...holding(person),
    buttons: pressed,
    ...(device === 'pointer' && { ...asPointer, button: -1 }),
  };
  const away = { ...init, relatedTarget: target };
  const here = { ...init, relatedTarget: before?.isConnected ? before : null };
  if (before?.isConnected) await tell(send, before, `${device}out`, away);
  for (const one of left) await tell(send, one, `${device}leave`, away);
  if (target?.isConnected) await tell(send, target, `${device}over`, here);
  for (const one of entered) if (one.isConnected) await tell(send, one, `${device}enter`, here);
}

/** A pointer event and its mouse event. @returns whether each was allowed */
export async function tellPointer(
  person: Person,
  element: Element,
  what: 'move' | 'down' | 'up',
  button: number,
  pressed: number,
  detail: number,
  isMuted = false,
): Promise<{ pointer: boolean; mouse: boolean }> {
  const { send, place } = person;
  const init = { ...place, ...holding(person), buttons: pressed };
  const pointer = await tell(send, element, `pointer${what}`, { ...init, ...asPointer, button });
  // A prevented pointerdown suppresses the mouse events; a disabled control hears none of a press.
  const isSilent = isMuted || (what === 'down' && !pointer) || (what !== 'move' && isOff(element));
  if (isSilent || !element.isConnected) return { pointer, mouse: pointer };
  const mouse = await tell(send, element, `mouse${what}`, { ...init, button: Math.max(0, button), detail });
  return { pointer, mouse };
}

/** True inside of a control that is disabled. */
export const isOff = (element: Element): boolean => around(element, isDisabled) !== undefined;

/** Presses a button of the mouse. @returns whether the mouse events of the release are suppressed */
export async function pressDown(
  person: Person,
  element: Element,
  count: number,
  button: keyof typeof buttons = 'primary',
): Promise<boolean> {
  const [number, pressed] = buttons[button];
  const { pointer, mouse } = await tellPointer(person, element, 'down', number, pressed, count);
  if (pointer && mouse && !isOff(element)) {
    await moveFocus(person, focusTargetOf(element));
    if (button === 'primary') placeByClick(element, count);
  }
  if (button === 'secondary' && element.isConnected) {
    const init = { ...asPointer, ...person.place, ...holding(person), button: 2, buttons: 2 };
    await tell(person.send, element, 'contextmenu', init);
  }
  return !pointer;
}

/** Releases the button over an element. */
export async function letGo(
  person: Person,
  element: Element,
  count: number,
  button: keyof typeof buttons = 'primary',
  isMuted = false,
): Promise<void> {
  await tellPointer(person, element, 'up', buttons[button][0], 0, count, isMuted);
  await dismissPopovers(person, element);
}

/** Where a click leaves the caret: behind the text; the second click selects a word, the third all. */
function placeByClick(element: Element, count: number): void {
  const { activeElement } = element.ownerDocument;
  if (activeElement !== element || !isField(element) || !isTextField(element)) return;
  const { length } = shownIn(element);
  if (count >= 3) selectAll(element);
  else if (count === 2)
    select(element, { start: placeBeside(shownIn(element), length, 'word', false), end: length });
  else if (selectionOf(element).start !== length) placeCaret(element, length);
}
