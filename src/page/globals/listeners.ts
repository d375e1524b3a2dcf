import type { Environment } from '../../core/environment';
import { calledFrom } from '../../core/errors/called-from';
import type { Made } from '../../core/left';
import { ownerOfCall } from '../../core/ownership';
import { once } from '../../core/shared';
import type { Page } from '../../core/replace';
import { depthOfStack } from './run-timer';

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
  watch(page, page, 'window');
  watch(page, document, 'document');
}

function watch(page: Page, target: object, name: string): void {
  // A runner may have functions of its own on the window. Others are looked up for each call, because zone.js
  // replaces them when it is loaded.
  const ownOf = (key: 'addEventListener' | 'removeEventListener') =>
    Object.getOwnPropertyDescriptor(target, key)?.value as EventTarget[typeof key] | undefined;
  const own = {
    addEventListener: ownOf('addEventListener'),
    removeEventListener: ownOf('removeEventListener'),
  };
  const prototype = () => (page['EventTarget'] as typeof EventTarget).prototype;
  define(
    target,
    'addEventListener',
    function (this: unknown, type: string, handler: Handler, options?: Options) {
      const owner = handler && ownerOfCall();
      if (owner) note(owner, name, type, handler, options);
      return (own.addEventListener ?? prototype().addEventListener).call(
        (this ?? target) as EventTarget,
        type,
        handler,
        options,
      );
    },
  );
  define(
    target,
    'removeEventListener',
    function (this: unknown, type: string, handler: Handler, options?: Options) {
      if (handler) forget(handler, keyOf(name, type, options));
      return (own.removeEventListener ?? prototype().removeEventListener).call(
        (this ?? target) as EventTarget,
        type,
        handler,
        options,
      );
    },
  );
}

const keyOf = (name: string, type: string, options: Options): string =>
  `${name} ${type} ${typeof options === 'object' ? options.capture === true : options === true}`;

function note(owner: Environment, name: string, type: string, handler: object, options: Options): void {
  const { once: isOnce = false, signal } = typeof options === 'object' ? options : {};
  // It ends by itself.
  if (isOnce || signal?.aborted) return;
  const key = keyOf(name, type, options);
  const made: Made = {
    what: `a listener for "${type}" on the ${name}`,
    from: owner.running(),
    calledAt: calledFrom('addEventListener', note, depthOfStack()),
  };
  const all = (owner.listeners ??= new Set());
  all.add(made);
  const known = listening.get(handler) ?? new Map<string, () => void>();
  listening.set(handler, known);
  known.get(key)?.();
  known.set(key, () => void all.delete(made));
  signal?.addEventListener('abort', () => forget(handler, key), { once: true });
}

function forget(handler: object, key: string): void {
  const known = listening.get(handler);
  known?.get(key)?.();
  known?.delete(key);
}

const define = (target: object, name: string, value: unknown): void =>
  void Object.defineProperty(target, name, { value, configurable: true, writable: true, enumerable: false });
