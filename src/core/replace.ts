/** A global object whose properties are replaced: the page's window, and the process's own where they differ. */
export type Page = Record<PropertyKey, unknown>;

/** Installs a global whose value is created on first read. A test may overwrite it like any other global. */
export function supplyGlobal(page: Page, name: string, make: () => unknown, enumerable = true): void {
  Object.defineProperty(page, name, {
    configurable: true,
    enumerable,
    get: make,
    set: (value: unknown) =>
      Object.defineProperty(page, name, { value, configurable: true, writable: true, enumerable }),
  });
}

type AnyFunction = (...args: never[]) => unknown;

const mark = Symbol.for('simulacra.original');

/** What was there before we replaced it. A runner hands the same objects of the process to each of its test files. */
export const originalOf = <T>(value: T): T => (value as { [mark]?: T } | undefined)?.[mark] ?? value;

/** Remembers what a function stands in for. */
export const markReplaced = <F extends AnyFunction>(replacement: F, original: unknown): F =>
  Object.defineProperty(replacement, mark, { value: original });

/** Gives a function the own properties of another. @param more what it has instead of some of them */
export const likenTo = <F extends AnyFunction>(
  replacement: F,
  original: AnyFunction,
  more: PropertyDescriptorMap = {},
): F => {
  // With the platform's own properties: Node's `setTimeout` has a promisified form.
  const { prototype: _, ...own } = Object.getOwnPropertyDescriptors<object>(
    original,
  ) as PropertyDescriptorMap;
  return Object.defineProperties(replacement, { ...own, ...more });
};

/**
 * Replaces a global function by one that looks like it to whoever asks.
 *
 * @param more what the replacement has instead of some properties of the original
 */
export function replaceFunction<F extends AnyFunction>(
  page: Page,
  name: string,
  wrap: (original: F) => F,
  more?: (original: F) => PropertyDescriptorMap,
): void {
  const original = originalOf(page[name]) as F;
  if (typeof original !== 'function') return;
  replaceValue(page, name, markReplaced(likenTo(wrap(original), original, more?.(original)), original));
}

/** Puts a value in the place of a property, and leaves it as visible as it was. */
export function replaceValue(object: object, name: string, value: unknown): void {
  const { enumerable = true } = Object.getOwnPropertyDescriptor(object, name) ?? {};
  Object.defineProperty(object, name, { value, configurable: true, writable: true, enumerable });
}
