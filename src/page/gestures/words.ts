/** Places in a text that a person's keys move to and take away. */

let segmenter: Intl.Segmenter | undefined;
// Created on first use, because it takes longer than loading this file.
const graphemes = () => (segmenter ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' }));

/** Splits a text into what a person sees as one character: an emoji, or a letter with a combining accent. */
export const charactersOf = (text: string): string[] =>
  [...graphemes().segment(text)].map(({ segment }) => segment);

export const isOneCharacter = (text: string): boolean => text.length === 1 || charactersOf(text).length === 1;

/** How far a key reaches: a character, a word, a line, or all. */
export type Reach = 'character' | 'word' | 'line' | 'all';

/** The place before or after another. */
export function placeBeside(text: string, at: number, reach: Reach, isForward: boolean): number {
  return isForward ? placeAfter(text, at, reach) : placeBefore(text, at, reach);
}

function placeBefore(text: string, at: number, reach: Reach): number {
  const before = text.slice(0, at);
  if (reach === 'all') return 0;
  if (reach === 'line') return before.lastIndexOf('\n') + 1;
  const gone =
    reach === 'word' ? /[\p{L}\p{N}_]*[^\p{L}\p{N}_]*$/u.exec(before)![0] : charactersOf(before).at(-1);
  return at - (gone?.length ?? 0);
}

function placeAfter(text: string, at: number, reach: Reach): number {
  const after = text.slice(at);
  if (reach === 'all') return text.length;
  if (reach === 'line') return at + (after.includes('\n') ? after.indexOf('\n') : after.length);
  const passed =
    reach === 'word' ? /^[^\p{L}\p{N}_]*[\p{L}\p{N}_]*/u.exec(after)![0] : charactersOf(after)[0];
  return at + (passed?.length ?? 0);
}

/** What is selected of a text, or what a key takes away beside the caret. */
export function removed(
  text: string,
  selected: { readonly start: number; readonly end: number },
  { reach, isForward = false }: { readonly reach?: Reach; readonly isForward?: boolean },
): { readonly start: number; readonly end: number } {
  const { start, end } = selected;
  if (start !== end || reach === undefined) return selected;
  const beside = placeBeside(text, start, reach, isForward);
  return isForward ? { start, end: beside } : { start: beside, end };
}

/** The place one line above or below, in the same column. */
export function placeInNextLine(text: string, at: number, isDown: boolean): number {
  const start = placeBefore(text, at, 'line');
  if (!isDown) {
    if (start === 0) return 0;
    return Math.min(placeBefore(text, start - 1, 'line') + at - start, start - 1);
  }
  const end = placeAfter(text, at, 'line');
  if (end === text.length) return end;
  return Math.min(end + 1 + at - start, placeAfter(text, end + 1, 'line'));
}
