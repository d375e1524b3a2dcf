import { runAs } from '../core/ownership';
import type { BareRead } from '../stage/bare-reads';
import { bridge, type Fiber } from './bridge';
import type { Provision } from '../stage/plan';
import { containerOf, levelBelow, ownerName, tags, visit } from './fibers';
import { originOfContext } from './origins';
import { noteEffect } from './traces';

interface Context {
  readonly _currentValue?: unknown;
}

type Dispatcher = Record<string, ((...args: unknown[]) => unknown) | undefined>;

const { readListeners: listeners } = bridge;
const watched = new WeakMap<object, object>();
const originals = new WeakMap<object, object>();

/**
 * Reports every context that is read, even by a component that then throws. React stores the implementation
 * of its hooks in one property and sets it for each rendering. Our accessor on that property returns a
 * listening implementation. The accessor is installed once and stays, because changing the shape of that
 * object for each subject would undo the engine's optimizations. While nobody listens it returns React's own
 * value.
 */
export function listenToReads(listener: Listener): () => void {
  listeners.add(listener);
  if (!bridge.watching) watchDispatcher();
  bridge.watching = true;
  return () => void listeners.delete(listener);
}

type Listener = typeof listeners extends Set<infer L> ? L : never;

function watchDispatcher(): void {
  const place = bridge.internals?.currentDispatcherRef;
  if (!place) return;
  const key = 'H' in place ? 'H' : 'current';
  let current = place[key] as object | null;
  Object.defineProperty(place, key, {
    configurable: true,
    enumerable: true,
    get: () => (current === null || listeners.size === 0 ? current : listening(current)),
    // React may restore a value it read before, which can be our listening one.
    set: (next: object | null) => {
      current = next === null ? null : (originals.get(next) ?? next);
    },
  });
}

function listening(dispatcher: object): object {
  const known = watched.get(dispatcher);
  if (known) return known;
  const { useContext, use, readContext, useEffect, useLayoutEffect, useInsertionEffect } =
    dispatcher as Dispatcher;
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
    ...(useEffect && { useEffect: owned(useEffect) }),
    ...(useLayoutEffect && { useLayoutEffect: owned(useLayoutEffect) }),
    ...(useInsertionEffect && { useInsertionEffect: owned(useInsertionEffect) }),
  });
  watched.set(dispatcher, listener);
  originals.set(listener, dispatcher);
  return listener;
}

type Effect = () => unknown;

function noting(effect: Effect, fiber: Fiber | null): unknown {
  try {
    return effect();
  } catch (error) {
    if (fiber) noteEffect(error, fiber);
    throw error;
  }
}

/**
 * React runs the effects of all roots together. Each effect runs on behalf of its component's subject, so
 * that later requests belong to that subject.
 */
function owned(start: (...args: unknown[]) => unknown) {
  return (effect: unknown, ...rest: unknown[]) => {
    const fiber = bridge.internals?.getCurrentFiber?.() ?? null;
    const container = containerOf(fiber);
    const owner = container && bridge.live.get(container)?.environment;
    if (!owner || typeof effect !== 'function') return start(effect, ...rest);
    return start(() => runAs(owner, () => noting(effect as Effect, fiber)), ...rest);
  };
}

const contextMark = Symbol.for('react.context');

function tell(read: unknown): void {
  const context = read as Context & { $$typeof?: symbol };
  if (context?.$$typeof !== contextMark) return;
  const fiber = bridge.internals?.getCurrentFiber?.() ?? null;
  if (!fiber) return;
  const provider = providerOf(context, fiber);
  for (const listen of listeners) listen(context, fiber, provider);
}

/** A read without a provider, for a message. */
export const bareRead = (context: unknown, fiber: Fiber, anchor: unknown): BareRead => ({
  token: context,
  value: (context as Context)._currentValue,
  reader: ownerName(fiber) ?? 'a component',
  isAround: levelBelow(anchor, fiber) === undefined,
  origin: () => originOfContext(context),
});

/** The context that a node reads without a hook, where nobody provides it: a consumer, or a class that names one. */
export function readUnheard({ tag, type, ...fiber }: Fiber): unknown {
  const own = type as { readonly _context?: unknown; readonly contextType?: unknown } | null;
  const context =
    tag === tags.consumer ? (own?._context ?? own) : tag === tags.class ? own?.contextType : undefined;
  return context && !providerOf(context, fiber as Fiber) ? context : undefined;
}

function providerOf(context: unknown, fiber: Fiber): Fiber | undefined {
  for (let at = fiber.return; at; at = at.return) {
    if (at.tag !== tags.provider) continue;
    // Since React 19 the type of a provider is the context itself. Before, it has a reference to it.
    if (at.type === context || (at.type as { _context?: unknown })._context === context) return at;
  }
  return undefined;
}

/** Marks what was provided and is read: what a class or a consumer reads is seen on its fiber only. */
export function noteReads(fiber: Fiber | null, provide: readonly Provision[]): void {
  if (provide.every(({ used }) => used)) return;
  visit(fiber, ({ dependencies }) => {
    for (let read = dependencies?.firstContext; read; read = read.next)
      for (const one of provide) if (one.token === read.context) one.used = true;
  });
}
