import { emptyRect } from './rect';
import type { Page } from '../../core/replace';

type Callback = (entries: object[], observer: object) => void;

/** What tells of an element's size and of its place. A simulated page has no layout: every size is zero. */
export function makeObservers(page: Page) {
  const { queueMicrotask: later } = page as unknown as typeof globalThis;
  const rect = () => emptyRect(page as unknown as typeof globalThis);

  /**
   * Never calls back: it would do so when an element's size changes, and without layout every size stays
   * zero.
   *
   * @see https://drafts.csswg.org/resize-observer/
   */
  class ResizeObserver {
    constructor(callback: Callback) {
      if (typeof callback !== 'function')
        throw new TypeError('Failed to construct ResizeObserver: it needs a function');
    }
    observe(_target: Element): void {}
    unobserve(_target: Element): void {}
    disconnect(): void {}
  }

  /**
   * Reports each element once as in view, which is what a browser does for an element of zero size at the
   * edge of the viewport.
   *
   * @see https://w3c.github.io/IntersectionObserver/
   */
  class IntersectionObserver {
    readonly root: Element | Document | null;
    readonly rootMargin: string;
    readonly thresholds: readonly number[];
    readonly #callback: Callback;
    readonly #targets = new Set<Element>();
    #waiting: object[] = [];

    constructor(
      callback: Callback,
      options: { root?: Element | null; rootMargin?: string; threshold?: number | number[] } = {},
    ) {
      this.#callback = callback;
      this.root = options.root ?? null;
      this.rootMargin = options.rootMargin ?? '0px 0px 0px 0px';
      this.thresholds = [options.threshold ?? 0].flat();
    }

    observe(target: Element): void {
      if (this.#targets.has(target)) return;
      this.#targets.add(target);
      const entry = { target, isIntersecting: true, intersectionRatio: 1, time: 0 };
      const places = { boundingClientRect: rect(), intersectionRect: rect(), rootBounds: rect() };
      if (this.#waiting.push({ ...entry, ...places }) === 1) later(() => this.#tell());
    }

    #tell(): void {
      const entries = this.takeRecords();
      if (entries.length > 0) this.#callback(entries, this);
    }

    unobserve(target: Element): void {
      this.#targets.delete(target);
      this.#waiting = this.#waiting.filter((entry) => (entry as { target: Element }).target !== target);
    }

    disconnect(): void {
      this.#targets.clear();
      this.#waiting = [];
    }

    takeRecords(): object[] {
      return this.#waiting.splice(0);
    }
  }
  return { ResizeObserver, IntersectionObserver };
}
