import { createHash } from 'node:crypto';

/* A draft remembers its own lines in its last one, so that a later draft leaves alone what a person has changed. */

const mark = '// Drafted by simulacra draft, which leaves alone what you change: ';

/** A text with a last line that says which lines the draft wrote. */
export const signed = (text: string): string =>
  `${text.trimEnd()}\n\n${mark}${linesOf(text).map(hashOf).join('')}\n`;

/** True for what a draft has written, whatever a person has done to it since. */
export const isDrafted = (text: string): boolean => text.includes(mark);

const linesOf = (text: string): readonly string[] => text.trimEnd().split('\n');
const letters = 3;
const hashOf = (line: string): string =>
  createHash('sha1').update(line.trim()).digest('base64url').slice(0, letters);

/** The file as it is, without its last line, and what the draft wrote. */
function readSigned(text: string): { readonly own: string; readonly base: readonly string[] } {
  const at = text.lastIndexOf(mark);
  const [signature = ''] = text.slice(at + mark.length).split('\n');
  const own =
    `${text.slice(0, at).trimEnd()}\n${text.slice(at + mark.length + signature.length).trim()}`.trimEnd();
  return { own, base: signature.match(new RegExp(`.{${letters}}`, 'g')) ?? [] };
}

/**
 * A later draft in place of an older one: lines that a person has changed, added or taken out stay so.
 *
 * @returns the text, signed as the later draft
 */
export function updated(current: string, next: string): string {
  const { own, base } = readSigned(current);
  const [mine, theirs] = [linesOf(own), linesOf(next)];
  const [inMine, inTheirs] = [matches(base, mine.map(hashOf)), matches(base, theirs.map(hashOf))];
  const merged: string[] = [];
  let [atBase, atMine, atTheirs] = [0, 0, 0];
  const take = (toBase: number, toMine: number, toTheirs: number): void => {
    const [was, is, will] = [
      base.slice(atBase, toBase),
      mine.slice(atMine, toMine),
      theirs.slice(atTheirs, toTheirs),
    ];
    const isUntouched = is.length === was.length && is.every((line, index) => hashOf(line) === was[index]);
    merged.push(...(isUntouched ? will : is));
    [atBase, atMine, atTheirs] = [toBase, toMine, toTheirs];
  };
  for (let index = 0; index < base.length; index++) {
    const [ownAt, nextAt] = [inMine.get(index), inTheirs.get(index)];
    if (ownAt === undefined || nextAt === undefined) continue;
    take(index, ownAt, nextAt);
    merged.push(mine[ownAt]!);
    [atBase, atMine, atTheirs] = [index + 1, ownAt + 1, nextAt + 1];
  }
  take(base.length, mine.length, theirs.length);
  const [, signature] = signed(next).split(mark);
  return `${merged.join('\n').trimEnd()}\n\n${mark}${signature!.trimEnd()}\n`;
}

/** Which line of a text is which of what was written: the longest run of lines that both have in order. */
function matches(base: readonly string[], lines: readonly string[]): ReadonlyMap<number, number> {
  const lengths = Array.from({ length: base.length + 1 }, () => new Uint16Array(lines.length + 1));
  for (let i = base.length - 1; i >= 0; i--)
    for (let j = lines.length - 1; j >= 0; j--)
      lengths[i]![j] =
        base[i] === lines[j]
          ? lengths[i + 1]![j + 1]! + 1
          : Math.max(lengths[i + 1]![j]!, lengths[i]![j + 1]!);
  const found = new Map<number, number>();
  for (let i = 0, j = 0; i < base.length && j < lines.length;) {
    if (base[i] === lines[j]) found.set(i++, j++);
    else if (lengths[i + 1]![j]! >= lengths[i]![j + 1]!) i++;
    else j++;
  }
  return found;
}
