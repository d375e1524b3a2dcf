import { tell, type Send } from './events';
import type { Edit } from './edit';
import { removed } from './words';

/** Places in what is editable, by the length of the text before them. */
interface Span {
  readonly start: number;
  readonly end: number;
}

const selectionIn = ({ ownerDocument }: Element): Selection => ownerDocument.getSelection()!;

function textsIn(root: Node): Text[] {
  const walker = root.ownerDocument!.createTreeWalker(root, 4);
  const texts: Text[] = [];
  while (walker.nextNode()) texts.push(walker.currentNode as Text);
  return texts;
}

/** What is selected of an element's content. Its end where the caret is elsewhere. */
export function spanIn(element: Element): Span {
  const selection = selectionIn(element);
  const range = selection.rangeCount > 0 ? selection.getRangeAt(0) : undefined;
  if (!range || !element.contains(range.commonAncestorContainer)) {
    const { length } = element.textContent ?? '';
    return { start: length, end: length };
  }
  const before = element.ownerDocument.createRange();
  before.selectNodeContents(element);
  before.setEnd(range.startContainer, range.startOffset);
  const start = before.toString().length;
  return { start, end: start + range.toString().length };
}

/** Selects a part of an element's content. */
export function selectContent(element: Element, { start, end }: Span): void {
  const range = element.ownerDocument.createRange();
  const [from, before] = nodeAt(element, start);
  const [to, after] = nodeAt(element, end);
  range.setStart(from, before);
  range.setEnd(to, after);
  const selection = selectionIn(element);
  selection.removeAllRanges();
  selection.addRange(range);
}

function nodeAt(element: Element, at: number): [node: Node, offset: number] {
  let left = at;
  let last: Text | undefined;
  for (const text of textsIn(element)) {
    if (left <= text.length) return [text, left];
    left -= text.length;
    last = text;
  }
  return last ? [last, last.length] : [element, element.childNodes.length];
}

/** Edits what is editable: only what is selected changes, so the markup around it stays. */
export async function editContent(element: Element, edit: Edit, send: Send): Promise<void> {
  const isPlain = element.getAttribute('contenteditable') === 'plaintext-only';
  const inputType = edit.inputType === 'insertLineBreak' && !isPlain ? 'insertParagraph' : edit.inputType;
  const told = { inputType, data: edit.data };
  if (!(await tell(send, element, 'beforeinput', told)) || !element.isConnected) return;
  const { start, end } = removed(element.textContent ?? '', spanIn(element), edit);
  const isLine = inputType === 'insertParagraph' || inputType === 'insertLineBreak';
  if (start === end && !edit.data && !isLine) return;
  await send(() => {
    selectContent(element, { start, end });
    selectionIn(element).getRangeAt(0).deleteContents();
    if (inputType === 'insertParagraph') splitBlock(element, start);
    else if (edit.data || isLine) insertAt(element, start, edit.data ?? '\n');
    else selectContent(element, { start, end: start });
  });
  await tell(send, element, 'input', told);
}

function insertAt(element: Element, at: number, text: string): void {
  const [node, offset] = nodeAt(element, at);
  if (node.nodeType === 3) (node as Text).insertData(offset, text);
  else node.appendChild(element.ownerDocument.createTextNode(text));
  selectContent(element, { start: at + text.length, end: at + text.length });
}

/** Enter: what follows the caret goes to a block of its own. */
function splitBlock(element: Element, at: number): void {
  const { ownerDocument } = element;
  const [node, offset] = nodeAt(element, at);
  let block: Node = node;
  while (block !== element && block.parentNode !== element) block = block.parentNode!;
  const isBlock = block.nodeType === 1 && /^(div|p|li|h\d|blockquote)$/.test((block as Element).localName);
  const line = isBlock ? (block.cloneNode(false) as Element) : ownerDocument.createElement('div');
  const rest = ownerDocument.createRange();
  rest.setStart(node, offset);
  if (isBlock) rest.setEnd(block, block.childNodes.length);
  else rest.setEnd(element, element.childNodes.length);
  line.append(rest.extractContents());
  if (!line.textContent) line.replaceChildren(ownerDocument.createElement('br'));
  if (isBlock) (block as Element).after(line);
  else element.append(line);
  const selection = selectionIn(element);
  const caret = ownerDocument.createRange();
  caret.setStart(textsIn(line)[0] ?? line, 0);
  selection.removeAllRanges();
  selection.addRange(caret);
}
