/** Sends events as a browser does for a person, in the same order. */

/** Runs one event and lets the framework render what it caused before the next one is sent. */
export type Send = (work: () => void) => void | Promise<void>;

type Page = Window & typeof globalThis;
export const pageOf = ({ ownerDocument }: Node): Page => ownerDocument!.defaultView as Page;

const unbubbling = /enter$|leave$|^(focus|blur|cancel|close|beforetoggle|toggle|invalid|scroll)$/;
const entering = /^(pointer|mouse)(enter|leave)$/;
const fixed =
  /^(pointer|mouse)(enter|leave)$|^(focus|blur|input|change|select|scroll|scrollend|search)|^(dragleave|dragend|pointercancel|composition(update|end))$|^got|^lost/;
const closed = /^(change|select|scroll|search|cancel|close|toggle)/;

/** The members of an event, by the names that its class has for them. */
export type Init = Readonly<Record<string, unknown>>;

interface Kind {
  /** The class of the event. */
  readonly name: string;
  readonly bubbles: boolean;
  readonly cancelable: boolean;
  readonly composed: boolean;
  /** Events of a device have a view; events that the page fires about itself have none. */
  readonly hasView: boolean;
}
const known = new Map<string, Kind>();

/** What is the same for all events of a type. */
function kindOf(type: string): Kind {
  let kind = known.get(type);
  if (!kind) {
    const name = names.find(([pattern]) => pattern.test(type))?.[1] ?? 'Event';
    kind = {
      name,
      bubbles: !unbubbling.test(type) || /^drag(enter|leave)$/.test(type),
      cancelable: !fixed.test(type),
      composed: !closed.test(type) && !entering.test(type),
      hasView: !/^(Clipboard)?Event$/.test(name),
    };
    known.set(type, kind);
  }
  return kind;
}

/** Sends one event. @returns false where a listener has prevented what the browser would do */
export function dispatch(element: Element, type: string, init: Init = {}): boolean {
  const page = pageOf(element);
  const { name, bubbles, cancelable, composed, hasView } = kindOf(type);
  // Choosing rather than typing fires a plain event.
  const isPlain = type === 'input' && !('inputType' in init);
  const Kind = (!isPlain && (page as unknown as Record<string, unknown>)[name]) || page.Event;
  const given: Record<string, unknown> = { bubbles, cancelable, composed };
  if (hasView && !isPlain) given['view'] = page;
  // Nothing is what every member is without being given, and a simulated page takes long to convert it.
  for (const key in init) if (init[key]) given[key] = init[key];
  const event = new (Kind as typeof Event)(type, given);
  for (const key in given) {
    // A simulated page may lack newer event classes. Their properties are then set by hand.
    if (!(key in event)) Object.defineProperty(event, key, { value: given[key] });
  }
  return element.dispatchEvent(event);
}

/** Sends one event and lets the page render. @returns false where it was prevented */
export async function tell(send: Send, element: Element, type: string, init: Init = {}): Promise<boolean> {
  let allowed = true;
  await send(() => void (allowed = dispatch(element, type, init)));
  return allowed;
}

/** The events of a type that come of some work, in order. */
export async function hearing(
  document: Document,
  type: string,
  work: () => void | Promise<void>,
): Promise<Event[]> {
  const heard: Event[] = [];
  const hear = (event: Event) => void heard.push(event);
  document.addEventListener(type, hear, true);
  try {
    await work();
  } finally {
    document.removeEventListener(type, hear, true);
  }
  return heard;
}

const names: readonly (readonly [RegExp, string])[] = [
  // A click is a PointerEvent as well.
  [/^pointer|^(click|auxclick|contextmenu)$/, 'PointerEvent'],
  [/^mouse|^dblclick$/, 'MouseEvent'],
  [/^key/, 'KeyboardEvent'],
  [/^(before)?input$/, 'InputEvent'],
  [/^(focus|blur)/, 'FocusEvent'],
  [/^composition/, 'CompositionEvent'],
  [/^drag|^drop$/, 'DragEvent'],
  [/^(copy|cut|paste)$/, 'ClipboardEvent'],
  [/^touch/, 'TouchEvent'],
  [/^wheel$/, 'WheelEvent'],
];
