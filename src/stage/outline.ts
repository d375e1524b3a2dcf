import { print } from '../core/print';
import { describeState } from '../page/describe';
import { isLeftOut } from '../page/hidden';
import { foldSpace } from '../page/locators';
import { namedByContent } from '../page/aria';
import { roleOf } from '../page/roles';
import { textOf } from '../page/names';
import type { TreeNode } from './adapter';

/** A component that has rendered nothing. */
export const bareNode = (name: string): TreeNode => ({
  kind: 'component',
  name,
  stub: false,
  props: {},
  children: [],
});

/**
 * Prints the rendered tree: one line for each component (with its props), element (with its role and name)
 * and text, indented by nesting. Elements without a role are skipped, but not their content.
 *
 * @param depth how many levels of components are looked into
 */
export const printOutline = (node: TreeNode, depth: number): string => {
  const lines: string[] = [];
  // A list instead of recursion: a page may be nested more deeply than the call stack allows.
  const next: Item[] = [{ node, indent: 0, depth }];
  for (let item = next.pop(); item; item = next.pop()) {
    const { line, inside, indent: deeper, depth: left } = printNode(item);
    if (line !== undefined) lines.push(`${'  '.repeat(item.indent)}${cut(line, 98 - item.indent * 2)}`);
    for (const child of joinTexts(inside).reverse()) next.push({ node: child, indent: deeper, depth: left });
  }
  return lines.join('\n');
};

interface Item {
  readonly node: TreeNode;
  readonly indent: number;
  readonly depth: number;
}

/** The line of one node, and what comes below it. */
interface Printed {
  readonly line?: string;
  readonly inside: readonly TreeNode[];
  readonly indent: number;
  readonly depth: number;
}

function printNode({ node, indent, depth }: Item): Printed {
  const none = { inside: [], indent, depth };
  switch (node.kind) {
    case 'text': {
      const text = foldSpace(node.text);
      return text ? { ...none, line: JSON.stringify(text) } : none;
    }
    case 'component': {
      const props = printProps(node.props);
      const line = `${node.name}${props && `  ${props}`}`;
      if (depth <= 0) return { ...none, line };
      return node.stub
        ? { line, inside: slotsOf(node), indent: indent + 1, depth }
        : { line, inside: node.children, indent: indent + 1, depth: depth - 1 };
    }
    case 'element':
      return printElement(node, indent, depth);
    default:
      return node satisfies never;
  }
}

// The stub's own markup is left out; the content its parent passed is shown.
const slotsOf = (node: Extract<TreeNode, { kind: 'component' }>): readonly TreeNode[] =>
  node.children.flatMap((child) =>
    child.kind === 'element' && child.element.hasAttribute('data-part') ? child.children : [child],
  );

type ElementNode = Extract<TreeNode, { kind: 'element' }>;

function printElement(node: ElementNode, indent: number, depth: number): Printed {
  const { element, children } = node;
  const here = (inside: readonly TreeNode[]) => ({ inside, indent, depth });
  // A label's text is already the name of its field.
  if (isLeftOut(element) || (element.localName === 'label' && element.childElementCount === 0))
    return here([]);
  if (element.localName === 'label') return here(children.filter(({ kind }) => kind !== 'text'));
  const role = roleOf(element);
  if (!role || wording.has(role)) return here(children);
  const line = describeState(element);
  const told = namedByContent.has(role) || line.includes(JSON.stringify(textOf(element)));
  if (told && !hasMore(node)) return { ...here([]), line };
  const inside = children.filter((child) => child.kind !== 'text' || !told);
  return { line, inside, indent: indent + 1, depth };
}

// Text is printed with its element, unless the content is a component or another element with a role.
function hasMore(node: TreeNode): boolean {
  const next = node.kind === 'text' ? [] : [...node.children];
  for (let child = next.pop(); child; child = next.pop()) {
    if (child.kind === 'component' || (child.kind === 'element' && isTold(child.element))) return true;
    if (child.kind === 'element') next.push(...child.children);
  }
  return false;
}

const wording = new Set([
  'paragraph',
  'strong',
  'emphasis',
  'time',
  'code',
  'presentation',
  'deletion',
  'insertion',
]);
const isTold = (element: Element) => !wording.has(roleOf(element) ?? 'presentation');

// A framework may split one sentence into several text nodes.
function joinTexts(nodes: readonly TreeNode[]): TreeNode[] {
  const joined: TreeNode[] = [];
  for (const node of nodes) {
    const last = joined.at(-1);
    if (node.kind === 'text' && last?.kind === 'text')
      joined[joined.length - 1] = { kind: 'text', text: last.text + node.text };
    else joined.push(node);
  }
  return joined;
}

/** Props on one line: `hive={ id: "h1" } onOpen={ƒ}`. */
export function printProps(props: object): string {
  return Object.keys(props)
    .map((name): [string, unknown] => [name, readSafely(props, name)])
    .filter(([name, value]) => name !== 'children' && value !== undefined)
    .map(([name, value]) =>
      typeof value === 'string'
        ? `${name}=${JSON.stringify(value)}`
        : `${name}={${typeof value === 'function' ? 'ƒ' : print(value, 40)}}`,
    )
    .join(' ');
}

// A prop may be a getter that throws.
function readSafely(props: object, name: string): unknown {
  try {
    return (props as Record<string, unknown>)[name];
  } catch (error) {
    return error;
  }
}

const cut = (line: string, modules: number) =>
  line.length > modules ? `${line.slice(0, Math.max(12, modules - 1))}…` : line;
