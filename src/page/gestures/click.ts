import { activate } from './clicks';
import { tell } from './events';
import { whileHolding } from './keyboard';
import { readHeld } from './keys';
import { holding, type Person } from './person';
import { asPointer, buttons, isOff, letGo, moveTo, pressDown } from './pointer';
import { tap } from './touch';

/** How a click is done, where it is not one short press of the primary button. */
export interface ClickHow {
  /** Which button of the mouse: the primary one unless said otherwise. @see https://www.w3.org/TR/uievents/#dom-mouseevent-button */
  readonly button?: 'primary' | 'auxiliary' | 'secondary';
  /** How many times in a row: 2 is a double click. */
  readonly times?: number;
  /** Keys that are held meanwhile: `Shift`, `Control+Shift`. */
  readonly holding?: string;
  /** How long the button is down, in milliseconds or as `'600ms'`. */
  readonly heldFor?: number | string;
  /** What it is done with: a mouse, or a finger. */
  readonly pointer?: 'mouse' | 'touch';
}

/**
 * A click: the pointer moves onto the element, presses and releases.
 *
 * @see https://www.w3.org/TR/uievents/#events-mouseevent-event-order
 * @throws SIM-ACT-KEY for keys that cannot be held
 */
export async function click(person: Person, element: Element, how: ClickHow = {}): Promise<void> {
  const { times = 1, pointer = 'mouse' } = how;
  await whileHolding(person, readHeld(how.holding), async () => {
    if (pointer === 'touch') return tap(person, element, Number(how.heldFor ?? 0));
    await moveTo(person, element);
    for (let count = 1; count <= times; count++) await clickOnce(person, element, count, how);
  });
}

async function clickOnce(person: Person, element: Element, count: number, how: ClickHow): Promise<void> {
  const { button = 'primary' } = how;
  const heldFor = Number(how.heldFor ?? 0);
  const isMuted = await pressDown(person, element, count, button);
  if (heldFor > 0) await person.wait(heldFor);
  // If the press removed the element, no click follows.
  if (!element.isConnected) return;
  await letGo(person, element, count, button, isMuted);
  if (!element.isConnected || isOff(element)) return;
  const init = { ...asPointer, ...person.place, button: buttons[button][0], detail: count };
  if (button !== 'primary') return void (await tell(person.send, element, 'auxclick', init));
  await activate(person, element, init);
  if (count === 2 && element.isConnected)
    await tell(person.send, element, 'dblclick', { ...person.place, ...holding(person), detail: 2 });
}
