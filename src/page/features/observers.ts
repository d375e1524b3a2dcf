import { showMembers, watchObserver } from '../globals/observing';
import { emptyRect } from './rect';
import type { Page } from '../../core/replace';
import { once } from '../../core/shared';

/** A size in pixels. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

interface Observer {
  readonly targets: ReadonlySet<Element>;
}

/** The observers of an element, notified when a test changes it. */
export const observers = once('observers', () => ({
  resizing: new Set<Observer & { tell(target: Element, size: Size): void }>(),
  seeing: new Set<Observer & { tell(target: Element, ratio: number): void }>(),
}));

type Callback = (entries: object[], observer: object) => void;

/** Whoever never disconnects is forgotten some time after what it looked at is off the page. */
function join<T extends Observer>(all: Set<T>, one: T): void {
  if (all.size > 200) for (const other of all) if (isOver(other.targets)) all.delete(other);
  all.add(one);
}

const isOver = (targets: ReadonlySet<Element>): boolean =>
  ![...targets].some(({ isConnected }) => isConnected);

/** The observers of sizes and places. A simulated page has no layout: every size is zero. */
export function makeObservers(page: Page) {
  const made = [makeResizeObserver(), makeIntersectionObserver(page as unknown as typeof globalThis)];
  for (const { prototype } of made) showMembers(prototype);
  const [ResizeObserver, IntersectionObserver] = made.map(watchObserver);
  return { ResizeObserver, IntersectionObserver };
}

const makeResizeObserver = () => {
  /**
   * Calls back where a test gives an element a size. Without a layout every size is zero and stays so.
   *
   * @see https://drafts.csswg.org/resize-observer/
   */
  class ResizeObserver {
    readonly #targets = new Set<Element>();
    readonly #callback: Callback;
    constructor(callback: Callback) {
      if (typeof callback !== 'function')
        throw new TypeError('Failed to construct ResizeObserver: it needs a function');
      this.#callback = callback;
    }
    observe(target: Element): void {
      this.#targets.add(target);
      join(observers.resizing, this);
    }
    unobserve(target: Element): void {
      this.#targets.delete(target);
      if (this.#targets.size === 0) observers.resizing.delete(this);
    }
    disconnect(): void {
      this.#targets.clear();
      observers.resizing.delete(this);
    }
    get targets(): ReadonlySet<Element> {
      return this.#targets;
    }
    tell(target: Element, { width, height }: Size): void {
      if (!this.#targets.has(target)) return;
      const box = [{ inlineSize: width, blockSize: height }];
      const boxes = { borderBoxSize: box, contentBoxSize: box, devicePixelContentBoxSize: box };
      this.#callback([{ target, contentRect: target.getBoundingClientRect(), ...boxes }], this);
    }
  }
  return ResizeObserver;
};

function makeIntersectionObserver(page: typeof globalThis) {
  const { queueMicrotask: later } = page;
  const rect = () => emptyRect(page);

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
      join(observers.seeing, this);
      this.tell(target, 1);
    }

    get targets(): ReadonlySet<Element> {
      return this.#targets;
    }

    tell(target: Element, ratio: number): void {
      if (!this.#targets.has(target)) return;
      const entry = {
        target,
        isIntersecting: ratio > 0,
        intersectionRatio: ratio,
        time: page.performance.now(),
      };
      const places = {
        boundingClientRect: target.getBoundingClientRect(),
        intersectionRect: rect(),
        rootBounds: rect(),
      };
      if (this.#waiting.push({ ...entry, ...places }) === 1) later(() => this.#report());
    }

    #report(): void {
      const entries = this.takeRecords();
      if (entries.length > 0) this.#callback(entries, this);
    }

    unobserve(target: Element): void {
      this.#targets.delete(target);
      if (this.#targets.size === 0) observers.seeing.delete(this);
      this.#waiting = this.#waiting.filter((entry) => (entry as { target: Element }).target !== target);
    }

    disconnect(): void {
      this.#targets.clear();
      observers.seeing.delete(this);
      this.#waiting = [];
    }

    takeRecords(): object[] {
      return this.#waiting.splice(0);
    }
  }
  return IntersectionObserver;
}
