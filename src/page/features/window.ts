import { tagAs } from '../../core/tag';
import type { Page } from '../../core/replace';

/** What a window has beside its document. */
export function makeWindowFeatures(page: Page) {
  const window = page as unknown as Window & typeof globalThis;
  return {
    CSS: makeCss(window),
    visualViewport: makeViewport(window),
    MessageChannel: makeChannel(window),
    // The page is idle as soon as it has nothing else to do.
    requestIdleCallback: (work: (deadline: object) => void): unknown =>
      window.setTimeout(() => work({ didTimeout: false, timeRemaining: () => 50 }), 1),
    cancelIdleCallback: (timer: number): void => window.clearTimeout(timer),
  };
}

/** @see https://drafts.csswg.org/cssom/#the-css.escape()-method */
function makeCss(window: Window): object {
  const escape = (text: unknown): string =>
    [...String(text)]
      .map((letter, at, all) => {
        if (letter === '\0') return '\uFFFD';
        const isDigit = /\d/.test(letter);
        const isControl = letter < ' ' || letter === '\x7F';
        if (isControl || (isDigit && (at === 0 || (at === 1 && all[0] === '-'))))
          return `\\${letter.codePointAt(0)!.toString(16)} `;
        if (letter === '-' && all.length === 1) return '\\-';
        return /[\w-]/.test(letter) || letter >= '\x80' ? letter : `\\${letter}`;
      })
      .join('');
  const supports = (property: string, wanted?: string): boolean => {
    if (wanted === undefined) {
      const [, name, text] = /^\(?\s*([\w-]+)\s*:\s*(.+?)\s*\)?$/.exec(property) ?? [];
      return name !== undefined && text !== undefined && supports(name, text);
    }
    const { style } = window.document.createElement('i');
    style.setProperty(property, wanted);
    return style.getPropertyValue(property) !== '';
  };
  return { escape, supports };
}

/** @see https://drafts.csswg.org/cssom-view/#visualViewport */
function makeViewport(window: Window & typeof globalThis): object {
  const viewport = new window.EventTarget();
  const numbers = { offsetLeft: 0, offsetTop: 0, pageLeft: 0, pageTop: 0, scale: 1 };
  Object.defineProperties(viewport, {
    width: { get: () => window.innerWidth, enumerable: true },
    height: { get: () => window.innerHeight, enumerable: true },
  });
  return Object.assign(viewport, numbers, { onresize: null, onscroll: null });
}

type Listener = (event: object) => void;

/**
 * Two ports that deliver messages by the page's own timers, so that pending messages can be seen.
 *
 * @see https://html.spec.whatwg.org/multipage/web-messaging.html#message-channels
 */
function makeChannel(window: Window & typeof globalThis) {
  class MessagePort {
    other: MessagePort | undefined;
    #listeners = new Set<Listener | { handleEvent: Listener }>();
    #onmessage: Listener | null = null;
    #waiting: unknown[] | undefined = [];

    get onmessage(): Listener | null {
      return this.#onmessage;
    }
    // Setting the handler starts the port.
    set onmessage(listener: Listener | null) {
      this.#onmessage = listener;
      this.start();
    }
    postMessage(data: unknown): void {
      const port = this.other;
      if (port) window.setTimeout(() => port.#receive(data), 0);
    }
    #receive(data: unknown): void {
      if (this.#waiting) return void this.#waiting.push(data);
      const event = { type: 'message', data, target: this, currentTarget: this, ports: [] };
      this.#onmessage?.(event);
      for (const listener of [...this.#listeners])
        if (typeof listener === 'function') listener(event);
        else listener.handleEvent(event);
    }
    start(): void {
      const waiting = this.#waiting ?? [];
      this.#waiting = undefined;
      for (const data of waiting) this.#receive(data);
    }
    close(): void {
      if (this.other) this.other.other = undefined;
      this.other = undefined;
    }
    addEventListener(type: string, listener: Listener): void {
      if (type === 'message') this.#listeners.add(listener);
    }
    removeEventListener(_type: string, listener: Listener): void {
      this.#listeners.delete(listener);
    }
  }
  tagAs(MessagePort, 'MessagePort');
  return class MessageChannel {
    readonly port1 = new MessagePort();
    readonly port2 = new MessagePort();
    constructor() {
      this.port1.other = this.port2;
      this.port2.other = this.port1;
    }
  };
}
