/* What a draft gives a component, as source text that can be changed and printed. */

/** What a file has to import: `{ name: 'Hive', from: '/…/hives.ts', isType: true }`. */
export interface Needed {
  /** As it is exported; `default` for the default export, `*` for the whole module. */
  readonly name: string;
  /** As the draft calls it, where that differs. */
  readonly local?: string;
  /** A file, or the name of a package. */
  readonly from: string;
  readonly isType?: true;
}

export type Value =
  | { readonly kind: 'text'; readonly text: string; readonly isFixed?: true }
  | { readonly kind: 'number'; readonly number: number }
  /** `type` is that of an item. */
  | { readonly kind: 'list'; readonly items: readonly Value[]; readonly type?: Needed }
  | { readonly kind: 'object'; readonly fields: readonly Field[]; readonly type?: Needed }
  /** A value with something written around it: `ref([…])`. */
  | {
      readonly kind: 'around';
      readonly before: string;
      readonly value: Value;
      readonly after: string;
      readonly needs: readonly Needed[];
    }
  /** Anything else, as it is written; `needs` is what that has to import. */
  | {
      readonly kind: 'code';
      readonly code: string;
      readonly needs?: readonly Needed[];
      /** The same with another text or number in it. */
      readonly varied?: string;
      /** What it is called at the top of the file. */
      readonly constant?: string;
    };

export type Field = readonly [name: string, value: Value];

export const text = (words: string, isFixed = false): Value =>
  isFixed ? { kind: 'text', text: words, isFixed } : { kind: 'text', text: words };
export const code = (written: string, ...needs: readonly Needed[]): Value => ({
  kind: 'code',
  code: written,
  needs,
});
/** Something that is written at the top of the file, under a name. */
export const constant = (name: string, written: string, ...needs: readonly Needed[]): Value => ({
  ...{ kind: 'code', code: written, constant: name, needs },
});
export const object = (fields: readonly Field[], type?: Needed): Value =>
  type ? { kind: 'object', fields, type } : { kind: 'object', fields };

const ours = (name: string): Needed => ({ name, from: 'simulacra' });
export const spyValue = (): Value => code('spy()', ours('spy'));
/** A spy that answers with a value. */
export const spyOf = (before: string, answer: Value, after = ''): Value =>
  around(`spy(${before}`, answer, `${after})`, ours('spy'));
export const isSpy = (value: Value): boolean =>
  (value.kind === 'code' && value.code.startsWith('spy(')) ||
  (value.kind === 'around' && value.before.startsWith('spy('));
export const holdValue: Value = code('hold()', ours('hold'));
export const failValue = (status: number): Value => code(`fail(${status})`, ours('fail'));

/** A value with all texts and numbers changed that a component may show, to see what follows. */
export function vary(value: Value, name = ''): Value {
  switch (value.kind) {
    case 'text':
      return value.isFixed || !isShown(name, value.text) ? value : { ...value, text: varyText(value.text) };
    case 'number':
      return /(^|[a-z_])ids?$/i.test(name) ? value : { ...value, number: value.number + 7 };
    case 'list':
      return { ...value, items: value.items.map((item) => vary(item, name)) };
    case 'object':
      return { ...value, fields: value.fields.map(([key, one]) => [key, vary(one, key)] as const) };
    case 'around':
      return { ...value, value: vary(value.value, name) };
    case 'code':
      return value.varied === undefined ? value : { ...value, code: value.varied };
  }
}

// What leads somewhere else, or is compared with something, is left as it is.
const isShown = (name: string, words: string): boolean =>
  !/(^|[a-z_])(ids?|key|url|href|src|type|kind|status|variant|size|class|className|path|to|mode|locale|color|colour)$/i.test(
    name,
  ) && !/^(https?:|data:|\/|#)/.test(words);

const varyText = (words: string): string =>
  /^\d{4}-\d\d-\d\d/.test(words) ? otherDay(words) : `Other ${lowered(words)}`;

/** Another day of another year, which is shown differently in any form. */
export const otherDay = (moment: string): string =>
  moment.replace(
    /^(\d{4})-(\d\d)-(\d\d)/,
    (_, year, month, day) =>
      `${Number(year) - 3}-${twoDigits((Number(month) % 12) + 1)}-${twoDigits((Number(day) % 27) + 2)}`,
  );
const twoDigits = (number: number): string => String(number).padStart(2, '0');

const lowered = (words: string) =>
  /^[A-Z][a-z]/.test(words) ? words.replace(/^./, (letter) => letter.toLowerCase()) : words;

/** One text or number within a value that can be recognised on a page. */
export interface Told {
  readonly path: string;
  readonly words: string;
  readonly varied: string;
}

/** The texts and numbers in a value, each with what it becomes when it is varied. */
export function toldIn(value: Value, path: string): readonly Told[] {
  const other = vary(value, path.split('.').at(-1));
  return pairs(value, other, path);
}

function pairs(value: Value, other: Value, path: string): readonly Told[] {
  if (value.kind === 'text' && other.kind === 'text')
    return [{ path, words: value.text, varied: other.text }];
  if (value.kind === 'number' && other.kind === 'number')
    return [{ path, words: String(value.number), varied: String(other.number) }];
  if (value.kind === 'list' && other.kind === 'list')
    return value.items.flatMap((item, index) => pairs(item, other.items[index]!, `${path}.${index}`));
  if (value.kind === 'object' && other.kind === 'object')
    return value.fields.flatMap(([key, one], index) => pairs(one, other.fields[index]![1], `${path}.${key}`));
  if (value.kind === 'around' && other.kind === 'around') return pairs(value.value, other.value, path);
  if (value.kind === 'code' && other.kind === 'code' && value.varied !== undefined) {
    const [words, varied] = [quoted(value.code), quoted(other.code)];
    return words !== undefined && varied !== undefined ? [{ path, words, varied }] : [];
  }
  return [];
}

const quoted = (written: string) => /'([^']+)'/.exec(written)?.[1] ?? />([^<]+)</.exec(written)?.[1];

/** What a value has to import where it stands; a type is needed only where it is named. */
export function neededIn(value: Value): readonly Needed[] {
  switch (value.kind) {
    case 'list':
      return value.items.flatMap(neededIn);
    case 'object':
      return value.fields.flatMap(([, one]) => neededIn(one));
    case 'around':
      return [...value.needs, ...neededIn(value.value)];
    case 'code':
      return value.needs ?? [];
    default:
      return [];
  }
}

export const around = (before: string, value: Value, after: string, ...needs: readonly Needed[]): Value => ({
  ...{ kind: 'around', before, value, after, needs },
});

/** A file whose path is written when it is known where the draft is to be. */
export const placeholder = (file: string): string => `\u0000${file}\u0000`;
export const fillPlaceholders = (written: string, specifier: (file: string) => string): string =>
  // eslint-disable-next-line no-control-regex -- which no source has
  written.replace(/\u0000([^\u0000]+)\u0000/g, (_, file: string) => specifier(file));
