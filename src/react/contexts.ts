import { print } from '../core/print';
import type { BareRead } from '../stage/thrown';
import { door, type Fiber } from './door';
import { ownerName, tags } from './fibers';

interface Context {
  readonly displayName?: string;
  readonly _currentValue?: unknown;
}

type Dispatcher = Record<string, ((...args: unknown[]) => unknown) | undefined>;

const { readListeners: listeners } = door;
const watched = new WeakMap<object, object>();
const originals = new WeakMap<object, object>();

/**
 * Tells of every context that is read without a provider, also by a component that throws then.
 * React keeps the implementation of its hooks in one place and sets it for each rendering; an
 * accessor on that place hands out one that listens. Once put there it stays, and hands on what
 * React has set while nobody listens: to change the shape of that object for each subject would
 * undo what the engine has learnt of it.
 */
export function listenToReads(listener: (read: BareRead, fiber: Fiber) => void): () => void {
  listeners.add(listener);
  if (!door.watching) watchDispatcher();
  door.watching = true;
  return () => void listeners.delete(listener);
}

function watchDispatcher(): void {
  const place = door.internals?.currentDispatcherRef;
  if (!place) return;
  const key = 'H' in place ? 'H' : 'current';
  let current = place[key] as object | null;
  Object.defineProperty(place, key, {
    configurable: true,
    enumerable: true,
    get: () => (current === null || listeners.size === 0 ? current : listening(current)),
    // React puts back what it was handed, which may be ours.
    set: (next: object | null) => {
      current = next === null ? null : (originals.get(next) ?? next);
    },
  });
}

function listening(dispatcher: object): object {
  const known = watched.get(dispatcher);
  if (known) return known;
  const { useContext, use, readContext } = dispatcher as Dispatcher;
  const heard = (read: typeof use) =>
    read &&
    ((...args: unknown[]) => {
      tell(args[0]);
      return read(...args);
    });
  const listener = Object.assign(Object.create(dispatcher) as object, {
    ...(useContext && { useContext: heard(useContext) }),
    ...(use && { use: heard(use) }),
    ...(readContext && { readContext: heard(readContext) }),
  });
  watched.set(dispatcher, listener);
  originals.set(listener, dispatcher);
  return listener;
}

const contextMark = Symbol.for('react.context');

function tell(read: unknown): void {
  const context = read as Context & { $$typeof?: symbol };
  if (context?.$$typeof !== contextMark) return;
  const fiber = door.internals?.getCurrentFiber?.() ?? null;
  if (!fiber || isProvided(context, fiber)) return;
  const reader = ownerName(fiber) ?? 'a component';
  const bare = { token: context.displayName ?? 'Context', value: print(context._currentValue, 40), reader };
  for (const listen of listeners) listen(bare, fiber);
}

function isProvided(context: unknown, fiber: Fiber): boolean {
  for (let at = fiber.return; at; at = at.return) {
    if (at.tag !== tags.provider) continue;
    // The type of a provider is the context itself since React 19, before that it points to it.
    if (at.type === context || (at.type as { _context?: unknown })._context === context) return true;
  }
  return false;
}
