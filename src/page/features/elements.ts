import { emptyRect } from './rect';
import { dialogFeatures } from './dialogs';
import { isOpenPopover, setPopover } from './top-layer';

type Features = Record<string, PropertyDescriptor | ((...args: never[]) => unknown)>;

const rect = ({ ownerDocument }: Node) =>
  emptyRect(ownerDocument!.defaultView as unknown as typeof globalThis);

interface Scrolled {
  readonly left?: number;
  readonly top?: number;
}
const offsets = (to: Scrolled | number | undefined, top?: number): Scrolled =>
  typeof to === 'object' ? to : { ...(to !== undefined && { left: to }), ...(top !== undefined && { top }) };

function scrollTo(this: Element, to?: Scrolled | number, down?: number): void {
  const { left, top } = offsets(to, down);
  if (left !== undefined) this.scrollLeft = left;
  if (top !== undefined) this.scrollTop = top;
}
function scrollBy(this: Element, by?: Scrolled | number, down?: number): void {
  const { left = 0, top = 0 } = offsets(by, down);
  scrollTo.call(this, { left: this.scrollLeft + left, top: this.scrollTop + top });
}

/** An animation that is over as soon as it has begun: nobody looks at it. */
function animate(this: Element, _frames: unknown, options?: number | { readonly id?: string }): object {
  const {
    EventTarget,
    Event,
    queueMicrotask: later,
  } = this.ownerDocument.defaultView as unknown as typeof globalThis;
  const animation = Object.assign(new EventTarget(), {
    id: typeof options === 'object' ? (options.id ?? '') : '',
    playState: 'finished',
    currentTime: 0,
    playbackRate: 1,
    onfinish: null as ((event: Event) => void) | null,
    oncancel: null,
    finished: Promise.resolve() as Promise<unknown>,
    ready: Promise.resolve(),
    play() {},
    pause() {},
    reverse() {},
    finish() {},
    cancel() {},
    persist() {},
    commitStyles() {},
    updatePlaybackRate() {},
  });
  animation.finished = Promise.resolve(animation);
  later(() => {
    const event = new Event('finish');
    animation.onfinish?.(event);
    animation.dispatchEvent(event);
  });
  return animation;
}

function isRendered(element: Element): boolean {
  for (let at: Element | null = element; at; at = at.parentElement)
    if (at.ownerDocument.defaultView!.getComputedStyle(at).display === 'none') return false;
  return element.isConnected;
}

const captured = new WeakMap<Element, Set<number>>();

/** What a person reads of an element: without a layout the same as its text. */
const innerText: PropertyDescriptor = {
  get(this: Element) {
    return this.textContent;
  },
  set(this: Element, text: string) {
    this.textContent = text;
  },
};

/** What elements have, by the class it belongs to. */
export const elementFeatures: Readonly<Record<string, Features>> = {
  'Element.prototype': {
    scrollIntoView() {},
    scrollTo,
    scroll: scrollTo,
    scrollBy,
    animate,
    getAnimations: () => [],
    checkVisibility(this: Element) {
      return isRendered(this);
    },
    setPointerCapture(this: Element, pointer: number) {
      captured.set(this, (captured.get(this) ?? new Set()).add(pointer));
    },
    releasePointerCapture(this: Element, pointer: number) {
      captured.get(this)?.delete(pointer);
    },
    hasPointerCapture(this: Element, pointer: number) {
      return captured.get(this)?.has(pointer) ?? false;
    },
  },
  'HTMLElement.prototype': {
    innerText,
    showPopover(this: Element) {
      setPopover(this, true);
    },
    hidePopover(this: Element) {
      setPopover(this, false);
    },
    togglePopover(this: Element, force = !isOpenPopover(this)) {
      setPopover(this, force);
      return force;
    },
  },
  'HTMLDialogElement.prototype': dialogFeatures,
  'SVGElement.prototype': {
    getBBox(this: Node) {
      return rect(this);
    },
    getTotalLength: () => 0,
    getComputedTextLength: () => 0,
    getPointAtLength: () => ({ x: 0, y: 0 }),
  },
};
