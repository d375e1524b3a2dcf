import { directing } from '../../../core/director';
import type { ClickHow } from '../../../page/gestures/click';
import {
  acrossOf,
  downOf,
  draggableAround,
  halfway,
  isElement,
  moved,
  type Distance,
} from '../../../page/gestures/drag';
import { devices, type Hands, type Setting } from '../../../page/gestures/hands';
import { heardOnce } from '../../../page/gestures/hearing';
import { isTyped } from '../../../page/gestures/keyboard';
import { isModifier, readHeld, readKeys } from '../../../page/gestures/keys';
import type { Modifier, Person, Place } from '../../../page/gestures/person';
import { buttons } from '../../../page/gestures/pointer';
import { charactersOf } from '../../../page/gestures/words';
import type { Command } from '../../told';
import { ask } from '../wire';
import { readFiles } from './files';
import { keyCommand, strike } from './keys';
import { placeOf } from './place';
import { drive, driveAndRead, driveWith, modifiersOf } from './wire';

const outside: Place = { clientX: -1, clientY: -1 };
type Button = keyof typeof buttons;
const named: Readonly<Record<Button, string>> = { primary: 'left', auxiliary: 'middle', secondary: 'right' };

/** A person's mouse and keyboard, as the browser itself has them: what they do can be trusted. */
class Devices implements Hands {
  readonly #person: Person;
  /** What sends events by itself: for what a browser draws outside of the page, or gives no size. */
  readonly #simulated: Hands;
  readonly #during: Setting['during'];

  constructor(person: Person, during: Setting['during']) {
    this.#person = person;
    this.#simulated = person.hands;
    this.#during = during;
  }

