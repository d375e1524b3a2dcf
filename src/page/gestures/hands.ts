import { once } from '../../core/shared';
import { surroundings } from '../surroundings';
import { click, type ClickHow } from './click';
import { drag, type Distance } from './drag';
import type { Send } from './events';
import { takeFiles } from './files';
import { clearField, compose, press, typeKeys } from './keyboard';
import type { Person } from './person';
import { moveTo } from './pointer';
import { scroll } from './scroll';

/** What reaches a page of a person: all that they do is made of these. */
export interface Hands {
  click(element: Element, how?: ClickHow): Promise<void>;
  /** Onto an element, or off the page. */
  moveTo(element: Element | null): Promise<void>;
  drag(from: Element, to: Element | Distance): Promise<void>;
  scroll(element: Element, by: Distance): Promise<void>;
  press(keys: string): Promise<void>;
  /** Types into a field that has the focus. */
  typeKeys(field: Element, text: string): Promise<void>;
  compose(field: Element, steps: readonly string[]): Promise<void>;
  /** Empties a field that has the focus. */
  clearField(field: Element): Promise<void>;
  /** Gives a file input what was chosen for it. */
  takeFiles(input: HTMLInputElement, files: readonly File[]): Promise<void>;
}

/** Where a person is, and how what they do reaches the page. */
export interface Setting {
  readonly document: Document;
  readonly send: Send;
  readonly wait: Person['wait'];
  /** Does something whose events come by themselves; whatever they start belongs to the subject. */
  readonly during: <T>(work: () => Promise<T>) => Promise<T>;
}

/** The mouse and the keyboard of a real browser, where what drives it lends them. */
export const devices = once<{ lend: ((person: Person, during: Setting['during']) => Hands) | undefined }>(
  'devices',
  () => ({ lend: undefined }),
);

export function makePerson({ document, send, wait, during }: Setting): Person {
  const person: Omit<Person, 'hands'> & { hands?: Hands } = {
    ...{ document, send, wait, path: [], place: { clientX: 0, clientY: 0 }, held: new Set() },
    // What a component writes to the clipboard by itself can be pasted, and the other way round.
    get clipboard() {
      return surroundings.clipboard;
    },
    set clipboard(clip) {
      surroundings.clipboard = clip;
    },
  };
  const whole = person as Person;
  person.hands = simulatedHands(whole);
  const lent = devices.lend?.(whole, during);
  if (lent) person.hands = lent;
  return whole;
}

/** Sends the events that a browser would send. */
const simulatedHands = (person: Person): Hands => ({
  click: (element, how) => click(person, element, how),
  moveTo: (element) => moveTo(person, element),
  drag: (from, to) => drag(person, from, to),
  scroll: (element, by) => scroll(person, element, by),
  press: (keys) => press(person, keys),
  typeKeys: (field, text) => typeKeys(person, field, text),
  compose: (field, steps) => compose(person, field, steps),
  clearField: (field) => clearField(person, field),
  takeFiles: (input, files) => takeFiles(person, input, files),
});
