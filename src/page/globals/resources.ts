import { noteMade } from '../../core/left';
import { replaceFunction, supplyGlobal, type Page } from '../../core/replace';
import { keepObserverClass, watchObserver } from './observing';

type AnyClass = new (...args: never[]) => object;

/** How each class ends what it has started. */
const closing: Readonly<Record<string, string>> = { BroadcastChannel: 'close', Worker: 'terminate' };

/**
 * Notes what a subject starts or puts in place and has to end: observers, channels, workers, addresses of
 * objects, elements of the body.
 */
export function watchResources(page: Page): void {
  keepObserverClass(page, Object.getOwnPropertyDescriptor(page, 'MutationObserver')?.value);
  for (const name of ['MutationObserver', 'ResizeObserver', 'IntersectionObserver'])
    replaceClass(page, name, watchObserver);
  for (const [name, end] of Object.entries(closing))
    replaceClass(page, name, (original) => watchClosing(original, name, end));
  const { document, window, URL, HTMLBodyElement } = page as unknown as Window & typeof globalThis;
  if (!document || (page as unknown) !== window) return;
  if ('createObjectURL' in URL) watchAddresses(URL as unknown as Page);
  watchBody(HTMLBodyElement.prototype as unknown as Page);
}

/** Replaces a class when it is first asked for: a platform may load it only then. */
function replaceClass(page: Page, name: string, wrap: (original: AnyClass) => AnyClass): void {
  const own = Object.getOwnPropertyDescriptor(page, name);
  if (!own?.configurable) return;
  let made: AnyClass | undefined;
  const make = () => (made ??= wrap((own.get ? own.get.call(page) : own.value) as AnyClass));
  supplyGlobal(page, name, make, own.enumerable);
}

function watchClosing(Original: AnyClass, name: string, end: string): AnyClass {
  const Base = Original as new (...args: unknown[]) => Record<string, () => void>;
  class Watched extends Base {
    readonly #end: (() => void) | undefined;
    constructor(...args: unknown[]) {
      super(...args);
      this.#end = noteMade(`a ${name} "${String(args[0])}"`, Watched as unknown as () => void);
    }
    static {
      const value = function (this: Watched) {
        this.#end?.();
        return Base.prototype[end]!.call(this);
      };
      Object.defineProperty(this.prototype, end, {
        value,
        configurable: true,
        writable: true,
        enumerable: true,
      });
      Object.defineProperty(this, 'name', { value: name, configurable: true });
    }
  }
  return Watched;
}

const addresses = new Map<string, () => void>();

/** Records the URL of an object. @param below the function whose caller is named */
export function noteAddress(address: string, below: (...args: never[]) => unknown): void {
  const end = noteMade('an object URL', below);
  if (end) addresses.set(address, end);
}

/** Takes note that an address was given back. */
export function forgetAddress(address: string): void {
  addresses.get(address)?.();
  addresses.delete(address);
}

function watchAddresses(url: Page): void {
  replaceFunction<(blob: Blob) => string>(url, 'createObjectURL', (original) => {
    const create = (blob: Blob) => {
      const address = original.call(url, blob);
      noteAddress(address, create);
      return address;
    };
    return create;
  });
  replaceFunction<(address: string) => void>(url, 'revokeObjectURL', (original) => (address) => {
    forgetAddress(address);
    original.call(url, address);
  });
}

type Put = (this: Element, ...args: unknown[]) => unknown;

// Only the body's own: each element has these, and is asked for them all the time.
function watchBody(body: Page): void {
  for (const name of ['appendChild', 'insertBefore', 'append', 'prepend', 'insertAdjacentElement'])
    replaceFunction<Put>(body, name, (original) => {
      const put: Put = function (...args) {
        for (const one of args) if (isElement(one) && one.parentNode !== this) notePut(one, put);
        return original.apply(this, args);
      };
      return put;
    });
}

const isElement = (value: unknown): value is Element => (value as Node | null)?.nodeType === 1;

function notePut(element: Element, below: (...args: never[]) => unknown): void {
  // What has no place on the page is loaded, and stays loaded.
  if (/^(script|style|link|template)$/.test(element.localName)) return;
  noteMade(
    () =>
      `${(element.cloneNode(false) as Element).outerHTML.replace(/<\/[^<]*$/, '').slice(0, 120)} in the body`,
    below,
    () => !element.isConnected,
  );
}
