/** Where a value stands, and so what it is: the same place has the same value on every run. */
export interface Place {
  /** The type it belongs to: `Plant`. */
  readonly owner: string;
  /** The field: `name`. */
  readonly field: string;
  /** From the root: `plants`, `0`, `name`. */
  readonly path: readonly (string | number)[];
}

/** Which of a list's items a place belongs to, counted from 1. */
export const numberOf = ({ path }: Place): number => {
  const index = path.findLast((step) => typeof step === 'number');
  return typeof index === 'number' ? index + 1 : 1;
};

/** A number that belongs to a place. @param range how many there are to choose from */
export function chosen(place: Place, range: number): number {
  let hash = 2166136261;
  for (const letter of `${place.owner}.${place.field}:${place.path.join('.')}`)
    hash = Math.imul(hash ^ letter.charCodeAt(0), 16777619);
  return (hash >>> 0) % range;
}

const dashed = (name: string) => name.replace(/([a-z\d])([A-Z])/g, '$1-$2').toLowerCase();
const spaced = (name: string) => dashed(name).replace(/[-_]+/g, ' ');
const two = (part: number) => String(part).padStart(2, '0');

/** An identifier: of an object by its type, of another one by the name of the field. */
export function idOf(place: Place): string {
  const [, other] = /^(.+?)_?Ids?$/i.exec(place.field) ?? [];
  return `${dashed(other ?? place.owner)}-${numberOf(place)}`;
}

export function dateOf(place: Place): string {
  return `2031-${two(1 + chosen(place, 12))}-${two(1 + chosen({ ...place, field: `${place.field} day` }, 28))}`;
}

export const momentOf = (place: Place): string => `${dateOf(place)}T${two(6 + chosen(place, 14))}:00:00Z`;

const kinds: readonly [name: RegExp, make: (place: Place) => string][] = [
  [/e-?mail/i, (place) => `person${numberOf(place)}@brackenfold.example`],
  [/(image|photo|picture|avatar|icon|logo|thumbnail)(_?ur[li]|_?src)?s?$/i, () => pixel],
  [
    /(ur[li]|href|link|website|homepage)$/i,
    (place) => `https://brackenfold.example/${dashed(place.owner)}/${numberOf(place)}`,
  ],
  [/(phone|mobile|fax)/i, (place) => `+00 555 01${two(numberOf(place))}`],
  [/(date|day|birthday|_on)$|[a-z]On$/, dateOf],
  [/(time|moment|timestamp|_at)$|[a-z]At$/, momentOf],
  [/colou?r/i, (place) => `#${(0x1000000 + chosen(place, 0x1000000)).toString(16).slice(1)}`],
  [/currency/i, () => 'EUR'],
  [/locale|language/i, () => 'en'],
  [/(^|_)ids?$|Ids?$/, idOf],
  [
    /^(name|title|label|called)$/i,
    (place) => `${spaced(place.owner).replace(/^./, (first) => first.toUpperCase())} ${numberOf(place)}`,
  ],
];

const pixel = 'data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw==';

/** A text as a field of that name might have it. */
export const textOf = (place: Place): string =>
  kinds.find(([name]) => name.test(place.field))?.[1](place) ??
  `${spaced(place.field).replace(/^./, (first) => first.toUpperCase())} ${numberOf(place)}`;

export const wholeOf = (place: Place): number =>
  1 + chosen(place, /year/i.test(place.field) ? 30 : 99) + (/year$/i.test(place.field) ? 2000 : 0);

export const decimalOf = (place: Place): number => (10 + chosen(place, 990)) / 10;