  /** Does something, and lets the framework render what came of it. */
  async #do<T>(work: () => Promise<T>): Promise<T> {
    const done = await this.#during(work);
    await this.#person.send(() => undefined);
    return done;
  }

  /** Sends events by itself, with the browser's own pointer out of the way. */
  async #simulate(work: (hands: Hands) => Promise<void>): Promise<void> {
    await this.#do(putDown);
    await work(this.#simulated);
  }

  // What only moves waits for the next frame, unless something comes after it: the release of no button is not heard.
  #mouse(type: 'Moved' | 'Pressed' | 'Released', { clientX, clientY }: Place, more: object = {}): Command {
    isOnPage = true;
    const where = { x: clientX, y: clientY, modifiers: modifiersOf(this.#person) };
    return ['Input.dispatchMouseEvent', { type: `mouse${type}`, button: 'none', ...where, ...more }];
  }

  async #holding(keys: readonly Modifier[], work: () => Promise<void>): Promise<void> {
    const { held } = this.#person;
    for (const key of keys) {
      held.add(key);
      await this.#do(() => drive(keyCommand(this.#person, key, 'down')));
    }
    try {
      await work();
    } finally {
      for (const key of [...keys].reverse()) {
        held.delete(key);
        await this.#do(() => drive(keyCommand(this.#person, key, 'up')));
      }
    }
  }

  click = async (element: Element, how: ClickHow = {}): Promise<void> => {
    const place = drawnOutside(element) ? undefined : placeOf(element, 'click');
    if (!place) return this.#simulate((hands) => hands.click(element, how));
    const { times = 1, pointer = 'mouse', button = 'primary' } = how;
    const heldFor = Number(how.heldFor ?? 0);
    await this.#holding(readHeld(how.holding), () =>
      stayingHere(element, async () => {
        if (pointer === 'touch') return this.#tap(place, heldFor);
        for (let count = 1; count <= times; count++) await this.#press(place, button, count, heldFor);
      }),
    );
  };

  async #press(place: Place, button: Button, clickCount: number, heldFor: number): Promise<void> {
    const more = { button: named[button], clickCount };
    const pressed = { ...more, buttons: buttons[button][1] };
    await this.#do(() => drive(this.#mouse('Moved', place), this.#mouse('Pressed', place, pressed)));
    if (heldFor > 0) await this.#person.wait(heldFor);
    await this.#do(() => drive(this.#mouse('Released', place, more)));
  }

  async #tap({ clientX: x, clientY: y }: Place, heldFor: number): Promise<void> {
    const touch = (type: string, touchPoints: readonly object[]): Command => [
      'Input.dispatchTouchEvent',
      { type, touchPoints, modifiers: modifiersOf(this.#person) },
    ];
    await this.#do(() => drive(touch('touchStart', [{ x, y }])));
    if (heldFor > 0) await this.#person.wait(heldFor);
    await this.#do(() => drive(touch('touchEnd', [])));
  }

  moveTo = async (element: Element | null): Promise<void> => {
    const place = element ? placeOf(element, 'hover over') : outside;
    if (!place) return this.#simulate((hands) => hands.moveTo(element));
    await this.#do(() => drive(this.#mouse('Moved', place), this.#mouse('Released', place)));
  };

  drag = async (from: Element, to: Element | Distance): Promise<void> => {
    // What a browser carries as data it carries outside of the page.
    const end = draggableAround(from)
      ? undefined
      : isElement(to)
        ? placeOf(to, 'drop on')
        : placeOf(from, 'drag');
    const start = end && placeOf(from, 'drag');
    if (!start) return this.#simulate((hands) => hands.drag(from, to));
    const goal = isElement(to) ? end : moved(start, acrossOf(to), downOf(to));
    const left = { button: named.primary, clickCount: 1 };
    const down = { ...left, buttons: 1 };
    await this.#do(() => drive(this.#mouse('Moved', start), this.#mouse('Pressed', start, down)));
    for (const place of [halfway(start, goal), goal])
      await this.#do(() => drive(this.#mouse('Moved', place, down)));
    await this.#do(() => drive(this.#mouse('Released', goal, left)));
  };

  scroll = async (element: Element, by: Distance): Promise<void> => {
    const place = placeOf(element, 'scroll');
    if (!place) return this.#simulate((hands) => hands.scroll(element, by));
    const { document } = this.#person;
    const turned = { type: 'mouseWheel', deltaX: acrossOf(by), deltaY: downOf(by) };
    await this.#do(() => drive(this.#mouse('Moved', place)));
    const told = heardOnce(document, 'scrollend');
    await this.#do(() => drive(this.#mouse('Moved', place, turned)));
    await told;
  };

  press = async (keys: string): Promise<void> => {
    const { held, key } = readKeys(keys);
    if (isModifier(key)) return this.#holding([...held, key], () => Promise.resolve());
    const command = commandOf([...held, ...this.#person.held], key);
    const { clipboard } = this.#person;
    // A browser's clipboard takes no files of a script.
    if (command === 'v' && clipboard.files?.length) return this.#simulated.press(keys);
    await this.#holding(held, async () => {
      const done = strike(this.#person, key);
      if (command === 'v') await this.#do(() => driveWith(clipboard, ...done));
      else if (command === 'c' || command === 'x') {
        // Where nothing is selected, the clipboard stays as it is.
        const copied = await this.#do(() => driveAndRead(clipboard, ...done));
        this.#person.clipboard = copied ?? clipboard;
      } else await this.#do(() => drive(...done));
    });
  };

  typeKeys = async (_field: Element, text: string): Promise<void> => {
    for (const character of charactersOf(text)) {
      const commands: readonly Command[] = isTyped(character)
        ? strike(this.#person, character === '\n' ? 'Enter' : character)
        : [['Input.insertText', { text: character }]];
      await this.#do(() => drive(...commands));
    }
  };

  compose = async (_field: Element, steps: readonly string[]): Promise<void> => {
    const last = steps.at(-1) ?? '';
    for (const text of steps) {
      const range = { selectionStart: text.length, selectionEnd: text.length };
      await this.#do(() => drive(['Input.imeSetComposition', { text, ...range }]));
    }
    await this.#do(() => drive(['Input.insertText', { text: last }]));
  };

  clearField = async (): Promise<void> => {
    await this.press('Control+a');
    await this.press('Backspace');
  };

  takeFiles = async (input: HTMLInputElement, files: readonly File[]): Promise<void> => {
    Object.assign(globalThis, { simulacraInput: input });
    const carried = await readFiles(files);
    await this.#do(() => ask('files', { files: carried }));
  };
}

/** A clipboard's key, where that is what is pressed. */
const commandOf = (held: readonly Modifier[], key: string): string | undefined =>
  (held.includes('Control') || held.includes('Meta')) && !held.includes('Alt')
    ? key.toLowerCase()
    : undefined;

/** What a browser draws outside of the page when it is pressed, where nothing can be pressed in turn. */
const drawnOutside = (element: Element): boolean =>
  (element.localName === 'select' && !(element as HTMLSelectElement).multiple) ||
  (element.localName === 'input' &&
    /^(color|date|datetime-local|month|time|week)$/.test((element as HTMLInputElement).type));

/** A link opens no other page or window where a listener leaves it to the browser. */
async function stayingHere(element: Element, work: () => Promise<void>): Promise<void> {
  const page = element.ownerDocument.defaultView!;
  const stay = (event: Event) => {
    const { ctrlKey, metaKey, shiftKey, type } = event as MouseEvent;
    if (type === 'auxclick' || ctrlKey || metaKey || shiftKey) {
      const link = (event.composedPath() as Element[]).find((at) => at.localName === 'a');
      if (link) event.preventDefault();
    }
  };
  page.addEventListener('click', stay);
  page.addEventListener('auxclick', stay);
  try {
    await work();
  } finally {
    page.removeEventListener('click', stay);
    page.removeEventListener('auxclick', stay);
  }
}

let isOnPage = false;

/** From now on a person at the page has them. */
export function lendDevices(): void {
  // A browser's own input takes several tasks, and answers arrive meanwhile: orders of arrival could not be kept apart.
  devices.lend = (person, during) => (directing.current ? person.hands : new Devices(person, during));
}

/** Takes the pointer off the page, so that what the next test puts there is not under it. */
export async function putDown(): Promise<void> {
  if (!isOnPage) return;
  isOnPage = false;
  const place = { x: outside.clientX, y: outside.clientY, button: 'none' };
  const half = (type: string): Command => ['Input.dispatchMouseEvent', { type, ...place }];
  await drive(half('mouseMoved'), half('mouseReleased'));
}
