import { print } from '../core/print';
import { describeState } from '../page/describe';
import { isLeftOut } from '../page/hidden';
import { foldSpace } from '../page/locators';
import { namedByContent, roleOf } from '../page/roles';
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
 * What is rendered as text, one line each, indented by what is inside of what: components with
 * their props, elements by role and name. Plain boxes are left out, what is in them is not.
 *
 * @param depth how many levels of components are looked into
 */
export function printOutline(node: TreeNode, depth: number): string {
  const lines: string[] = [];
  printNode(node, 0, depth, lines);
  return lines.join('\n');
}

function printNode(node: TreeNode, indent: number, depth: number, lines: string[]): void {
  const add = (line: string) => lines.push(`${'  '.repeat(indent)}${cut(line, 98 - indent * 2)}`);
  switch (node.kind) {
    case 'text':
      if (foldSpace(node.text)) add(JSON.stringify(foldSpace(node.text)));
      return;
    case 'component': {
      const props = printProps(node.props);
      add(`${node.name}${props && `  ${props}`}`);
      if (depth > 0 && !node.stub) printAll(node.children, indent + 1, depth - 1, lines);
      else if (depth > 0) printAll(slotsOf(node), indent + 1, depth, lines);
      return;
    }
    case 'element':
      return printElement(node, indent, depth, lines, add);
    default:
      return node satisfies never;
  }
}

// What a stub draws for itself is no news; what its parent put inside of it is.
const slotsOf = (node: Extract<TreeNode, { kind: 'component' }>): readonly TreeNode[] =>
  node.children.flatMap((child) =>
    child.kind === 'element' && child.element.hasAttribute('data-part') ? child.children : [child],
  );

type ElementNode = Extract<TreeNode, { kind: 'element' }>;

function printElement(
  node: ElementNode,
  indent: number,
  depth: number,
  lines: string[],
  add: (line: string) => void,
): void {
  const { element } = node;
  // The words of a label are said by the field they name.
  if (isLeftOut(element) || (element.localName === 'label' && element.childElementCount === 0)) return;
  const role = roleOf(element);
  if (element.localName === 'label')
    return printAll(
      node.children.filter(({ kind }) => kind !== 'text'),
      indent,
      depth,
      lines,
    );
  if (!role || wording.has(role)) return printAll(node.children, indent, depth, lines);
  add(describeState(element));
  const told = namedByContent.has(role) || describeState(element).includes(JSON.stringify(textOf(element)));
  if (!told || hasMore(node))
    printAll(
      node.children.filter((child) => child.kind !== 'text' || !told),
      indent + 1,
      depth,
      lines,
    );
}

// Words are told with the element they are in; a component or another element with a role is not.
const hasMore = (node: TreeNode): boolean =>
  node.kind !== 'text' &&
  node.children.some(
    (child) =>
      child.kind === 'component' || (child.kind === 'element' && isTold(child.element)) || hasMore(child),
  );

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

function printAll(nodes: readonly TreeNode[], indent: number, depth: number, lines: string[]): void {
  for (const node of joinTexts(nodes)) printNode(node, indent, depth, lines);
}

// A framework may cut one sentence into several text nodes.
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

// A prop may be a getter, and a getter may throw.
function readSafely(props: object, name: string): unknown {
  try {
    return (props as Record<string, unknown>)[name];
  } catch (error) {
    return error;
  }
}

const cut = (line: string, room: number) =>
  line.length > room ? `${line.slice(0, Math.max(12, room - 1))}…` : line;
