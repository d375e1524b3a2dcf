import { once } from '../../core/shared';
import { isEditable } from '../describe';
import { editContent } from './content';
import { dispatch, type Init, tell, type Send } from './events';
import {
  noteEntered,
  placeCaret,
  select,
  selectionOf,
  show,
  shownIn,
  takes,
  type Field,
  type Selected,
} from './fields';
import { removed, type Reach } from './words';

/** One edit: text that is put in, or null for taking away. @see https://www.w3.org/TR/input-events-2/ */
export interface Edit {
  readonly inputType: InputType;
  readonly data: string | null;
  /** How much is taken away where nothing is selected, and on which side of the caret. */
  readonly reach?: Reach;
  readonly isForward?: boolean;
}
type InputType =
  | 'insertText'
  | 'insertLineBreak'
  | 'insertParagraph'
  | 'insertCompositionText'
  | 'insertFromPaste'
  | 'deleteByCut'
  | `delete${'Content' | 'Word'}${'Backward' | 'Forward'}`;

export const insertion = (data: string): Edit => ({ inputType: 'insertText', data });
export const removal = (reach: 'character' | 'word', isForward: boolean): Edit => ({
  inputType: `delete${reach === 'word' ? 'Word' : 'Content'}${isForward ? 'Forward' : 'Backward'}`,
  data: null,
  reach,
  isForward,
});

/** Replaces what is selected in a field (or what stands beside the caret) by a text. */
export async function editText(field: Element, edit: Edit, send: Send): Promise<void> {
  if (isEditable(field)) return editContent(field, edit, send);
  const input = field as Field;
  const told = { inputType: edit.inputType, data: edit.data };
  // Browsers fire the events of a letter typed into a read-only field, and do not insert it.
  if (input.readOnly && edit.data === null) return;
  noteEntered(input);
  const allowed = await tell(send, field, 'beforeinput', told);
  if (!allowed || input.readOnly) return;
  // A field of one line gets the event of the key, and keeps its selection.
  if (edit.inputType === 'insertLineBreak' && field.localName !== 'textarea') return;
  const before = shownIn(input);
  const selected = selectionOf(input);
  const text = fitting(input, edit, before, selected);
  const { start, end } = text === '' ? removed(before, selected, edit) : selected;
  const after = before.slice(0, start) + text + before.slice(end);
  const isNothing = after === before && text === '';
  if (isNothing || !takes(input, text)) return;
  remember(input, edit.inputType, { text: before, selected }, after);
  const put = { ...told, data: edit.data === null ? null : text };
  await write(input, after, start + text.length, put, send);
}

function fitting(field: Field, { inputType, data }: Edit, before: string, { start, end }: Selected): string {
  if (inputType === 'insertLineBreak') return '\n';
  // A field of one line has none to break.
  const text = field.localName === 'textarea' ? (data ?? '') : (data ?? '').replace(/\r\n|\r|\n/g, ' ');
  const { maxLength } = field;
  const room = maxLength >= 0 ? maxLength - (before.length - (end - start)) : Infinity;
  return text.slice(0, Math.max(0, room));
}

async function write(field: Field, text: string, caret: number, told: Init, send: Send): Promise<void> {
  await send(() => {
    show(field, text);
    placeCaret(field, caret);
    dispatch(field, 'input', told);
  });
  // A framework that sets the value moves the caret to the end.
  if (shownIn(field) === text) placeCaret(field, caret);
}

interface Moment {
  readonly text: string;
  readonly selected: Selected;
}
interface History {
  readonly undone: Moment[];
  readonly done: Moment[];
  /** The kind of the last edit: letters typed in a row are undone at once. */
  last: string;
  /** What the field showed when the last edit was over. */
  shown: string;
}
const histories = once('histories', () => new WeakMap<Field, History>());

function remember(field: Field, inputType: string, before: Moment, after: string): void {
  const known = histories.get(field);
  // What a script has written since is not undone by a browser either.
  const history = known?.shown === before.text ? known : { done: [], undone: [], last: '', shown: '' };
  const isSame = inputType === 'insertText' && history.last === inputType;
  if (!isSame || history.done.length === 0) history.done.push(before);
  history.undone.length = 0;
  history.last = inputType;
  history.shown = after;
  histories.set(field, history);
}

/** Undoes the last edit of a field, or does it again. */
export async function undo(field: Element, isAgain: boolean, send: Send): Promise<void> {
  const input = field as Field;
  const history = histories.get(input);
  const from = isAgain ? history?.undone : history?.done;
  const moment = from?.at(-1);
  if (!history || !moment) return;
  const told = { inputType: isAgain ? 'historyRedo' : 'historyUndo', data: null };
  if (!(await tell(send, field, 'beforeinput', told))) return;
  from!.pop();
  (isAgain ? history.done : history.undone).push({ text: shownIn(input), selected: selectionOf(input) });
  history.last = told.inputType;
  history.shown = moment.text;
  await write(input, moment.text, moment.selected.end, told, send);
  if (shownIn(input) === moment.text) select(input, moment.selected);
}
