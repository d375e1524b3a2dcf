/** Everything whose words depend on the language that nobody has named. @see https://tc39.es/ecma402/ */
const makers = [
  ...(['DateTimeFormat', 'NumberFormat', 'Collator', 'PluralRules'] as const),
  ...(['ListFormat', 'RelativeTimeFormat', 'Segmenter'] as const),
];

type Maker = {
  new (locale?: unknown, options?: unknown): object;
  (locale?: unknown, options?: unknown): object;
};
type Method = (this: unknown, ...args: unknown[]) => unknown;

/** Where a method takes the language among its arguments. */
const methods = (): readonly (readonly [prototype: object, name: string, at: number])[] => [
  [Date.prototype, 'toLocaleString', 0],
  [Date.prototype, 'toLocaleDateString', 0],
  [Date.prototype, 'toLocaleTimeString', 0],
  [Number.prototype, 'toLocaleString', 0],
  [BigInt.prototype, 'toLocaleString', 0],
  [String.prototype, 'localeCompare', 1],
  [String.prototype, 'toLocaleUpperCase', 0],
  [String.prototype, 'toLocaleLowerCase', 0],
];

/** True for the tag of a language that this platform can write. @see https://www.rfc-editor.org/rfc/rfc5646 */
export function isLanguage(tag: string): boolean {
  try {
    return Intl.DateTimeFormat.supportedLocalesOf(tag).length > 0;
  } catch {
    return false;
  }
}

/** Makes a language the one that is used where none is named. @returns how to give the old one back */
export function enterLanguage(tag: string): () => void {
  const undo: (() => void)[] = [];
  const replace = (object: object, name: string, value: unknown) => {
    const before = Object.getOwnPropertyDescriptor(object, name)!;
    Object.defineProperty(object, name, { ...before, value });
    undo.push(() => void Object.defineProperty(object, name, before));
  };
  for (const name of makers) {
    const original = Intl[name] as unknown as Maker | undefined;
    if (original) replace(Intl, name, speaking(original, tag));
  }
  for (const [prototype, name, at] of methods()) {
    const original = (prototype as Record<string, Method>)[name]!;
    const { length } = original;
    const speak: Method = function (this: unknown, ...args) {
      args[at] ??= tag;
      return original.apply(this, args);
    };
    Object.defineProperties(speak, { name: { value: name }, length: { value: length } });
    replace(prototype, name, speak);
  }
  return () => {
    for (const one of undo.reverse()) one();
  };
}

const speaking = (original: Maker, tag: string): Maker =>
  new Proxy(original, {
    construct: (target, [locale, options], asked) =>
      Reflect.construct(target, [locale ?? tag, options], asked) as object,
    apply: (target, self, [locale, options]) =>
      Reflect.apply(target, self, [locale ?? tag, options]) as unknown,
  });
