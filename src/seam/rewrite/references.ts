import { visitorKeys } from 'oxc-parser';
import { declareBlock, declareVars, namesInPattern, Scope, type Walking } from './scope';
import { requiredBy } from './requests';
import { isNode, nameOf, nodesIn, textOf, type Node } from './syntax';

/** What is done with a name where it stands. */
export type Use =
  | 'called'
  | 'made' // by `new`
  | 'element' // by JSX
  | 'looked into'
  | 'short' // a property of the same name
  | 'told' // by `export { name }`
  | 'typed' // only its type, which a decorator may have written down
  | 'other';

/** One place where a name of the module's own scope is read. */
export interface Reference {
  readonly name: string;
  readonly start: number;
  readonly end: number;
  readonly use: Use;
  /** True where it is read while the module is loaded, and so only once. */
  readonly atLoad: boolean;
  /** For what is looked into by a plain name: that name. */
  readonly member: string | undefined;
  /** True where what is looked up is called at once: the name itself, or the member of it. */
  readonly isCalled: boolean;
  /** For the head of a decorator: where the whole of it stands. */
  readonly decorator: Node | undefined;
}

/** One place that loads a module when it is reached. */
export interface Load {
  readonly specifier: string;
  readonly node: Node;
  readonly kind: 'import' | 'require' | 'thunk';
}

interface Place {
  readonly scope: Scope;
  /** How many functions are around. */
  readonly depth: number;
  /** True inside a class whose decorators may write types down. */
  readonly decorated: boolean;
}

const keysOf = visitorKeys as Readonly<Record<string, readonly string[]>>;

/**
 * Every place that reads one of `wanted`, names of the module's own scope, and every place that loads
 * a module. What is only there for types is left out; so is what another variable of the same name
 * stands before.
 */
export function findReferences(
  program: Node,
  wanted: ReadonlySet<string>,
  sloppy: boolean,
): { readonly references: readonly Reference[]; readonly loads: readonly Load[] } {
  return new Walk(program, wanted, sloppy);
}

class Walk {
  readonly references: Reference[] = [];
  readonly loads: Load[] = [];
  readonly #module = new Scope(undefined, true);
  readonly #walking: Walking;
  #newHead: Node | undefined;
  #decorator: Node | undefined;

