import { once } from '../../core/shared';
import type { Page } from '../../core/replace';
import { noteMade } from '../../core/left';

type Handler = EventListenerOrEventListenerObject | null;
type Options = AddEventListenerOptions | boolean | undefined;

/** The listeners that subjects have on the window and the document, by their handlers. */
const listening = once('listeners', () => new WeakMap<object, Map<string, () => void>>());

/**
 * Records the listeners that a subject puts on the window and the document. Those stay when its elements go,
 * unless it takes them away.
 */
export function watchListeners(page: Page): void {
  const document = page['document'] as object | undefined;
  if (!document) return;
  watch(page, 'window');
  watch(document, 'document');
  // What we supply notes by itself.
  const lists = page['MediaQueryList'] as { prototype: object } | undefined;
  if (lists) watch(lists.prototype, 'media query');
}

type Member = 'addEventListener' | 'removeEventListener';

function watch(target: object, name: string): void {
  replace(target, 'addEventListener', (type, handler, options) => note(name, type, handler, options));
  replace(target, 'removeEventListener', (type, handler, options) =>
    forget(handler, keyOf(name, type, options)),
  );
}

function replace(
  target: object,
  member: Member,
  tell: (type: string, handler: object, options: Options) => void,
): void {
  if (typeof (target as Partial<EventTarget>)[member] !== 'function') return;
  // A runner may have a function of its own on the window. Else it is looked up for each call, because zone.js
  // replaces it when it is loaded.
  const own = Object.getOwnPropertyDescriptor(target, member)?.value as EventTarget[Member] | undefined;
  const value = function (this: unknown, type: string, handler: Handler, options?: Options) {
    if (handler) tell(type, handler, options);
    const original = own ?? (Object.getPrototypeOf(target) as EventTarget)[member];
    return original.call((this ?? target) as EventTarget, type, handler, options);
  };
  Object.defineProperty(target, member, { value, configurable: true, writable: true, enumerable: false });
}

const keyOf = (name: string, type: string, options: Options): string =>
  `${name} ${type} ${typeof options === 'object' ? options.capture === true : options === true}`;

function note(name: string, type: string, handler: object, options: Options): void {
  const { once: isOnce = false, signal } = typeof options === 'object' ? options : {};
  // It ends by itself.
  if (isOnce || signal?.aborted) return;
  const end = noteMade(`a listener for "${type}" on the ${name}`, note);
  if (!end) return;
  const key = keyOf(name, type, options);
  const known = listening.get(handler) ?? new Map<string, () => void>();
  listening.set(handler, known);
  known.get(key)?.();
  known.set(key, end);
  signal?.addEventListener('abort', () => forget(handler, key), { once: true });
}

function forget(handler: object, key: string): void {
  const known = listening.get(handler);
  known?.get(key)?.();
  known?.delete(key);
}
