import { describe } from '../describe';
import { refuse } from '../errors';
import { around } from '../around';
import { activate } from './clicks';
import { carrying } from './clipboard';
import { pageOf, tell } from './events';
import { refuseFiles } from './files';
import { holding, type Person, type Place } from './person';
import { asPointer, letGo, middleOf, moveTo, pressDown } from './pointer';

/** How far something is moved, in pixels. */
export interface Distance {
  readonly right?: number;
  readonly left?: number;
  readonly down?: number;
  readonly up?: number;
}

export const acrossOf = ({ right = 0, left = 0 }: Distance): number => right - left;
export const downOf = ({ down = 0, up = 0 }: Distance): number => down - up;

export const moved = ({ clientX, clientY }: Place, x: number, y: number): Place => ({
  clientX: clientX + x,
  clientY: clientY + y,
});

// A press that moves less than this is a click, for browsers and for libraries.
const slack = 8;

/** Drags an element onto another, or by a distance: as data where it is draggable, else with the pointer. */
export async function drag(person: Person, from: Element, to: Element | Distance): Promise<void> {
  await moveTo(person, from);
  const isMuted = await pressDown(person, from, 1);
  const start = person.place;
  const target = isElement(to) ? to : from;
  // A page without a layout has every element at one place; what is dragged moves all the same.
  const end = isElement(to) ? apart(start, middleOf(to)) : moved(start, acrossOf(to), downOf(to));
  await moveTo(person, from, isElement(to) ? moved(start, slack, slack) : halfway(start, end), 1);
  const source = draggableAround(from);
  if (source && isElement(to)) {
    const transfer = carrying(source, { text: '' });
    if (await tellDrag(person, source, 'dragstart', transfer)) return carry(person, source, to, transfer);
  }
  if (!from.isConnected) return;
  await moveTo(person, target, end, 1);
  if (!target.isConnected) return;
  await letGo(person, target, 1, 'primary', isMuted);
  // The click is that of what is around both.
  const both = around(from, (at) => at.contains(target));
  if (!both?.isConnected) return;
  const init = { ...person.place, pointerId: 1, pointerType: 'mouse', detail: 1 };
  if (both === from) await activate(person, both, init);
  else await tell(person.send, both, 'click', init);
}

export const isElement = (to: Element | Distance): to is Element => (to as Partial<Element>).nodeType === 1;
export const halfway = (one: Place, other: Place): Place => ({
  clientX: (one.clientX + other.clientX) / 2,
  clientY: (one.clientY + other.clientY) / 2,
});
const apart = (start: Place, end: Place): Place =>
  start.clientX === end.clientX && start.clientY === end.clientY ? moved(end, 2 * slack, 2 * slack) : end;

export const draggableAround = (element: Element): Element | undefined =>
  around(element, (at) => {
    const told = at.getAttribute('draggable');
    return told === 'true' || (told !== 'false' && at.matches('a[href],img[src]'));
  });

/** Tells of what is dragged. @returns false where it was prevented */
function tellDrag(
  person: Person,
  on: Element,
  type: string,
  dataTransfer: DataTransfer,
  pressed = 1,
): Promise<boolean> {
  const { DataTransfer: Kind } = pageOf(on);
  // On the way only the kinds of what is carried can be read.
  if (isClosing(Kind)) Kind.close(dataTransfer, !/^(dragstart|drop)$/.test(type));
  return tell(person.send, on, type, {
    ...person.place,
    ...holding(person),
    buttons: pressed,
    dataTransfer,
  });
}

interface Closing {
  close(transfer: DataTransfer, isClosed: boolean): void;
}
const isClosing = (kind: unknown): kind is Closing => 'close' in (kind as Partial<Closing>);

/** What follows a drag that has begun. @see https://html.spec.whatwg.org/multipage/dnd.html */
async function carry(
  person: Person,
  source: Element,
  target: Element,
  transfer: DataTransfer,
): Promise<void> {
  await endPointer(person);
  await tellDrag(person, source, 'drag', transfer);
  await tellDrag(person, source, 'dragenter', transfer);
  await tellDrag(person, source, 'dragover', transfer);
  person.place = middleOf(target);
  if (source.isConnected) await tellDrag(person, source, 'drag', transfer);
  await tellDrag(person, target, 'dragenter', transfer);
  if (source.isConnected) await tellDrag(person, source, 'dragleave', transfer);
  if (!(await tellDrag(person, target, 'dragover', transfer)))
    await tellDrag(person, target, 'drop', transfer);
  else {
    if (source.isConnected) await tellDrag(person, source, 'drag', transfer, 0);
    await tellDrag(person, target, 'dragleave', transfer, 0);
  }
  if (source.isConnected) await tellDrag(person, source, 'dragend', transfer, 0);
}

/** A drag takes the pointer away from the page. */
async function endPointer(person: Person): Promise<void> {
  const { send, path } = person;
  const init = { ...person.place, ...asPointer };
  const over = path[path.length - 1];
  if (over?.isConnected) await tell(send, over, 'pointercancel', init);
  if (over?.isConnected) await tell(send, over, 'pointerout', init);
  for (const one of [...path].reverse()) await tell(send, one, 'pointerleave', init);
  person.path = [];
}

/** Drops files from outside onto an element. @throws SIM-ACT-DROP where nothing takes them, SIM-ACT-FILE */
export async function drop(person: Person, target: Element, files: readonly File[]): Promise<void> {
  person.place = middleOf(target);
  const transfer = carrying(target, { text: '', files });
  await tellDrag(person, target, 'dragenter', transfer, 0);
  const isTaken = !(await tellDrag(person, target, 'dragover', transfer, 0));
  const input = target.closest<HTMLInputElement>('input[type=file]:not(:disabled)');
  if (!isTaken && !input) refuse('SIM-ACT-DROP', { element: describe(target) });
  const allowed = await tellDrag(person, target, 'drop', transfer, 0);
  if (!allowed || !input) return;
  refuseFiles(input, files);
  await person.hands.takeFiles(input, files);
}