  constructor(
    program: Node,
    readonly wanted: ReadonlySet<string>,
    sloppy: boolean,
  ) {
    this.#walking = { keysOf, sloppy };
    const body = nodesIn(program['body']);
    declareBlock(body, this.#module);
    declareVars(program, this.#module, this.#walking);
    const place = { scope: this.#module, depth: 0, decorated: false };
    for (const statement of body) this.#visit(statement, place);
  }

  #note(node: Node, use: Use, place: Place, member?: string, isCalled = use === 'called'): void {
    const name = nameOf(node);
    if (!this.wanted.has(name) || place.scope.whereIs(name) !== this.#module) return;
    const { start } = node;
    // A name with a type annotation reaches as far as the type does; only the name itself is meant.
    const end = start + name.length;
    const isHead = this.#decorator !== undefined && headOf(this.#decorator) === node;
    const decorator = isHead ? this.#decorator : undefined;
    const isMade = this.#newHead === node;
    const atLoad = place.depth === 0;
    this.references.push({
      name,
      start,
      end,
      use: isMade ? 'made' : use,
      atLoad,
      member,
      isCalled,
      decorator,
    });
  }

  #visitAll(nodes: unknown, place: Place): void {
    if (Array.isArray(nodes)) for (const node of nodes) this.#visit(node, place);
    else this.#visit(nodes, place);
  }

  #visitKeys(node: Node, place: Place, ...except: string[]): void {
    for (const key of keysOf[node.type] ?? []) if (!except.includes(key)) this.#visitAll(node[key], place);
  }

  #visit(node: unknown, place: Place): void {
    if (!isNode(node)) return;
    if (node['declare'] === true) return;
    if (node.type.startsWith('TS')) return this.#visitTyped(node, place);
    if (node.type.startsWith('JSX')) return this.#visitElement(node, place);
    switch (node.type) {
      case 'Identifier':
        this.#note(node, 'other', place);
        return this.#visitAll(node['decorators'], place);
      case 'MemberExpression':
        return this.#visitMember(node, place);
      case 'CallExpression':
      case 'TaggedTemplateExpression':
        return this.#visitCall(node, node['callee'] ? 'callee' : 'tag', 'called', place);
      case 'NewExpression':
        this.#newHead = headOf(node['callee'] as Node);
        return this.#visitCall(node, 'callee', 'made', place);
      case 'Decorator':
        return this.#visitDecorator(node, place);
      case 'Property':
        return this.#visitProperty(node, place);
      case 'MethodDefinition':
      case 'AccessorProperty':
      case 'PropertyDefinition':
        return this.#visitClassMember(node, place);
      case 'ImportExpression':
        this.#noteImport(node);
        return this.#visitKeys(node, place);
      case 'ArrowFunctionExpression':
        this.#noteThunk(node);
        return this.#visitFunction(node, place);
      case 'FunctionDeclaration':
      case 'FunctionExpression':
        return this.#visitFunction(node, place);
      case 'ClassDeclaration':
      case 'ClassExpression':
        return this.#visitClass(node, place);
      case 'ImportDeclaration':
      case 'ExportAllDeclaration':
      case 'MetaProperty':
      case 'BreakStatement':
      case 'ContinueStatement':
        return;
      case 'ExportNamedDeclaration':
        return this.#visitExport(node, place);
      case 'LabeledStatement':
        return this.#visit(node['body'], place);
      case 'AssignmentExpression':
        this.#visitPattern(node['left'], place);
        return this.#visit(node['right'], place);
      case 'UpdateExpression':
        return this.#visitPattern(node['argument'], place);
      case 'VariableDeclarator':
        this.#visitPattern(node['id'], place);
        return this.#visit(node['init'], place);
      default:
        return this.#visitBlock(node, place);
    }
  }

