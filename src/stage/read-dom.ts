import type { TreeNode } from './adapter';

type ElementNode = Extract<TreeNode, { kind: 'element' }>;

/** What the page has in a node, where the framework keeps no tree of its own; `around` says what an element stands for. */
export function readDom(node: Node, around: (drawn: ElementNode) => TreeNode = (drawn) => drawn): TreeNode[] {
  if (node.nodeType === 3) return [{ kind: 'text', text: node.textContent ?? '' }];
  if (node.nodeType !== 1) return [];
  const children = [...node.childNodes].flatMap((child) => readDom(child, around));
  return [around({ kind: 'element', element: node as Element, children })];
}
