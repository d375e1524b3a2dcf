import { isNode, nameOf, nodesIn, textOf, type Node } from '../../syntax/syntax';
import type { Export, Import } from '../facts';
import { importsByName, type Imported } from './unit';

interface Module {
  readonly imports: Import[];
  readonly exports: Export[];
  readonly imported: ReadonlyMap<string, Imported>;
}

/** Reads what a file imports and exports, without types. */
export function readModule(program: Node, lineAt: (offset: number) => number, stem: string): Module {
  const imports: Import[] = [];
  const exports: Export[] = [];
  for (const statement of nodesIn(program['body'])) {
    if (statement.type === 'ImportDeclaration') readImport(statement, lineAt, imports);
    if (statement.type === 'ExportAllDeclaration') readAll(statement, exports);
    if (statement.type === 'ExportNamedDeclaration') readNamed(statement, exports);
    if (statement.type === 'ExportDefaultDeclaration') {
      const declaration = statement['declaration'] as Node;
      const local =
        declaration.type === 'Identifier' ? nameOf(declaration) : nameOf(declaration['id']) || stem;
      exports.push({ name: 'default', local });
    }
  }
  // What is handed on is loaded as well.
  for (const statement of nodesIn(program['body'])) {
    const specifier = statement.type.startsWith('Export') ? textOf(statement['source']) : undefined;
    if (specifier !== undefined && statement['exportKind'] !== 'type')
      imports.push({ specifier, line: lineAt(statement.start), names: [] });
  }
  return { imports, exports, imported: importsByName(imports) };
}

function readImport(statement: Node, lineAt: (offset: number) => number, imports: Import[]): void {
  const specifier = textOf(statement['source']);
  if (specifier === undefined || statement['importKind'] === 'type') return;
  const written = nodesIn(statement['specifiers']);
  const names = written
    .filter((one) => one['importKind'] !== 'type')
    .map((one) => ({ local: nameOf(one['local']), name: importedName(one) }));
  // What is imported for its types alone is not loaded.
  if (written.length > 0 && names.length === 0) return;
  imports.push({ specifier, line: lineAt(statement.start), names });
}

function importedName(node: Node): string {
  if (node.type === 'ImportDefaultSpecifier') return 'default';
  return node.type === 'ImportNamespaceSpecifier' ? '*' : nameOf(node['imported']);
}

function readAll(statement: Node, exports: Export[]): void {
  const specifier = textOf(statement['source']);
  if (specifier === undefined || statement['exportKind'] === 'type') return;
  const name = isNode(statement['exported']) ? nameOf(statement['exported']) : '*';
  exports.push({ name, specifier, ...(name !== '*' && { local: '*' }) });
}

function readNamed(statement: Node, exports: Export[]): void {
  if (statement['exportKind'] === 'type') return;
  const specifier = textOf(statement['source']);
  for (const one of nodesIn(statement['specifiers'])) {
    if (one['exportKind'] === 'type') continue;
    const from = specifier === undefined ? {} : { specifier };
    exports.push({ name: nameOf(one['exported']), local: nameOf(one['local']), ...from });
  }
  const declaration = statement['declaration'];
  if (!isNode(declaration)) return;
  const ids =
    declaration.type === 'VariableDeclaration' ? nodesIn(declaration['declarations']) : [declaration];
  for (const { id } of ids) {
    for (const name of namesOf(id)) exports.push({ name, local: name });
  }
}

function namesOf(pattern: unknown): string[] {
  if (!isNode(pattern)) return [];
  if (pattern.type === 'ObjectPattern')
    return nodesIn(pattern['properties']).flatMap((one) => namesOf(one['value'] ?? one['argument']));
  if (pattern.type === 'ArrayPattern') return nodesIn(pattern['elements']).flatMap(namesOf);
  return [nameOf(pattern)].filter(Boolean);
}
