import { readParser } from './parser';
import { declareBlock, declareVars, namesInPattern, Scope, type Walking } from './scope';
import { isNode, nameOf, nodesIn, type Node } from './syntax';

/** Where a walk has come to. */
export interface Place {
  readonly scope: Scope;
  /** How many functions are around. */
  readonly depth: number;
  /** True inside a class whose decorators may write types down. */
  readonly decorated: boolean;
}

/** What has names of its own, beside functions and classes. */
const scoped = new Set([
  ...['SwitchStatement', 'CatchClause', 'StaticBlock'],
  ...['ForStatement', 'ForInStatement', 'ForOfStatement'],
]);

let keys: Readonly<Record<string, readonly string[]>> | undefined;
/** The members of each kind of node, as the parser knows them. */
const readKeys = () => (keys ??= readParser().visitorKeys as Readonly<Record<string, readonly string[]>>);

/**
 * Walks the syntax tree and tracks which names are in scope at each node. Skips what exists only for types.
 * Subclasses decide what to look for.
 */
export abstract class Walk {
  protected readonly module = new Scope(undefined, true);
  readonly #walking: Walking;

  /** @param hasVars false where no `var` is written anywhere, which then need not be searched for */
  constructor(sloppy: boolean, hasVars = true) {
    this.#walking = { keysOf: readKeys(), sloppy, hasVars: sloppy || hasVars };
  }

