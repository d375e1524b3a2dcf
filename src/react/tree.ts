import type { Instance, TreeNode } from '../stage/adapter';
import { bareNode } from '../stage/outline';
import type { Fiber } from './bridge';
import { hostsOf, isComponent, isHost, tags, visit } from './fibers';
import { nameOf } from './kinds';
import { isStubComponent } from './stub-component';

type ComponentNode = Extract<TreeNode, { kind: 'component' }>;

/** The subject and what is below it, as the outline prints it. */
export function readTree(root: Fiber | null, anchor: unknown, name: string): TreeNode {
  const top = findAnchor(root, anchor)?.child ?? null;
  const nodes = top ? readNode(top) : [];
  return nodes[0] ?? bareNode(name);
}

function findAnchor(root: Fiber | null, anchor: unknown): Fiber | undefined {
  let found: Fiber | undefined;
  visit(root, (fiber) => {
    if (fiber.type === anchor) found = fiber;
    return !found;
  });
  return found;
}

function readAll(first: Fiber | null): TreeNode[] {
  const nodes: TreeNode[] = [];
  for (let at = first; at; at = at.sibling) nodes.push(...readNode(at));
  return nodes;
}

function readNode(fiber: Fiber): TreeNode[] {
  if (fiber.tag === tags.text) return [{ kind: 'text', text: String(fiber.memoizedProps) }];
  if (isHost(fiber))
    return [{ kind: 'element', element: fiber.stateNode as Element, children: readHost(fiber) }];
  if (!isComponent(fiber)) return readAll(fiber.child);
  const node: ComponentNode = {
    kind: 'component',
    name: nameOf(fiber.elementType) ?? nameOf(fiber.type) ?? 'Anonymous',
    stub: isStubComponent(fiber.type),
    props: fiber.memoizedProps ?? {},
    children: readAll(fiber.child),
  };
  return [node];
}

// React creates no fiber for a text that is the only child of an element.
function readHost(fiber: Fiber): TreeNode[] {
  const only = fiber.child ? undefined : (fiber.stateNode as Element).textContent;
  return only ? [{ kind: 'text', text: only }] : readAll(fiber.child);
}

/** Every instance of a component (by itself or by name) below the anchor, outermost first. */
export function readInstances(
  root: Fiber | null,
  anchor: unknown,
  fits: (component: unknown) => boolean,
): Instance[] {
  const found: Instance[] = [];
  visit(findAnchor(root, anchor)?.child ?? null, (fiber) => {
    if (isComponent(fiber) && (fits(fiber.elementType) || fits(fiber.type)))
      found.push({ props: fiber.memoizedProps ?? {}, element: hostsOf(fiber)[0] });
  });
  return found;
}
