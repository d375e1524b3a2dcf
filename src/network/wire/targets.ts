import { tagAs } from '../../core/tag';
import type { Environment } from '../../core/environment';
import { runAs } from '../../core/ownership';
import { page } from './page';

type Handler = ((this: EventTarget, event: Event) => unknown) | null;

/**
 * Defines the attributes for event handlers, such as `onload`. A handler is called in the place among the
 * listeners where it was first set.
 *
 * @see https://html.spec.whatwg.org/#event-handler-attributes
 */
export function defineHandlers(prototype: object, types: readonly string[]): void {
  for (const type of types) {
    const known = new WeakMap<EventTarget, { handler: Handler; listener: (event: Event) => void }>();
    Object.defineProperty(prototype, `on${type}`, {
      configurable: true,
      enumerable: true,
      get(this: EventTarget) {
        return known.get(this)?.handler ?? null;
      },
      set(this: EventTarget, given: unknown) {
        const handler = typeof given === 'function' ? (given as Handler) : null;
        const before = known.get(this);
        if (before && handler) before.handler = handler;
        else if (before) {
          this.removeEventListener(type, before.listener);
          known.delete(this);
        } else if (handler) {
          const set = {
            handler: handler as Handler,
            listener: (event: Event) => void set.handler?.call(this, event),
          };
          known.set(this, set);
          this.addEventListener(type, set.listener);
        }
      },
    });
  }
}

type EventKind = 'Event' | 'ProgressEvent' | 'MessageEvent' | 'CloseEvent';

/** Makes the page's own kind of event, or where it lacks that kind, a plain event with the same fields. */
export function makeEvent(kind: EventKind, type: string, fields: object = {}): Event {
  const Kind = page[kind] as (new (type: string, fields: object) => Event) | undefined;
  if (Kind) return new Kind(type, fields);
  return Object.assign(new (page['Event'] as typeof Event)(type), fields);
}

/** Dispatches an event as something that happens to a subject. */
export function dispatch(owner: Environment | undefined, target: EventTarget, event: Event): void {
  if (!owner) return void target.dispatchEvent(event);
  if (owner.state === 'down') return;
  runAs(owner, () => target.dispatchEvent(event));
}

/** An error of the page's own class. @see https://webidl.spec.whatwg.org/#idl-DOMException-error-names */
export function makeException(name: string, message: string): Error {
  return new (page['DOMException'] as new (message: string, name: string) => Error)(message, name);
}

/** Defines constants on a class and on its objects. */
export function defineConstants(target: { prototype: object }, constants: Readonly<Record<string, number>>) {
  for (const [name, value] of Object.entries(constants))
    for (const object of [target, target.prototype])
      Object.defineProperty(object, name, { value, enumerable: true });
}

/** Has the members of a class show when its objects are looked through, as those of the platform's classes do. */
export function showMembers(target: { prototype: object; name: string }, name: string): void {
  Object.defineProperty(target, 'name', { value: name, configurable: true });
  tagAs(target, name);
  for (const [key, member] of Object.entries(Object.getOwnPropertyDescriptors(target.prototype)))
    if (key !== 'constructor' && member.configurable)
      Object.defineProperty(target.prototype, key, { ...member, enumerable: true });
}
