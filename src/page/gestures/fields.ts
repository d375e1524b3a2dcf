import { once } from '../../core/shared';
import { dispatch, pageOf, type Send } from './events';

export type Field = HTMLInputElement | HTMLTextAreaElement;

export const isTextField = (element: Element): element is Field =>
  /^(input|textarea)$/.test(element.localName);

/** What is selected of a text: from, to, and whether the caret is at the front of it. */
export interface Selected {
  readonly start: number;
  readonly end: number;
  readonly isBackward?: boolean;
}

// The value of a field when it got the focus. Leaving it with another value is a change.
const entered = once('entered', () => new WeakMap<Element, string>());

/** Notes the value of a field before the first edit. */
export function noteEntered(field: Field): void {
  if (!entered.has(field)) entered.set(field, field.value);
}

/** Sends `change` where the field was edited since it was entered. */
export async function commitChange(field: Element, send: Send): Promise<void> {
  const before = entered.get(field);
  entered.delete(field);
  if (before === undefined || before === (field as Field).value) return;
  await send(() => void dispatch(field, 'change'));
}

/** The value setter of the platform: frameworks watch the element's own one, to recognise what they wrote themselves. */
export function writeValue(field: Element, value: string): void {
  const page = pageOf(field);
  const Kind = field.localName === 'textarea' ? page.HTMLTextAreaElement : page.HTMLInputElement;
  Object.getOwnPropertyDescriptor(Kind.prototype, 'value')!.set!.call(field, value);
}

// What a person sees in a number field while it is not yet a number, as `-` or `4.`; its value is empty then.
const unfinished = once('unfinished', () => new WeakMap<Element, { text: string; value: string }>());

/** What a person sees in a field. */
export function shownIn(field: Field): string {
  const seen = unfinished.get(field);
  return seen?.value === field.value ? seen.text : field.value;
}

/** Writes what a person sees in a field. */
export function show(field: Field, text: string): void {
  writeValue(field, text);
  if (field.type !== 'number') return;
  if (Number.isNaN(Number(text)) || text.endsWith('.')) writeValue(field, text.replace(/\.$/, ''));
  unfinished.set(field, { text, value: field.value });
}

/** Whether a field takes a text at all: a number field takes no letters. */
export const takes = (field: Field, text: string): boolean =>
  field.type !== 'number' || /^[-+.\deE]*$/.test(text);

// Number and e-mail fields have no readable selection.
const fullySelected = once('fully-selected', () => new WeakSet<Element>());

export function selectionOf(field: Field): Selected {
  const { selectionStart, selectionEnd, selectionDirection } = field;
  const { length } = shownIn(field);
  if (selectionStart === null) return { start: fullySelected.has(field) ? 0 : length, end: length };
  return {
    start: selectionStart,
    end: selectionEnd ?? selectionStart,
    isBackward: selectionDirection === 'backward',
  };
}

export function placeCaret(field: Field, at: number): void {
  select(field, { start: at, end: at });
}

export function select(field: Field, { start, end, isBackward }: Selected): void {
  if (start === 0 && end > 0 && end === shownIn(field).length) fullySelected.add(field);
  else fullySelected.delete(field);
  if (field.selectionStart !== null) field.setSelectionRange(start, end, isBackward ? 'backward' : 'forward');
}

/** Selects all of a field, as Control+A does. */
export function selectAll(field: Element): void {
  if (typeof (field as Partial<Field>).value !== 'string') return;
  (field as Partial<Field>).select?.();
  fullySelected.add(field);
}

/** Sets a field that is not typed letter by letter (a date, a colour, a range) at once. */
export async function setWhole(field: Element, value: string, send: Send): Promise<void> {
  if ((field as Field).value === value) return;
  await send(() => {
    writeValue(field, value);
    dispatch(field, 'input');
  });
  await send(() => void dispatch(field, 'change'));
}

/** Types of inputs whose value a person picks rather than types. */
export const pickedTypes = /^(date|time|month|week|datetime-local|color|range)$/;
