/*
 * A tree as the parser hands it out (ESTree, with the TypeScript and JSX parts of typescript-estree),
 * seen as loosely as a walk over every kind of node needs it.
 * @see https://github.com/estree/estree
 */
export interface Node {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly [field: string]: unknown;
}

export const isNode = (value: unknown): value is Node =>
  typeof value === 'object' && value !== null && typeof (value as Node).type === 'string';

const none: readonly Node[] = [];

export const nodesIn = (value: unknown): readonly Node[] => {
  if (!Array.isArray(value)) return none;
  // Only a list with holes has anything else.
  return value.every(isNode) ? value : value.filter(isNode);
};

/** The text of a string literal, or undefined for anything else. */
export const textOf = (node: unknown): string | undefined =>
  isNode(node) && node.type === 'Literal' && typeof node['value'] === 'string' ? node['value'] : undefined;

/** How an identifier, or the name of an import or export, is written. */
export const nameOf = (node: unknown): string => {
  if (!isNode(node)) return '';
  return (node['name'] as string | undefined) ?? textOf(node) ?? '';
};
