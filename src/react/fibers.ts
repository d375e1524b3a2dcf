import type { Fiber } from './bridge';
import { nameOf } from './kinds';

/** The tags of React's nodes that matter here. */
export const tags = {
  function: 0,
  class: 1,
  indeterminate: 2,
  root: 3,
  portal: 4,
  host: 5,
  text: 6,
  consumer: 9,
  provider: 10,
  forwardRef: 11,
  memo: 14,
  simpleMemo: 15,
  hoistable: 26,
  singleton: 27,
} as const;

// A memo and the component inside it count as one level.
const levels = new Set<number>([
  tags.function,
  tags.class,
  tags.indeterminate,
  tags.forwardRef,
  tags.simpleMemo,
]);

export const isComponent = (fiber: Fiber): boolean => levels.has(fiber.tag);

export const isHost = ({ tag }: Fiber): boolean =>
  tag === tags.host || tag === tags.hoistable || tag === tags.singleton;

/** How many components there are from a node up to the anchor; undefined outside of the anchor. */
export function levelBelow(anchor: unknown, fiber: Fiber | null): number | undefined {
  let level = 0;
  for (let at = fiber; at; at = at.return) {
    if (at.type === anchor) return level;
    if (isComponent(at)) level++;
  }
  return undefined;
}

/** The container a node's root renders into. */
export function containerOf(fiber: Fiber | null): Element | undefined {
  let at = fiber;
  while (at?.return) at = at.return;
  return at?.tag === tags.root ? (at.stateNode as { containerInfo?: Element }).containerInfo : undefined;
}

/** How the component of a node is called: by what the parent names first, a memo of it, say. */
export const fiberName = ({ elementType, type }: Fiber): string | undefined =>
  [nameOf(elementType), nameOf(type)].find((name) => name && name !== 'Anonymous') ?? nameOf(type);

/** The name of the nearest component around a node, itself included. */
export function ownerName(fiber: Fiber | null): string | undefined {
  for (let at = fiber; at; at = at.return) if (isComponent(at)) return fiberName(at);
  return undefined;
}

/** Visits a node and all below it; a visit that returns false is not gone below. */
export function visit(fiber: Fiber | null, look: (fiber: Fiber) => boolean | void): void {
  for (let at = fiber; at; at = at.sibling) if (look(at) !== false) visit(at.child, look);
}

/** The outermost elements a node has rendered. */
export function hostsOf(fiber: Fiber): Element[] {
  if (isHost(fiber)) return [fiber.stateNode as Element];
  const found: Element[] = [];
  visit(fiber.child, (inner) => {
    if (!isHost(inner)) return true;
    found.push(inner.stateNode as Element);
    return false;
  });
  return found;
}
