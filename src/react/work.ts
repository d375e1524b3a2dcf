import { bridge, type Fiber, type FiberRoot } from './bridge';
import { containerOf } from './fibers';

const roots = new WeakMap<Element, FiberRoot>();

/** React writes the root's node on the container, under a key with a random end. */
export function rootOf(container: Element): FiberRoot | undefined {
  const known = roots.get(container);
  if (known) return known;
  const first = fieldOf(container, '__reactContainer$') as Fiber | undefined;
  const root = first?.stateNode as FiberRoot | undefined;
  if (root) roots.set(container, root);
  return root;
}

function fieldOf(element: Element, prefix: string): unknown {
  // Own properties only, since elements of a simulated page inherit many.
  const key = Object.keys(element).find((name) => name.startsWith(prefix));
  return key === undefined ? undefined : (element as unknown as Record<string, unknown>)[key];
}

/** True where what is rendered in a container has put an element elsewhere on the page, by a portal. */
export function owns(container: Element, element: Element): boolean | undefined {
  const fiber = fieldOf(element, '__reactFiber$') as Fiber | undefined;
  return fiber && containerOf(fiber) === container;
}

// Excludes lanes of work without urgency (idle, hidden), but includes the lanes of deferred values, which
// React 19 has at the other end.
const awaited = (1 << 27) - 1;
const deferred = 1 << 30;

const lanes = () => awaited | (/^1[0-8]\./.test(bridge.internals?.version ?? '') ? 0 : deferred);

/**
 * True while React has work for a subject: pending lanes that are not suspended, or were pinged. Work that
 * waits for an unresolved promise is suspended.
 */
export function isPending(container: Element): boolean {
  const own = rootOf(container);
  return (own !== undefined && hasWork(own)) || [...bridge.otherRoots].some(hasWork);
}

const hasWork = ({ pendingLanes, suspendedLanes, pingedLanes }: FiberRoot): boolean =>
  (((pendingLanes & ~suspendedLanes) | (pendingLanes & pingedLanes)) & lanes()) !== 0;
