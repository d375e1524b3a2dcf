import { isField } from '../describe';
import { selectedText } from './caret';
import { editText } from './edit';
import { pageOf, tell } from './events';
import type { Clip, Person } from './person';

/** What is carried by a clipboard or a drag, as the page's own class. */
export function carrying(element: Element, { text, html, files = [] }: Clip): DataTransfer {
  const transfer = new (pageOf(element).DataTransfer)();
  if (text !== '') transfer.setData('text/plain', text);
  if (html !== undefined) transfer.setData('text/html', html);
  for (const file of files) transfer.items.add(file);
  return transfer;
}

/** Copies or cuts what is selected. @see https://w3c.github.io/clipboard-apis/ */
export async function copy(person: Person, focused: Element, isCut: boolean): Promise<void> {
  const { body } = person.document;
  // Text takes no focus, so the event goes to the element around it.
  const target =
    focused === body ? (body.ownerDocument.getSelection()?.anchorNode?.parentElement ?? body) : focused;
  const text = selectedText(target);
  const clipboardData = carrying(target, { text: '' });
  if (!(await tell(person.send, target, isCut ? 'cut' : 'copy', { clipboardData }))) {
    const html = clipboardData.getData('text/html');
    person.clipboard = {
      text: clipboardData.getData('text/plain'),
      ...(html && { html }),
      files: [...clipboardData.files],
    };
    return;
  }
  if (text === '') return;
  person.clipboard = { text };
  if (isCut && takesText(target))
    await editText(target, { inputType: 'deleteByCut', data: null }, person.send);
}

const takesText = (target: Element): boolean => isField(target) && target.localName !== 'select';

/** Pastes what is on the clipboard where the focus is. */
export async function paste(person: Person, target: Element): Promise<void> {
  const { clipboard, send } = person;
  const clipboardData = carrying(target, clipboard);
  const allowed = await tell(send, target, 'paste', { clipboardData });
  if (!allowed || !takesText(target) || clipboard.text === '') return;
  await editText(target, { inputType: 'insertFromPaste', data: clipboard.text }, send);
}
