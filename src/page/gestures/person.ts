import type { surroundings } from '../surroundings';
import type { Send } from './events';
import type { Hands } from './hands';

/** The keys a person holds while doing something else. */
export const modifiers = { Shift: 'shiftKey', Control: 'ctrlKey', Alt: 'altKey', Meta: 'metaKey' } as const;
export type Modifier = keyof typeof modifiers;

/** Someone at the page: where the pointer is, which keys are held, what is on the clipboard. */
export interface Person {
  readonly document: Document;
  readonly send: Send;
  /** Lets time pass, while a button is held for example. */
  readonly wait: (ms: number) => void | Promise<void>;
  readonly hands: Hands;
  /** The element under the pointer, with those around it, the outermost first. */
  path: readonly Element[];
  /** Where the pointer is, in pixels of the viewport. */
  place: Place;
  readonly held: Set<Modifier>;
  clipboard: Clip;
}

export interface Place {
  readonly clientX: number;
  readonly clientY: number;
}

/** What was copied. */
export type Clip = (typeof surroundings)['clipboard'];

/** The keys that are held, as the members of an event. */
export const holding = ({ held }: Person): Readonly<Record<string, boolean>> =>
  held.size === 0 ? none : Object.fromEntries([...held].map((key) => [modifiers[key], true]));
const none = {};

/** The element that has the focus, in shadow trees too; otherwise the body. */
export function focusedIn(document: Document): Element {
  let at = document.activeElement;
  while (at?.shadowRoot?.activeElement) at = at.shadowRoot.activeElement;
  return at ?? document.body;
}