  protected start(program: Node): void {
    const body = nodesIn(program['body']);
    declareBlock(body, this.module);
    declareVars(program, this.module, this.#walking);
    const place = { scope: this.module, depth: 0, decorated: false };
    for (const statement of body) this.visit(statement, place);
  }

  /** Looks at a node first. @returns true for one that was gone through, so that the walk passes by. */
  protected abstract look(node: Node, place: Place): boolean;

  /** Called for every type annotation that a decorated class may keep. */
  protected abstract lookAtType(annotation: unknown, place: Place): void;

  protected visitAll(nodes: unknown, place: Place): void {
    if (Array.isArray(nodes)) for (const node of nodes) this.visit(node, place);
    else this.visit(nodes, place);
  }

  protected visitKeys(node: Node, place: Place, except?: readonly string[]): void {
    const keys = this.#walking.keysOf[node.type];
    if (!keys) return;
    for (const key of keys) {
      const value = node[key];
      // Most members of most nodes are none.
      if (typeof value === 'object' && value !== null && !except?.includes(key)) this.visitAll(value, place);
    }
  }

  protected visit(node: unknown, place: Place): void {
    if (!isNode(node)) return;
    if (node['declare'] === true || this.look(node, place)) return;
    const { type } = node;
    if (type.startsWith('TS')) return this.visitTyped(node, place);
    switch (type) {
      case 'MethodDefinition':
      case 'AccessorProperty':
      case 'PropertyDefinition':
        return this.visitClassMember(node, place);
      case 'ArrowFunctionExpression':
      case 'FunctionDeclaration':
      case 'FunctionExpression':
        return this.visitFunction(node, place);
      case 'ClassDeclaration':
      case 'ClassExpression':
        return this.visitClass(node, place);
      case 'ImportDeclaration':
      case 'ExportAllDeclaration':
      case 'MetaProperty':
      case 'BreakStatement':
      case 'ContinueStatement':
        return;
      case 'ExportNamedDeclaration':
        return this.visit(node['declaration'], place);
      case 'LabeledStatement':
        return this.visit(node['body'], place);
      case 'AssignmentExpression':
        this.visitPattern(node['left'], place);
        return this.visit(node['right'], place);
      case 'UpdateExpression':
        return this.visitPattern(node['argument'], place);
      case 'VariableDeclarator':
        this.visitPattern(node['id'], place);
        return this.visit(node['init'], place);
      default:
        return this.visitBlock(node, place);
    }
  }

  protected visitBlock(node: Node, place: Place): void {
    if (node.type === 'BlockStatement') {
      const scope = new Scope(place.scope, false);
      const statements = nodesIn(node['body']);
      declareBlock(statements, scope);
      return this.visitAll(statements, { ...place, scope });
    }
    if (!scoped.has(node.type)) return this.visitKeys(node, place);
    const isFor = node.type.startsWith('For');
    const scope = new Scope(place.scope, node.type === 'StaticBlock');
    const inside = { ...place, scope };
    const isHead = (head: unknown): head is Node => isNode(head) && head.type === 'VariableDeclaration';
    const heads = isFor ? [node['init'], node['left']].filter(isHead) : [];
    declareBlock(heads, scope);
    if (node.type === 'CatchClause') namesInPattern(node['param'], (name) => scope.declare(name));
    if (node.type === 'StaticBlock')
      for (const one of nodesIn(node['body'])) declareVars(one, scope, this.#walking);
    const statements =
      node.type === 'SwitchStatement'
        ? nodesIn(node['cases']).flatMap((one) => nodesIn(one['consequent']))
        : nodesIn(node['body']);
    declareBlock(statements, scope);
    if (node.type === 'CatchClause') this.visitPattern(node['param'], inside);
    if (node.type === 'SwitchStatement') this.visit(node['discriminant'], place);
    const isTarget = isFor && isNode(node['left']) && !isHead(node['left']);
    if (isTarget) this.visitPattern(node['left'], inside);
    this.visitKeys(node, inside, isTarget ? ['param', 'discriminant', 'left'] : ['param', 'discriminant']);
  }

  protected visitClassMember(node: Node, place: Place): void {
    this.visitAll(node['decorators'], place);
    if (node['computed']) this.visit(node['key'], place);
    this.lookAtType(node['typeAnnotation'], place);
    const isField = node.type !== 'MethodDefinition' && !node['static'];
    this.visit(node['value'], isField ? { ...place, depth: place.depth + 1 } : place);
  }

  protected visitFunction(node: Node, place: Place): void {
    let around = place.scope;
    if (node.type === 'FunctionExpression' && isNode(node['id'])) {
      around = new Scope(around, true);
      around.declare(nameOf(node['id']));
    }
    const scope = new Scope(around, true);
    const params = nodesIn(node['params']);
    for (const param of params) namesInPattern(param, (name) => scope.declare(name));
    const inside = { ...place, scope, depth: place.depth + 1 };
    for (const param of params) {
      // A parameter decorator is evaluated when the class is defined.
      this.visitAll(param['decorators'], place);
      this.visitPattern(param, inside);
    }
    const body = node['body'];
    if (!isNode(body)) return;
    if (body.type !== 'BlockStatement') return this.visit(body, inside);
    const bodyScope = new Scope(scope, true);
    const statements = nodesIn(body['body']);
    declareBlock(statements, bodyScope);
    declareVars(body, bodyScope, this.#walking);
    this.visitAll(statements, { ...inside, scope: bodyScope });
  }

  protected visitClass(node: Node, place: Place): void {
    const scope = new Scope(place.scope, false);
    if (isNode(node['id'])) scope.declare(nameOf(node['id']));
    const members = nodesIn((node['body'] as Node)['body']);
    const decorated =
      nodesIn(node['decorators']).length > 0 ||
      members.some((member) => nodesIn(member['decorators']).length > 0);
    this.visitAll(node['decorators'], place);
    const inside = { ...place, scope, decorated };
    this.visit(node['superClass'], inside);
    for (const member of members) this.visit(member, inside);
  }

  /** The defaults and computed keys of a pattern; the names in it are new ones. */

  protected visitPattern(pattern: unknown, place: Place): void {
    if (!isNode(pattern)) return;
    this.lookAtType(pattern['typeAnnotation'], place);
    switch (pattern.type) {
      case 'ObjectPattern':
        for (const property of nodesIn(pattern['properties'])) {
          if (property['computed']) this.visit(property['key'], place);
          this.visitPattern(property['value'] ?? property['argument'], place);
        }
        return;
      case 'ArrayPattern':
        return nodesIn(pattern['elements']).forEach((element) => this.visitPattern(element, place));
      case 'AssignmentPattern':
        this.visitPattern(pattern['left'], place);
        return this.visit(pattern['right'], place);
      case 'RestElement':
        return this.visitPattern(pattern['argument'], place);
      case 'TSParameterProperty':
        return this.visitPattern(pattern['parameter'], place);
      case 'MemberExpression':
        return this.visit(pattern, place);
    }
  }

  // The only type syntax that exists at run time.
  protected visitTyped(node: Node, place: Place): void {
    switch (node.type) {
      case 'TSAsExpression':
      case 'TSSatisfiesExpression':
      case 'TSNonNullExpression':
      case 'TSTypeAssertion':
      case 'TSInstantiationExpression':
      case 'TSExportAssignment':
        return this.visit(node['expression'], place);
      case 'TSEnumDeclaration':
        return this.visitEnum(node, place);
      case 'TSModuleDeclaration':
        return this.visit(node['body'], place);
      case 'TSModuleBlock': {
        const scope = new Scope(place.scope, true);
        declareBlock(nodesIn(node['body']), scope);
        for (const one of nodesIn(node['body'])) declareVars(one, scope, this.#walking);
        return this.visitKeys(node, { ...place, scope });
      }
    }
  }

  protected visitEnum(node: Node, place: Place): void {
    const body = isNode(node['body']) ? node['body'] : node;
    const scope = new Scope(place.scope, false);
    for (const { id } of nodesIn(body['members'])) scope.declare(nameOf(id));
    for (const member of nodesIn(body['members'])) this.visit(member['initializer'], { ...place, scope });
  }
}
