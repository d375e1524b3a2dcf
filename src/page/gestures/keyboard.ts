import { isEditable, isField } from '../describe';
import { moveCaret, selectEverything } from './caret';
import { clickByKey, isPressable } from './clicks';
import { copy, paste } from './clipboard';
import { tell } from './events';
import { editText, insertion, removal, undo } from './edit';
import { moveByTab } from './focus';
import { submitByKey } from './submit';
import { isModifier, keyOf, readKeys, type Key } from './keys';
import { focusedIn, holding, type Modifier, type Person } from './person';
import { stepValue } from './stepping';
import { closeByKey } from './top-layer';
import { charactersOf, isOneCharacter } from './words';

/** Presses a key on what has the focus, with modifiers before it. @throws SIM-ACT-KEY */
export async function press(person: Person, keys: string): Promise<void> {
  const { held, key } = readKeys(keys);
  await whileHolding(person, held, () =>
    isModifier(key) ? whileHolding(person, [key]) : strike(person, keyOf(key, person.held.has('Shift'))),
  );
}

/** Holds modifiers while something is done. */
export async function whileHolding(
  person: Person,
  keys: readonly Modifier[],
  work?: () => Promise<void>,
): Promise<void> {
  const { send, document } = person;
  for (const key of keys) {
    person.held.add(key);
    await tell(send, focusedIn(document), 'keydown', { ...keyOf(key), ...holding(person) });
  }
  try {
    await work?.();
  } finally {
    for (const key of [...keys].reverse()) {
      person.held.delete(key);
      await tell(send, focusedIn(document), 'keyup', { ...keyOf(key), ...holding(person) });
    }
  }
}

/** One key: its events, and what the browser does by itself. */
async function strike(person: Person, key: Key): Promise<void> {
  const { send, document } = person;
  const pressed = focusedIn(document);
  const init = { ...key, ...holding(person) };
  let allowed = await tell(send, pressed, 'keydown', init);
  // What is typed goes to where a listener has moved the focus, as with the fields of a code.
  const target = focusedIn(document);
  if (allowed && isPrinting(person, target, key)) {
    const charCode = key.key === 'Enter' ? 13 : key.key.codePointAt(0)!;
    allowed = await tell(send, target, 'keypress', { ...init, keyCode: charCode, charCode });
  }
  if (allowed) await doByItself(person, target, key);
  // The keyup goes to whatever has the focus by then.
  const after = focusedIn(document);
  const released = await tell(send, after, 'keyup', init);
  if (allowed && released && key.key === ' ' && after === pressed && isPressable(after))
    await clickByKey(person, after);
}

/** True while a key that is held makes a command of others. */
export const isCommand = ({ held }: Person): boolean =>
  held.has('Control') || held.has('Meta') || held.has('Alt');

// A link is followed by the keydown already.
const isPrinting = (person: Person, target: Element, { key }: Key): boolean =>
  !isCommand(person) && (key === 'Enter' ? !target.matches('a[href]') : isOneCharacter(key));

async function doByItself(person: Person, target: Element, { key }: Key): Promise<void> {
  const { held, send } = person;
  if (key === 'Tab') return moveByTab(person, held.has('Shift'));
  if (key === 'Enter' && !isCommand(person)) return enter(person, target);
  if (await stepValue(person, target, key)) return;
  if (key === 'Escape') return closeByKey(person);
  if (held.has('Control') || held.has('Meta')) if (await doCommand(person, target, key)) return;
  if (!isField(target) || target.localName === 'select' || held.has('Alt')) return;
  const isWord = held.has('Control') || held.has('Meta');
  if (key === 'Backspace' || key === 'Delete')
    await editText(target, removal(isWord ? 'word' : 'character', key === 'Delete'), send);
  else if (/^(Arrow|Home|End)/.test(key)) moveCaret(target, key, isWord, held.has('Shift'));
  else if (!isWord && isOneCharacter(key)) await editText(target, insertion(key), send);
}

const commands: Readonly<Record<string, (person: Person, target: Element) => unknown>> = {
  a: (_, target) => selectEverything(target),
  c: (person, target) => copy(person, target, false),
  x: (person, target) => copy(person, target, true),
  v: (person, target) => paste(person, target),
  z: ({ held, send }, target) => canUndo(target) && undo(target, held.has('Shift'), send),
  y: ({ send }, target) => canUndo(target) && undo(target, true, send),
};
const canUndo = (target: Element): boolean =>
  isField(target) && !isEditable(target) && target.localName !== 'select';

async function doCommand(person: Person, target: Element, key: string): Promise<boolean> {
  const command = person.held.has('Alt') ? undefined : commands[key.toLowerCase()];
  await command?.(person, target);
  return command !== undefined;
}

async function enter(person: Person, target: Element): Promise<void> {
  if (target.localName === 'textarea' || isEditable(target))
    return editText(target, { inputType: 'insertLineBreak', data: null }, person.send);
  const { type } = target as HTMLInputElement;
  const isButton =
    /^(button|summary)$/.test(target.localName) || /^(button|submit|reset|image|color|file)$/.test(type);
  if (isButton || target.matches('a[href]')) return clickByKey(person, target);
  if (target.localName !== 'input') return;
  if (isField(target)) await editText(target, { inputType: 'insertLineBreak', data: null }, person.send);
  await submitByKey(person, target as HTMLInputElement);
}

/** Types a text into a field that has the focus, key by key. */
export async function typeKeys(person: Person, field: Element, text: string): Promise<void> {
  for (const character of charactersOf(text)) {
    const target = focusedIn(person.document);
    if (isTyped(character)) await strike(person, keyOf(character === '\n' ? 'Enter' : character));
    else await editText(isField(target) ? target : field, insertion(character), person.send);
  }
}

// There is no key for an emoji; it is put in by the keyboard on the screen.
export const isTyped = (character: string): boolean =>
  /^[\x20-\x7e\n]$|^[\p{L}\p{M}\p{P}]+$/u.test(character);

/** Empties a field that has the focus. */
export async function clearField(person: Person, field: Element): Promise<void> {
  await person.send(() => selectEverything(field));
  await editText(field, removal('character', false), person.send);
}

/** Composes a text in steps, as an accent or a syllable is: each step replaces the one before. */
export async function compose(person: Person, field: Element, steps: readonly string[]): Promise<void> {
  const { send } = person;
  const last = steps[steps.length - 1] ?? '';
  await tell(send, field, 'compositionstart', { data: '' });
  let before = '';
  for (const data of [...steps, last]) {
    await tell(send, field, 'compositionupdate', { data });
    await composeStep(person, field, before, data);
    before = data;
  }
  await tell(send, field, 'compositionend', { data: last });
}

async function composeStep({ send }: Person, field: Element, before: string, data: string): Promise<void> {
  selectBefore(field, before.length);
  await editText(field, { inputType: 'insertCompositionText', data }, send);
}

function selectBefore(field: Element, length: number): void {
  const input = field as HTMLInputElement;
  const at = input.selectionStart;
  if (at !== null && at !== undefined && length > 0) input.setSelectionRange(at - length, at);
}