  #visitBlock(node: Node, place: Place): void {
    const isFor = /^For/.test(node.type);
    const makesScope = isFor || /^(BlockStatement|SwitchStatement|CatchClause|StaticBlock)$/.test(node.type);
    if (!makesScope) return this.#visitKeys(node, place);
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
    if (node.type === 'CatchClause') this.#visitPattern(node['param'], inside);
    if (node.type === 'SwitchStatement') this.#visit(node['discriminant'], place);
    const isTarget = isFor && isNode(node['left']) && !isHead(node['left']);
    if (isTarget) this.#visitPattern(node['left'], inside);
    this.#visitKeys(node, inside, 'param', 'discriminant', ...(isTarget ? ['left'] : []));
  }

  // The name a member, a property or an argument of its kind bears is no variable; a computed one is.
  #visitMember(node: Node, place: Place, isCalled = false): void {
    const object = node['object'] as Node;
    const member = node['computed'] ? undefined : nameOf(node['property']);
    if (object.type === 'Identifier') this.#note(object, 'looked into', place, member, isCalled);
    else this.#visit(object, place);
    if (node['computed']) this.#visit(node['property'], place);
  }

  #visitCall(node: Node, key: string, use: Use, place: Place): void {
    const callee = node[key] as Node;
    if (use === 'called') this.#noteRequire(node, place);
    if (callee.type === 'Identifier') this.#note(callee, use, place);
    else if (callee.type === 'MemberExpression') this.#visitMember(callee, place, use === 'called');
    else this.#visit(callee, place);
    this.#visitKeys(node, place, key, 'typeArguments');
  }

  #noteRequire(node: Node, place: Place): void {
    const specifier = requiredBy(node);
    if (specifier !== undefined && !place.scope.whereIs('require'))
      this.loads.push({ specifier, node, kind: 'require' });
  }

  #noteImport(node: Node): void {
    const specifier = textOf(node['source']);
    if (specifier !== undefined && !isNode(node['options']))
      this.loads.push({ specifier, node, kind: 'import' });
  }

  #visitDecorator(node: Node, place: Place): void {
    const before = this.#decorator;
    this.#decorator = node['expression'] as Node;
    this.#visit(node['expression'], place);
    this.#decorator = before;
  }

  #visitProperty(node: Node, place: Place): void {
    if (node['computed']) this.#visit(node['key'], place);
    const value = node['value'] as Node;
    if (node['shorthand'] && value.type === 'Identifier') this.#note(value, 'short', place);
    else this.#visit(value, place);
  }

  #visitClassMember(node: Node, place: Place): void {
    this.#visitAll(node['decorators'], place);
    if (node['computed']) this.#visit(node['key'], place);
    this.#noteTypes(node['typeAnnotation'], place);
    const isField = node.type !== 'MethodDefinition' && !node['static'];
    this.#visit(node['value'], isField ? { ...place, depth: place.depth + 1 } : place);
  }

  #visitFunction(node: Node, place: Place): void {
    const outer = new Scope(place.scope, true);
    if (node.type === 'FunctionExpression' && isNode(node['id'])) outer.declare(nameOf(node['id']));
    const scope = new Scope(outer, true);
    const params = nodesIn(node['params']);
    for (const param of params) namesInPattern(param, (name) => scope.declare(name));
    const inside = { ...place, scope, depth: place.depth + 1 };
    for (const param of params) {
      // A decorator of a parameter is asked while the class is made.
      this.#visitAll(param['decorators'], place);
      this.#visitPattern(param, inside);
    }
    const body = node['body'];
    if (!isNode(body)) return;
    if (body.type !== 'BlockStatement') return this.#visit(body, inside);
    const bodyScope = new Scope(scope, true);
    declareBlock(nodesIn(body['body']), bodyScope);
    declareVars(body, bodyScope, this.#walking);
    for (const statement of nodesIn(body['body'])) this.#visit(statement, { ...inside, scope: bodyScope });
  }

  // `() => import('…')`, whatever is done with the module then: a name for it, as long as it is not called.
  #noteThunk(node: Node): void {
    const { params, body } = node;
    const specifier = nodesIn(params).length === 0 ? textOf(importIn(body)?.['source']) : undefined;
    if (specifier !== undefined) this.loads.push({ specifier, node, kind: 'thunk' });
  }

  #visitClass(node: Node, place: Place): void {
    const scope = new Scope(place.scope, false);
    if (isNode(node['id'])) scope.declare(nameOf(node['id']));
    const members = nodesIn((node['body'] as Node)['body']);
    const decorated =
      nodesIn(node['decorators']).length > 0 ||
      members.some((member) => nodesIn(member['decorators']).length > 0);
    this.#visitAll(node['decorators'], place);
    const inside = { ...place, scope, decorated };
    this.#visit(node['superClass'], inside);
    for (const member of members) this.#visit(member, inside);
  }

  /** The defaults and computed keys of a pattern; the names in it are new ones. */
  #visitPattern(pattern: unknown, place: Place): void {
    if (!isNode(pattern)) return;
    this.#noteTypes(pattern['typeAnnotation'], place);
    switch (pattern.type) {
      case 'ObjectPattern':
        for (const property of nodesIn(pattern['properties'])) {
          if (property['computed']) this.#visit(property['key'], place);
          this.#visitPattern(property['value'] ?? property['argument'], place);
        }
        return;
      case 'ArrayPattern':
        return nodesIn(pattern['elements']).forEach((element) => this.#visitPattern(element, place));
      case 'AssignmentPattern':
        this.#visitPattern(pattern['left'], place);
        return this.#visit(pattern['right'], place);
      case 'RestElement':
        return this.#visitPattern(pattern['argument'], place);
      case 'TSParameterProperty':
        return this.#visitPattern(pattern['parameter'], place);
      case 'MemberExpression':
        return this.#visit(pattern, place);
    }
  }

  #visitExport(node: Node, place: Place): void {
    if (isNode(node['declaration'])) return this.#visit(node['declaration'], place);
    if (isNode(node['source']) || node['exportKind'] === 'type') return;
    for (const specifier of nodesIn(node['specifiers'])) {
      if (specifier['exportKind'] !== 'type' && isNode(specifier['local']))
        this.#note(specifier['local'], 'told', place);
    }
  }

  #visitElement(node: Node, place: Place): void {
    switch (node.type) {
      case 'JSXOpeningElement':
      case 'JSXClosingElement':
        this.#noteTag(node['name'] as Node, place);
        return this.#visitAll(node['attributes'], place);
      case 'JSXAttribute':
        return this.#visit(node['value'], place);
      default:
        return this.#visitKeys(node, place);
    }
  }

  #noteTag(tag: Node, place: Place): void {
    if (tag.type === 'JSXMemberExpression') {
      const object = tag['object'] as Node;
      if (object.type === 'JSXMemberExpression') this.#noteTag(object, place);
      else this.#note(object, 'element', place, nameOf(tag['property']));
    } else if (tag.type !== 'JSXNamespacedName' && !/^[a-z]|-/.test(nameOf(tag))) {
      // What begins with a small letter is an element of the page itself.
      this.#note(tag, 'element', place);
    }
  }

  // What is left of a type when the program runs: nothing, but for these.
  #visitTyped(node: Node, place: Place): void {
    switch (node.type) {
      case 'TSAsExpression':
      case 'TSSatisfiesExpression':
      case 'TSNonNullExpression':
      case 'TSTypeAssertion':
      case 'TSInstantiationExpression':
      case 'TSExportAssignment':
        return this.#visit(node['expression'], place);
      case 'TSEnumDeclaration':
        return this.#visitEnum(node, place);
      case 'TSModuleDeclaration':
        return this.#visit(node['body'], place);
      case 'TSModuleBlock': {
        const scope = new Scope(place.scope, true);
        declareBlock(nodesIn(node['body']), scope);
        for (const one of nodesIn(node['body'])) declareVars(one, scope, this.#walking);
        return this.#visitKeys(node, { ...place, scope });
      }
    }
  }

  #visitEnum(node: Node, place: Place): void {
    const body = isNode(node['body']) ? node['body'] : node;
    const scope = new Scope(place.scope, false);
    for (const { id } of nodesIn(body['members'])) scope.declare(nameOf(id));
    for (const member of nodesIn(body['members'])) this.#visit(member['initializer'], { ...place, scope });
  }

  // A decorated class may write down the types of what it is handed, as values.
  #noteTypes(annotation: unknown, place: Place): void {
    if (!place.decorated || !isNode(annotation)) return;
    const type = annotation['typeAnnotation'];
    if (!isNode(type) || type.type !== 'TSTypeReference') return;
    const name = type['typeName'] as Node;
    if (name.type === 'Identifier') this.#note(name, 'typed', { ...place, depth: 0 });
  }
}

/** The name an expression such as `a.b.c(d)` begins with. */
function headOf(node: unknown): Node | undefined {
  if (!isNode(node)) return undefined;
  if (node.type === 'MemberExpression') return headOf(node['object']);
  if (node.type === 'CallExpression') return headOf(node['callee']);
  return node.type === 'Identifier' ? node : undefined;
}

/** The `import('…')` an expression begins with. */
function importIn(node: unknown): Node | undefined {
  if (!isNode(node)) return undefined;
  switch (node.type) {
    case 'ImportExpression':
      return node;
    case 'MemberExpression':
      return importIn(node['object']);
    case 'CallExpression':
      return importIn(node['callee']);
    case 'AwaitExpression':
      return importIn(node['argument']);
    default:
      return undefined;
  }
}
