import { once } from '../../core/shared';
import { isEditable } from '../describe';
import { dispatch, pageOf, type Send } from './dispatch';

type Field = HTMLInputElement | HTMLTextAreaElement;

// The value of a field when it got the focus. Leaving it with another value is a change.
const entered = once('entered', () => new WeakMap<Element, string>());

/** The value setter of the platform: frameworks watch the element's own one to tell their writing from a person's. */
export function writeValue(field: Element, value: string): void {
  const page = pageOf(field);
  const Kind = field.localName === 'textarea' ? page.HTMLTextAreaElement : page.HTMLInputElement;
  Object.getOwnPropertyDescriptor(Kind.prototype, 'value')!.set!.call(field, value);
}

/** Sends `change` where the field was edited since it was entered. */
export async function commitChange(field: Element, send: Send): Promise<void> {
  const before = entered.get(field);
  entered.delete(field);
  if (before === undefined || before === (field as Field).value) return;
  await send(() => void dispatch(field, 'change'));
}

/** Replaces what is selected in a field (or what stands before the caret) by a text. */
export async function editText(field: Element, edit: Edit, send: Send): Promise<void> {
  if (isEditable(field)) return editContent(field, edit, send);
  const input = field as Field;
  const before = input.value;
  if (!entered.has(field)) entered.set(field, before);
  const { value, caret } = apply(edit, before, selectionOf(input));
  const { maxLength } = input;
  if (edit.data !== null && maxLength >= 0 && value.length > maxLength) return;
  const told = { inputType: edit.inputType, data: edit.data };
  let allowed = true;
  await send(() => void (allowed = dispatch(field, 'beforeinput', told)));
  if (!allowed || (value === before && edit.data === null)) return;
  await send(() => {
    writeValue(field, value);
    placeCaret(input, caret);
    dispatch(field, 'input', told);
  });
  // A framework that sets the value moves the caret to the end.
  if (input.value === value) placeCaret(input, caret);
}

/** One edit: text that is put in, or null for taking away. */
export interface Edit {
  readonly inputType: 'insertText' | 'insertLineBreak' | 'deleteContentBackward' | 'deleteContentForward';
  readonly data: string | null;
}

type Selection = readonly [start: number, end: number];

function apply(
  { inputType, data }: Edit,
  value: string,
  [start, end]: Selection,
): { value: string; caret: number } {
  const text = inputType === 'insertLineBreak' ? '\n' : (data ?? '');
  const one = start === end && data === null && inputType !== 'insertLineBreak';
  const from = one && inputType === 'deleteContentBackward' ? Math.max(0, start - 1) : start;
  const to = one && inputType === 'deleteContentForward' ? end + 1 : end;
  return { value: value.slice(0, from) + text + value.slice(to), caret: from + text.length };
}

// Number and e-mail fields have no readable selection.
function selectionOf(field: Field): Selection {
  const { selectionStart, selectionEnd, value } = field;
  return selectionStart === null
    ? [fullySelected.has(field) ? 0 : value.length, value.length]
    : [selectionStart, selectionEnd ?? selectionStart];
}

const fullySelected = once('fully-selected', () => new WeakSet<Element>());

function placeCaret(field: Field, at: number): void {
  fullySelected.delete(field);
  if (field.selectionStart !== null) field.setSelectionRange(at, at);
}

/** Selects all of a field, as Control+A does. */
export function selectAll(field: Element): void {
  (field as Partial<Field>).select?.();
  fullySelected.add(field);
}

async function editContent(field: Element, edit: Edit, send: Send): Promise<void> {
  const before = field.textContent ?? '';
  const selection: Selection = fullySelected.has(field) ? [0, before.length] : [before.length, before.length];
  const { value } = apply(edit, before, selection);
  fullySelected.delete(field);
  const told = { inputType: edit.inputType, data: edit.data };
  let allowed = true;
  await send(() => void (allowed = dispatch(field, 'beforeinput', told)));
  if (!allowed) return;
  await send(() => {
    field.textContent = value;
    dispatch(field, 'input', told);
  });
}

/** Sets a field that is not typed letter by letter (a date, a colour, a range) at once. */
export async function setWhole(field: Element, value: string, send: Send): Promise<void> {
  await send(() => {
    writeValue(field, value);
    dispatch(field, 'input', { inputType: 'insertReplacementText', data: null });
  });
  await send(() => void dispatch(field, 'change'));
}

/** Types of inputs whose value a person picks rather than types. */
export const pickedTypes = /^(date|time|month|week|datetime-local|color|range)$/;
