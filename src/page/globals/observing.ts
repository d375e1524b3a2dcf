import { noteMade } from '../../core/left';
import { once } from '../../core/shared';

interface Observer {
  observe(target: Node, ...options: unknown[]): void;
  unobserve?(target: Node): void;
  disconnect(): void;
}
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- a class that extends a parameter takes any
type ObserverClass = new (...args: any[]) => Observer;

const known = once('observer-classes', () => ({
  watched: new WeakMap<object, object>(),
  /** The class of each page that observes its changes. */
  ofPages: new WeakMap<object, unknown>(),
}));

/** Remembers the class by which a page observes its changes itself. */
export const keepObserverClass = (page: object, own: unknown): void => void known.ofPages.set(page, own);

/**
 * Watches changes of a page for ourselves, by the page's own class: what we observe is nobody's leak, and zone.js
 * need not hear of it.
 */
export function observeChanges({ defaultView }: Document, changed: MutationCallback): MutationObserver {
  const page = defaultView as Window & typeof globalThis;
  const Own = (known.ofPages.get(page) ?? page.MutationObserver) as typeof MutationObserver;
  return new Own(changed);
}

/** Makes a class of observers that notes whoever never disconnects. */
export function watchObserver<C extends object>(original: C): C {
  const found = known.watched.get(original);
  if (found) return found as C;
  const Watched = extended(original as unknown as ObserverClass);
  known.watched.set(original, Watched);
  // Asked again, it stays as it is.
  known.watched.set(Watched, Watched);
  return Watched as unknown as C;
}

function extended(Original: ObserverClass): ObserverClass {
  const { name } = Original;
  class Watched extends Original {
    readonly #targets = new Set<Node>();
    #end: (() => void) | undefined;

    override observe(target: Node, ...options: unknown[]): void {
      super.observe(target, ...options);
      this.#targets.add(target);
      // An observer of what is off the page is none that anybody could miss.
      this.#end ??= noteMade(`${/^[AEIOU]/.test(name) ? 'an' : 'a'} ${name}`, this.observe, () =>
        [...this.#targets].every(({ isConnected }) => !isConnected),
      );
    }
    override unobserve(target: Node): void {
      super.unobserve?.(target);
      this.#targets.delete(target);
    }
    override disconnect(): void {
      super.disconnect();
      this.#targets.clear();
      this.#end?.();
      this.#end = undefined;
    }
  }
  Object.defineProperty(Watched, 'name', { value: name, configurable: true });
  if (!('unobserve' in Original.prototype)) delete (Watched.prototype as Partial<Observer>).unobserve;
  showMembers(Watched.prototype);
  return Watched;
}

/** Makes members visible as the platform's own are: zone.js looks for them. What only we call stays hidden. */
export function showMembers(prototype: object): void {
  for (const [name, member] of Object.entries(Object.getOwnPropertyDescriptors(prototype)))
    if (!/^(constructor|tell|targets)$/.test(name))
      Object.defineProperty(prototype, name, { ...member, enumerable: true });
}
