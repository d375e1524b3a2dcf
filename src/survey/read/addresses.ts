import { isNode, nameOf, nodesIn, textOf, type Node } from '../../syntax/syntax';
import type { Part, Parts } from '../facts';

/** What a name stands for where it is read: an expression, a parameter by its place, or a name of the file. */
export type Meaning =
  { readonly expression: Node } | { readonly argument: number } | { readonly constant: string } | undefined;

/** True for a part that callers say. */
export const isArgument = (part: Part): part is Extract<Part, { argument: number }> =>
  typeof part === 'object' && 'argument' in part;

const unknown = (name: string): Part => ({ unknown: name || 'value' });
const passedOn = /^(encodeURI|encodeURIComponent|String|decodeURI|decodeURIComponent)$/;

/** Reads an expression as a text, as far as that goes. */
export function readText(node: unknown, meaningOf: (name: string) => Meaning, depth = 0): Parts {
  if (!isNode(node) || depth > 8) return [unknown('value')];
  const inner = (one: unknown) => readText(one, meaningOf, depth + 1);
  const literal = textOf(node);
  if (literal !== undefined) return [literal];
  switch (node.type) {
    case 'Literal':
      return [String(node['value'])];
    case 'TemplateLiteral':
      return nodesIn(node['quasis']).flatMap((quasi, index) => {
        const { cooked } = quasi['value'] as { cooked?: string };
        const expression = nodesIn(node['expressions'])[index];
        return [...(cooked ? [cooked] : []), ...(expression ? inner(expression) : [])];
      });
    case 'BinaryExpression':
      return node['operator'] === '+'
        ? [...inner(node['left']), ...inner(node['right'])]
        : [unknown('value')];
    case 'TSAsExpression':
    case 'TSNonNullExpression':
    case 'TSSatisfiesExpression':
    case 'ChainExpression':
      return inner(node['expression']);
    case 'ConditionalExpression':
      return [unknown(nameIn(node['consequent']))];
    case 'Identifier':
      return readName(nameOf(node), meaningOf, depth);
    case 'MemberExpression': {
      const object = node['object'] as Node;
      const member = node['computed'] ? '' : nameOf(node['property']);
      if (object.type === 'ThisExpression' && member)
        return readName(`this.${member}`, meaningOf, depth, member);
      const meaning = object.type === 'Identifier' ? meaningOf(nameOf(object)) : undefined;
      if (meaning && 'constant' in meaning && member) return [{ constant: meaning.constant, member }];
      return [unknown(member || nameIn(object))];
    }
    case 'NewExpression':
    case 'CallExpression':
      return readCall(node, inner);
    default:
      return [unknown(nameIn(node))];
  }
}

function readName(
  name: string,
  meaningOf: (name: string) => Meaning,
  depth: number,
  word: string = name,
): Parts {
  const meaning = meaningOf(name);
  if (!meaning) return [unknown(word)];
  if ('argument' in meaning) return [{ argument: meaning.argument, unknown: word }];
  if ('constant' in meaning) return [{ constant: meaning.constant }];
  const parts = readText(meaning.expression, meaningOf, depth + 1);
  return parts.some((part) => typeof part === 'string') ? parts : [unknown(word)];
}

// What `new URL(path, base)` and `new Request(url)` name is what is asked for.
function readCall(node: Node, inner: (one: unknown) => Parts): Parts {
  const callee = node['callee'] as Node;
  const [first] = nodesIn(node['arguments']);
  const name = nameOf(callee);
  if (node.type === 'NewExpression') {
    if (name === 'URL' || name === 'Request') return inner(first);
    return [unknown(nameIn(first) || name)];
  }
  if (passedOn.test(name)) return inner(first);
  const method = callee.type === 'MemberExpression' ? nameOf(callee['property']) : '';
  // `url.toString()`, `path.trim()`: the object itself; a method that makes something else is unknown.
  if (/^(toString|trim|replace)$/.test(method)) return inner(callee['object']);
  return [unknown(nameIn(node))];
}

/** The addresses in an object that is written out: `{ apiUrl: '/api' }`. */
export function readTexts(
  object: Node,
  meaningOf: (name: string) => Meaning,
): Readonly<Record<string, Parts>> | undefined {
  const plain = /^TS(As|Satisfies)/.test(object.type) ? (object['expression'] as Node) : object;
  if (plain.type !== 'ObjectExpression') return undefined;
  const found = nodesIn(plain['properties']).flatMap(({ key, value }) => {
    const text = readText(value, meaningOf);
    return looksLikeAddress(text) ? [[nameOf(key), text] as const] : [];
  });
  return found.length > 0 ? Object.fromEntries(found) : undefined;
}

/** The last name that an expression is made of, for people to know it by. */
export function nameIn(node: unknown): string {
  if (!isNode(node)) return '';
  switch (node.type) {
    case 'Identifier':
    case 'PrivateIdentifier':
      return nameOf(node);
    case 'MemberExpression':
      return node['computed'] ? nameIn(node['object']) : nameOf(node['property']);
    case 'CallExpression':
      // What goes through `toValue(id)` is known as `id`.
      return nameIn(nodesIn(node['arguments'])[0]) || nameIn(node['callee']);
    case 'ThisExpression':
      return 'this';
    default:
      return nameIn(node['expression'] ?? node['argument'] ?? node['test'] ?? node['left']);
  }
}

/** True for what can be an address: it begins with a slash or a scheme, or with a name and then a slash. */
export function looksLikeAddress(parts: Parts): boolean {
  const [first, second] = parts;
  if (typeof first === 'string') return /^(\/(?!\/)|\.{0,2}\/|https?:|wss?:)/.test(first);
  return typeof second === 'string' && second.startsWith('/');
}
