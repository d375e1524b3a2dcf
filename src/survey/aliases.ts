import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { readParser } from '../syntax/parser';
import { isNode, nameOf, nodesIn, textOf, type Node } from '../syntax/syntax';

const files = ['vite.config.ts', 'vite.config.mts', 'vite.config.js', 'vite.config.mjs'];

/** The aliases that a configuration of Vite writes out. It is read, not run. */
export function readAliases(root: string): Record<string, string[]> {
  const file = files.map((name) => join(root, name)).find((path) => existsSync(path));
  if (!file) return {};
  const { program } = readParser().parseSync(file, readFileSync(file, 'utf8'), { preserveParens: false });
  const found: Record<string, string[]> = {};
  const look = (node: unknown): void => {
    if (Array.isArray(node)) return node.forEach(look);
    if (!isNode(node)) return;
    if (node.type === 'Property' && nameOf(node['key']) === 'alias') readAlias(node['value'], file, found);
    Object.values(node).forEach(look);
  };
  look(program);
  return found;
}

function readAlias(value: unknown, file: string, found: Record<string, string[]>): void {
  if (!isNode(value)) return;
  for (const property of nodesIn(value['properties'])) {
    const path = pathIn(property['value'], dirname(file));
    if (path) found[nameOf(property['key'])] = [path];
  }
  for (const entry of nodesIn(value['elements'])) {
    const said = new Map(nodesIn(entry['properties']).map((one) => [nameOf(one['key']), one['value']]));
    const path = pathIn(said.get('replacement'), dirname(file));
    const find = textOf(said.get('find'));
    if (path && find) found[find] = [path];
  }
}

/** The path that an expression names: a text, `resolve(__dirname, 'src')`, `new URL('./src', import.meta.url)`. */
function pathIn(node: unknown, folder: string): string | undefined {
  if (!isNode(node)) return undefined;
  const text = textOf(node);
  if (text !== undefined) return text.startsWith('.') ? resolve(folder, text) : text;
  if (!/^(Call|New)Expression$/.test(node.type)) return undefined;
  const args = nodesIn(node['arguments']);
  const parts = args.map((one) => textOf(one)).filter((one): one is string => one !== undefined);
  const inner = args.find((one: Node) => one.type === 'NewExpression');
  if (inner) return pathIn(inner, folder);
  return parts.length > 0 ? resolve(folder, ...parts) : undefined;
}
