import { describe, isEditable } from '../describe';
import { refuse } from '../errors';
import { mark, selectedText, selectEverything } from './caret';
import { choose } from './choose';
import { selectContent } from './content';
import { drop } from './drag';
import { isTextField, pickedTypes, placeCaret, type Field } from './fields';
import { focusTargetOf, moveFocus } from './focus';
import { makePerson, type Setting } from './hands';
import { focusedIn, type Clip, type Person } from './person';
import { pick } from './values';

/** Where typing begins in a field, if not behind its text. */
export interface TypeWhere {
  /** The place of the caret: 0 is before the first character. */
  readonly at?: number;
  /** A part of the field's text, which is selected and so replaced. */
  readonly over?: string;
}

/** What is pasted: a text, files, or a text with its markup. */
export type Pasted = string | File | readonly File[] | { readonly text: string; readonly html?: string };

/** What a person can do at a page. Each resolves when all events of it are sent. */
export function personAt(setting: Setting) {
  const { document } = setting;
  const person = makePerson(setting);
  const { hands } = person;
  return {
    click: hands.click,
    hover: (element: Element) => hands.moveTo(element),
    leave: () => hands.moveTo(null),
    drag: hands.drag,
    drop: (element: Element, ...files: readonly File[]) => drop(person, element, files),
    scroll: hands.scroll,
    choose: (element: Element, ...wanted: readonly (string | File)[]) => choose(person, element, wanted),
    press: async (keys: string, element?: Element) => {
      if (element) await focusFor(person, element);
      await hands.press(keys);
    },
    type: (element: Element, text: string, where?: TypeWhere) => typeInto(person, element, text, where),
    compose: (element: Element, ...steps: readonly string[]) => composeIn(person, element, steps),
    clear: async (element: Element) => {
      await hands.click(element);
      await hands.clearField(element);
    },
    mark: (element: Element, text?: string) => markText(person, element, text),
    copy: (element: Element) => takeText(person, element, 'Control+c'),
    cut: (element: Element) => takeText(person, element, 'Control+x'),
    paste: async (element: Element, what?: Pasted) => {
      if (focusedIn(document) !== element && focusTargetOf(element)) await hands.click(element);
      if (what !== undefined) person.clipboard = asClip(what);
      await hands.press('Control+v');
    },
  };
}

export type Acts = ReturnType<typeof personAt>;

/** A key goes to what has the focus. @throws SIM-ACT-FOCUS where an element and what is around it take none */
async function focusFor(person: Person, element: Element): Promise<void> {
  const { body, documentElement } = person.document;
  const target = focusTargetOf(element);
  if (!target && element !== body && element !== documentElement)
    refuse('SIM-ACT-FOCUS', { element: describe(element) });
  await moveFocus(person, target);
}

function asClip(what: Pasted): Clip {
  if (typeof what === 'string') return { text: what };
  if ('text' in what && typeof what.text === 'string') return what as Clip;
  return { text: '', files: [what as File | readonly File[]].flat() as File[] };
}

async function typeInto(
  person: Person,
  element: Element,
  text: string,
  where: TypeWhere = {},
): Promise<void> {
  const { type, localName } = element as HTMLInputElement;
  if (localName === 'input' && pickedTypes.test(type)) return pick(person, element as HTMLInputElement, text);
  await person.hands.click(element);
  await person.send(() => placeIn(element, where));
  await person.hands.typeKeys(element, text);
}

function placeIn(element: Element, { at, over }: TypeWhere): void {
  if (over !== undefined) refuseUnmarked(element, over);
  if (at === undefined) return;
  if (isEditable(element)) selectContent(element, { start: at, end: at });
  else placeCaret(element as Field, at);
}

/** @throws SIM-ACT-TEXT where an element does not show the text */
function refuseUnmarked(element: Element, text: string): void {
  if (mark(element, text)) return;
  const { value } = element as Partial<Field>;
  refuse('SIM-ACT-TEXT', { element: describe(element), text, whole: value ?? element.textContent ?? '' });
}

async function composeIn(person: Person, element: Element, steps: readonly string[]): Promise<void> {
  if (focusedIn(person.document) !== element) await person.hands.click(element);
  await person.hands.compose(element, steps);
}

/** Gives an element the focus where it takes one; a person who selects a text takes the focus from a field. */
const focusOn = (person: Person, element: Element): Promise<void> =>
  moveFocus(person, focusTargetOf(element));

async function markText(person: Person, element: Element, text: string | undefined): Promise<void> {
  await focusOn(person, element);
  await person.send(() => {
    if (text === undefined) markAll(element);
    else refuseUnmarked(element, text);
  });
}

function markAll(element: Element): void {
  if (isTextField(element)) selectEverything(element);
  else mark(element, element.textContent ?? '');
}

/** True where a part of the element itself is selected. */
function hasSelected(element: Element): boolean {
  if (selectedText(element) === '') return false;
  const { anchorNode } = element.ownerDocument.getSelection()!;
  return isTextField(element) || element.contains(anchorNode);
}

/** Copies or cuts what is selected of an element; all of it where nothing is. @returns the clipboard's text */
async function takeText(person: Person, element: Element, keys: string): Promise<string> {
  await focusOn(person, element);
  if (!hasSelected(element)) await person.send(() => markAll(element));
  await person.hands.press(keys);
  return person.clipboard.text;
}
