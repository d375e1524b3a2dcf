import { isEditable } from '../describe';
import { selectContent, spanIn } from './content';
import { isTextField, select, selectAll, selectionOf, shownIn, type Field, type Selected } from './fields';
import { placeBeside, placeInNextLine } from './words';

/** What a key that moves the caret does in a field, and with Shift to what is selected. */
export function moveCaret(target: Element, key: string, isWord: boolean, isShifted: boolean): void {
  const text = isEditable(target) ? (target.textContent ?? '') : shownIn(target as Field);
  const before: Selected = isEditable(target) ? spanIn(target) : selectionOf(target as Field);
  const { start, end, isBackward = false } = before;
  const caret = isBackward ? start : end;
  const isCollapsing = !isShifted && start !== end && /^Arrow(Left|Right)$/.test(key) && !isWord;
  const isForward = /Right|Down|End/.test(key);
  const to = isCollapsing ? (isForward ? end : start) : goneTo(text, caret, key, isWord);
  const anchor = isShifted ? (isBackward ? end : start) : to;
  const after = { start: Math.min(anchor, to), end: Math.max(anchor, to), isBackward: to < anchor };
  if (isEditable(target)) selectContent(target, after);
  else select(target as Field, after);
}

function goneTo(text: string, caret: number, key: string, isWord: boolean): number {
  if (/Up|Down/.test(key)) return placeInNextLine(text, caret, key === 'ArrowDown');
  const isForward = /Right|End/.test(key);
  const reach = /Home|End/.test(key) ? (isWord ? 'all' : 'line') : isWord ? 'word' : 'character';
  return placeBeside(text, caret, reach, isForward);
}

/** Selects all of a field, or of what is editable. */
export function selectEverything(target: Element): void {
  if (isEditable(target)) selectContent(target, { start: 0, end: (target.textContent ?? '').length });
  else selectAll(target);
}

/** What is selected: of a field that has the focus, or else of the page. */
export function selectedText(target: Element): string {
  if (!isTextField(target)) return target.ownerDocument.getSelection()?.toString() ?? '';
  const { start, end } = selectionOf(target);
  return shownIn(target).slice(start, end);
}

/** Selects a text in a field or in what an element shows. @returns false where it is not there */
export function mark(target: Element, text: string): boolean {
  const whole = isTextField(target) ? shownIn(target) : (target.textContent ?? '');
  const start = whole.indexOf(text);
  if (start < 0) return false;
  const span = { start, end: start + text.length };
  if (isTextField(target)) select(target, span);
  else selectContent(target, span);
  return true;
}
