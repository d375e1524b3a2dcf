/** Sends events as a browser does for a person: trusted code cannot tell, and the order is the same. */

/** Runs one event and lets the framework render what it caused before the next one is sent. */
export type Send = (work: () => void) => void | Promise<void>;

type Page = Window & typeof globalThis;
export const pageOf = (element: Element): Page => element.ownerDocument.defaultView as Page;

interface Modifiers {
  readonly ctrlKey?: boolean;
  readonly shiftKey?: boolean;
  readonly altKey?: boolean;
  readonly metaKey?: boolean;
}

export interface KeyInit extends Modifiers {
  readonly key: string;
  readonly code: string;
  readonly keyCode?: number;
}

const quiet = /enter$|leave$/;
const fixed = /enter$|leave$|^(focus|blur|input|change|select)$/;

/** Sends one event. @returns false where a listener has prevented what the browser would do */
export function dispatch(element: Element, type: string, init: object = {}): boolean {
  const page = pageOf(element);
  const Kind = page[kindOf(type)] ?? page.Event;
  const event = new (Kind as typeof Event)(type, {
    bubbles: !quiet.test(type) && type !== 'focus' && type !== 'blur',
    cancelable: !fixed.test(type),
    composed: type !== 'change',
    view: page,
    ...init,
  } as EventInit);
  for (const [key, value] of Object.entries(init)) {
    // A simulated page may lack newer event classes. Their properties are then set by hand.
    if (!(key in event)) Object.defineProperty(event, key, { value });
  }
  return element.dispatchEvent(event);
}

type EventClass = 'PointerEvent' | 'MouseEvent' | 'KeyboardEvent' | 'InputEvent' | 'FocusEvent' | 'Event';

function kindOf(type: string): EventClass {
  if (type.startsWith('pointer')) return typeof PointerEvent === 'undefined' ? 'MouseEvent' : 'PointerEvent';
  if (/^(mouse|click|dblclick|auxclick|contextmenu)/.test(type)) {
    // Browsers dispatch a click as a PointerEvent. A page without that class uses a MouseEvent.
    return type === 'click' && typeof PointerEvent !== 'undefined' ? 'PointerEvent' : 'MouseEvent';
  }
  if (type.startsWith('key')) return 'KeyboardEvent';
  if (type === 'input' || type === 'beforeinput') return 'InputEvent';
  return /^(focus|blur)/.test(type) ? 'FocusEvent' : 'Event';
}

const pointer = { pointerId: 1, pointerType: 'mouse', isPrimary: true };

/** Events of the mouse, as pointer event and mouse event together. */
export function sendPointer(
  element: Element,
  what: 'over' | 'move' | 'down' | 'up',
  init: object = {},
): boolean {
  const pressed = what === 'down' ? { buttons: 1 } : {};
  const carried = what === 'over' || what === 'move' ? { button: -1 } : {};
  const allowed = dispatch(element, `pointer${what}`, { ...pointer, ...pressed, ...carried, ...init });
  if (what === 'over') sendEntering(element, 'pointerenter', pointer);
  // As in browsers, a prevented pointerdown suppresses the mouse events.
  if (!allowed && what === 'down') return false;
  const sent = dispatch(element, `mouse${what}`, {
    ...pressed,
    detail: what === 'down' || what === 'up' ? 1 : 0,
    ...init,
  });
  if (what === 'over') sendEntering(element, 'mouseenter', {});
  return sent;
}

// Enter events do not bubble, so each element on the path gets its own.
function sendEntering(element: Element, type: string, init: object): void {
  const path: Element[] = [];
  for (let at: Element | null = element; at; at = at.parentElement) path.unshift(at);
  for (const entered of path) dispatch(entered, type, init);
}

const focusable =
  'a[href],area[href],button,input:not([type=hidden]),select,textarea,summary,iframe,[tabindex],[contenteditable]:not([contenteditable=false])';

/** The element a press of the mouse gives the focus to. */
export const focusTargetOf = (element: Element): HTMLElement | null => {
  const found = element.closest<HTMLElement>(focusable);
  return found && !found.matches(':disabled') ? found : null;
};

/** Every element that Tab reaches, in its order. @see https://html.spec.whatwg.org/#sequential-focus-navigation */
export function tabStops(document: Document): HTMLElement[] {
  const all = [...document.querySelectorAll<HTMLElement>(focusable)].filter(
    (element) =>
      element.tabIndex >= 0 && !element.matches(':disabled') && !element.closest('[hidden],[inert]'),
  );
  const first = all.filter(({ tabIndex }) => tabIndex > 0).sort((a, b) => a.tabIndex - b.tabIndex);
  const stops = [...first, ...all.filter(({ tabIndex }) => tabIndex === 0)];
  // Only one radio button of a group can be reached by Tab.
  return stops.filter((element) => !isPassedRadio(element, stops));
}

function isPassedRadio(element: HTMLElement, stops: readonly HTMLElement[]): boolean {
  const radio = element as HTMLInputElement;
  if (radio.type !== 'radio' || !radio.name) return false;
  const group = stops.filter(
    (other) =>
      (other as HTMLInputElement).type === 'radio' && (other as HTMLInputElement).name === radio.name,
  ) as HTMLInputElement[];
  return (group.find(({ checked }) => checked) ?? group[0]) !== radio;
}
