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
  /** Anything else, as it is written; `needs` is what that has to import. */
  | {
      readonly kind: 'code';
      readonly code: string;
      readonly needs?: readonly Needed[];
      /** The same with another text or number in it. */
      readonly varied?: string;
    };

export type Field = readonly [name: string, value: Value];

export const text = (words: string, isFixed = false): Value =>
  isFixed ? { kind: 'text', text: words, isFixed } : { kind: 'text', text: words };
export const code = (written: string, ...needs: readonly Needed[]): Value => ({
  kind: 'code',
  code: written,
  needs,
});
export const object = (fields: readonly Field[], type?: Needed): Value =>
  type ? { kind: 'object', fields, type } : { kind: 'object', fields };

const ours = (name: string): Needed => ({ name, from: 'simulacra' });
export const spyValue = (answer?: string, needs: readonly Needed[] = []): Value =>
  code(`spy(${answer ?? ''})`, ours('spy'), ...needs);
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
  /^\d{4}-\d\d-\d\d/.test(words) ? words.replace(/^\d{4}/, (year) => String(Number(year) - 3)) : `Other ${lowered(words)}`;

const lowered = (words: string) => (/^[A-Z][a-z]/.test(words) ? words.replace(/^./, (letter) => letter.toLowerCase()) : words);

/** One text or number within a value that can be told again on a page. */
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
    return value.fields.flatMap(([key, one], index) =>
      pairs(one, other.fields[index]![1], `${path}.${key}`),
    );
  if (value.kind === 'code' && other.kind === 'code' && value.varied !== undefined) {
    const [words, varied] = [quoted(value.code), quoted(other.code)];
    return words !== undefined && varied !== undefined ? [{ path, words, varied }] : [];
  }
  return [];
}

const quoted = (written: string) => /'([^']+)'/.exec(written)?.[1] ?? />([^<]+)</.exec(written)?.[1];

/** All that a value has to import. */
export function neededIn(value: Value): readonly Needed[] {
  switch (value.kind) {
    case 'list':
      return [...(value.type ? [value.type] : []), ...value.items.flatMap(neededIn)];
    case 'object':
      return [...(value.type ? [value.type] : []), ...value.fields.flatMap(([, one]) => neededIn(one))];
    case 'code':
      return value.needs ?? [];
    default:
      return [];
  }
}

/** A file whose path is written when it is known where the draft is to be. */
export const placeholder = (file: string): string => `\u0000${file}\u0000`;
export const fillPlaceholders = (written: string, specifier: (file: string) => string): string =>
  // eslint-disable-next-line no-control-regex -- which no source has
  written.replace(/\u0000([^\u0000]+)\u0000/g, (_, file: string) => specifier(file));

