import { isNode, nameOf, nodesIn, type Node } from './syntax';

/** Names that are declared somewhere, and what lies around them. */
export class Scope {
  // Most blocks declare nothing.
  #names: Set<string> | undefined;

  constructor(
    readonly parent: Scope | undefined,
    /** True where a `var` stops: a function, a module, a static block, a namespace. */
    readonly holdsVars: boolean,
  ) {}

  declare(name: string): void {
    (this.#names ??= new Set()).add(name);
  }

  declareVar(name: string): void {
    if (this.holdsVars || !this.parent) this.declare(name);
    else this.parent.declareVar(name);
  }

  /** The scope that declares a name, or undefined for one that is declared nowhere. */
  whereIs(name: string): Scope | undefined {
    if (this.#names?.has(name)) return this;
    return this.parent?.whereIs(name);
  }
}

/** Calls `found` with the name of every variable a pattern makes. */
export function namesInPattern(pattern: unknown, found: (name: string) => void): void {
  if (!isNode(pattern)) return;
  switch (pattern.type) {
    case 'Identifier':
      return found(nameOf(pattern));
    case 'ObjectPattern':
      return nodesIn(pattern['properties']).forEach((property) =>
        namesInPattern(property['value'] ?? property['argument'], found),
      );
    case 'ArrayPattern':
      return nodesIn(pattern['elements']).forEach((element) => namesInPattern(element, found));
    case 'AssignmentPattern':
      return namesInPattern(pattern['left'], found);
    case 'RestElement':
      return namesInPattern(pattern['argument'], found);
    case 'TSParameterProperty':
      return namesInPattern(pattern['parameter'], found);
  }
}

/**
 * Declares the names of a block before its statements are visited, because a name is in scope from the start
 * of its block. The walk finds `var` declarations, which may be nested.
 */
export function declareBlock(statements: readonly Node[], scope: Scope): void {
  for (const statement of statements) declareStatement(statement, scope);
}

function declareStatement(statement: Node, scope: Scope): void {
  const declaration = statement['declaration'];
  switch (statement.type) {
    case 'ExportNamedDeclaration':
    case 'ExportDefaultDeclaration':
      if (isNode(declaration)) declareStatement(declaration, scope);
      return;
    case 'LabeledStatement':
      if (isNode(statement['body'])) declareStatement(statement['body'], scope);
      return;
    case 'VariableDeclaration':
      if (statement['kind'] === 'var') return;
      for (const { id } of nodesIn(statement['declarations']))
        namesInPattern(id, (name) => scope.declare(name));
      return;
    case 'FunctionDeclaration':
    case 'TSDeclareFunction':
      scope.declare(nameOf(statement['id']));
      return;
    case 'ClassDeclaration':
    case 'TSEnumDeclaration':
    case 'TSModuleDeclaration':
    case 'TSImportEqualsDeclaration':
      scope.declare(nameOf(statement['id']));
      return;
    case 'ImportDeclaration':
      for (const { local } of nodesIn(statement['specifiers'])) scope.declare(nameOf(local));
  }
}

/** Declares every `var` below a node, as far as the function that holds it reaches. */
export function declareVars(node: Node, scope: Scope, walk: Walking): void {
  if (!walk.hasVars) return;
  if (node.type === 'VariableDeclaration' && node['kind'] === 'var') {
    for (const { id } of nodesIn(node['declarations'])) namesInPattern(id, (name) => scope.declareVar(name));
  }
  // In sloppy mode a function in a block is also a variable of the enclosing function.
  if (walk.sloppy && node.type === 'FunctionDeclaration') scope.declareVar(nameOf(node['id']));
  if (!holdsStatements(node.type)) return;
  for (const key of walk.keysOf[node.type] ?? []) {
    const child = node[key];
    if (Array.isArray(child)) child.forEach((one) => isNode(one) && declareVars(one, scope, walk));
    else if (isNode(child)) declareVars(child, scope, walk);
  }
}

export interface Walking {
  /** Where a node of each type has others. */
  readonly keysOf: Readonly<Record<string, readonly string[]>>;
  /** True for a file that is no standard module. */
  readonly sloppy: boolean;
  readonly hasVars: boolean;
}

// Only statements are searched. Functions, classes and expressions have their own scope.
const mayHoldVars =
  /^(?!Expression|TS)\w*Statement$|^(Program|SwitchCase|CatchClause|ExportNamedDeclaration)$/;
const knownTypes = new Map<string, boolean>();

function holdsStatements(type: string): boolean {
  let holds = knownTypes.get(type);
  if (holds === undefined) knownTypes.set(type, (holds = mayHoldVars.test(type)));
  return holds;
}
