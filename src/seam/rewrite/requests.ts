import type { Node } from '../../syntax/syntax';
import { isNode, nameOf, nodesIn, textOf } from '../../syntax/syntax';

/** A name that stands for something another module exports. */
export interface Binding {
  readonly local: string;
  /** The name of the export; `*` for all of them together. */
  readonly name: string;
  readonly request: Request;
}

/** True for a name that stands for everything a module exports. */
export const isWhole = ({ name }: Binding): boolean => name === '*' || name === 'module.exports';

/** Another module, and what is taken from it in one statement. */
export interface Request {
  readonly specifier: string;
  readonly bindings: Binding[];
  /** What is handed on without being used here: `export { name as exported } from`. */
  readonly handedOn: { readonly name: string; readonly exported: string }[];
  readonly statement: Node;
  readonly kind: 'import' | 'handed on' | 'star' | 'required';
}

/** What a file takes from others, but for what is only there for types. */
export function findRequests(program: Node, isKept: (specifier: string) => boolean): Request[] {
  return nodesIn(program['body']).flatMap((statement) => {
    if (statement['importKind'] === 'type' || statement['exportKind'] === 'type') return [];
    const request = readRequest(statement);
    return request.filter(({ specifier }) => !isKept(specifier));
  });
}

function readRequest(statement: Node): Request[] {
  const specifier = textOf(statement['source']);
  switch (statement.type) {
    case 'ImportDeclaration': {
      // Import attributes say how to load the file, so such an import stays as it is.
      if (specifier === undefined || nodesIn(statement['attributes']).length > 0) return [];
      const request = makeRequest(specifier, statement, 'import');
      for (const one of nodesIn(statement['specifiers'])) {
        if (one['importKind'] === 'type') continue;
        request.bindings.push({ local: nameOf(one['local']), name: importedName(one), request });
      }
      return [request];
    }
    case 'ExportAllDeclaration':
    case 'ExportNamedDeclaration': {
      if (specifier === undefined) return [];
      const isStar = statement.type === 'ExportAllDeclaration' && !isNode(statement['exported']);
      const request = makeRequest(specifier, statement, isStar ? 'star' : 'handed on');
      if (isNode(statement['exported']))
        request.handedOn.push({ name: '*', exported: nameOf(statement['exported']) });
      for (const one of nodesIn(statement['specifiers'])) {
        if (one['exportKind'] !== 'type')
          request.handedOn.push({ name: nameOf(one['local']), exported: nameOf(one['exported']) });
      }
      return [request];
    }
    case 'VariableDeclaration':
      return statement['kind'] === 'const'
        ? nodesIn(statement['declarations']).flatMap((one, at, all) =>
            all.length === 1 ? readRequired(statement, one) : [],
          )
        : [];
    default:
      return [];
  }
}

const makeRequest = (specifier: string, statement: Node, kind: Request['kind']): Request => ({
  ...{ specifier, statement, kind },
  bindings: [],
  handedOn: [],
});

function importedName(specifier: Node): string {
  switch (specifier.type) {
    case 'ImportDefaultSpecifier':
      return 'default';
    case 'ImportNamespaceSpecifier':
      return '*';
    default:
      return nameOf(specifier['imported']);
  }
}

/** `const { a, b: c } = require('…')`, whose names can be looked up as those of an import can. */
function readRequired(statement: Node, { id, init }: Node): Request[] {
  const specifier = requiredBy(init);
  if (specifier === undefined || !isNode(id)) return [];
  const request = makeRequest(specifier, statement, 'required');
  if (id.type === 'Identifier') {
    request.bindings.push({ local: nameOf(id), name: 'module.exports', request });
    return [request];
  }
  if (id.type !== 'ObjectPattern') return [];
  for (const property of nodesIn(id['properties'])) {
    const value = property['value'];
    const isPlain = property.type === 'Property' && !property['computed'] && isNode(value);
    if (!isPlain || value.type !== 'Identifier') return [];
    request.bindings.push({ local: nameOf(value), name: nameOf(property['key']), request });
  }
  return [request];
}

/** What `require('…')` asks for, or undefined for any other expression. */
export function requiredBy(node: unknown): string | undefined {
  if (!isNode(node) || node.type !== 'CallExpression') return undefined;
  const [specifier, ...more] = nodesIn(node['arguments']);
  const isRequire = nameOf(node['callee']) === 'require' && more.length === 0;
  return isRequire ? textOf(specifier) : undefined;
}
