import type { Page } from '../../core/replace';

type Method = (this: unknown, ...args: unknown[]) => unknown;
interface Place {
  readonly target: Record<string, Method> | undefined;
  readonly name: string;
  /** What it returns where the page does not implement it. */
  readonly otherwise: unknown;
}

/**
 * Stops a simulated page from printing an error each time a component uses a feature it does not implement,
 * if the standard defines a result for pages without that feature.
 */
export function quietUnimplemented(page: Page): void {
  const { CSSStyleSheet, HTMLCanvasElement, getComputedStyle } = page as Partial<typeof globalThis> & Page;
  // A real page implements them all.
  if (!page['document'] || !getComputedStyle || CSSStyleSheet?.prototype.replaceSync) return;
  // A simulated page ignores the pseudo-element and returns the style of the element, so we do not pass it
  // on.
  define(page, 'getComputedStyle', (element) => getComputedStyle.call(page as never, element as Element));
  const target = HTMLCanvasElement?.prototype as unknown as Record<string, Method> | undefined;
  const places: readonly Place[] = [
    // @see https://html.spec.whatwg.org/multipage/canvas.html#dom-canvas-getcontext
    { target, name: 'getContext', otherwise: null },
    { target, name: 'toDataURL', otherwise: 'data:,' },
  ];
  for (const place of places) quiet(place);
}

function quiet({ target, name, otherwise }: Place): void {
  const original = target?.[name];
  if (!target || !original) return;
  define(target, name, function (this: unknown, ...args) {
    const printing = Object.getOwnPropertyDescriptor(console, 'error');
    const print = console.error.bind(console);
    const error = (...said: unknown[]) => {
      if (!/^(Error: )?Not implemented/.test(String(said[0]))) print(...said);
    };
    define(console, 'error', error);
    try {
      return original.apply(this, args) ?? otherwise;
    } finally {
      if (printing) Object.defineProperty(console, 'error', printing);
    }
  });
}

const define = (target: object, name: string, value: Method): void =>
  void Object.defineProperty(target, name, { value, configurable: true, writable: true, enumerable: true });
