import { requiredBy } from './requests';
import { isNode, nameOf, nodesIn, textOf, type Node } from '../../syntax/syntax';
import { Walk, type Place } from '../../syntax/walk';

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

/**
 * Finds every read of the names in `wanted`, which belong to the module scope, and every `import()`. Leaves
 * out types and names that are shadowed by another variable.
 */
export function findReferences(
  program: Node,
  wanted: ReadonlySet<string>,
  sloppy: boolean,
): { readonly references: readonly Reference[]; readonly loads: readonly Load[] } {
  return new Search(program, wanted, sloppy);
}

class Search extends Walk {
  readonly references: Reference[] = [];
  readonly loads: Load[] = [];
  #newHead: Node | undefined;
  #decorator: Node | undefined;

  constructor(
    program: Node,
    readonly wanted: ReadonlySet<string>,
    sloppy: boolean,
  ) {
    super(sloppy);
    this.start(program);
  }

  protected look(node: Node, place: Place): boolean {
    if (node.type === 'ImportExpression') this.#noteImport(node);
    if (node.type === 'ArrowFunctionExpression') this.#noteThunk(node);
    const look = node.type.startsWith('JSX') ? this.#visitElement : this.#looks[node.type];
    look?.call(this, node, place);
    return look !== undefined;
  }

  readonly #looks: Readonly<Record<string, (this: Search, node: Node, place: Place) => void>> = {
    Identifier(node, place) {
      this.#note(node, 'other', place);
      this.visitAll(node['decorators'], place);
    },
    MemberExpression: this.#visitMember,
    CallExpression(node, place) {
      this.#visitCall(node, 'callee', 'called', place);
    },
    TaggedTemplateExpression(node, place) {
      this.#visitCall(node, 'tag', 'called', place);
    },
    NewExpression(node, place) {
      this.#newHead = headOf(node['callee']);
      this.#visitCall(node, 'callee', 'made', place);
    },
    Decorator: this.#visitDecorator,
    Property: this.#visitProperty,
    ExportNamedDeclaration: this.#visitExport,
  };

  #note(node: Node, use: Use, place: Place, member?: string, isCalled = use === 'called'): void {
    const name = nameOf(node);
    if (!this.wanted.has(name) || place.scope.whereIs(name) !== this.module) return;
    const { start } = node;
    // The node of a name includes its type annotation. Only the name itself is meant.
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

  // The name of a member, property or label is not a variable, unless it is computed.
  #visitMember(node: Node, place: Place, isCalled = false): void {
    const object = node['object'] as Node;
    const member = node['computed'] ? undefined : nameOf(node['property']);
    if (object.type === 'Identifier') this.#note(object, 'looked into', place, member, isCalled);
    else this.visit(object, place);
    if (node['computed']) this.visit(node['property'], place);
  }

  #visitCall(node: Node, key: string, use: Use, place: Place): void {
    const callee = node[key] as Node;
    if (use === 'called') this.#noteRequire(node, place);
    if (callee.type === 'Identifier') this.#note(callee, use, place);
    else if (callee.type === 'MemberExpression') this.#visitMember(callee, place, use === 'called');
    else this.visit(callee, place);
    this.visitKeys(node, place, [key, 'typeArguments']);
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
    this.visit(node['expression'], place);
    this.#decorator = before;
  }

  #visitProperty(node: Node, place: Place): void {
    if (node['computed']) this.visit(node['key'], place);
    const value = node['value'] as Node;
    if (node['shorthand'] && value.type === 'Identifier') this.#note(value, 'short', place);
    else this.visit(value, place);
  }

  // `() => import('…')`, with or without further steps, names a module as long as it is not called.
  #noteThunk(node: Node): void {
    const { params, body } = node;
    const specifier = nodesIn(params).length === 0 ? textOf(importIn(body)?.['source']) : undefined;
    if (specifier !== undefined) this.loads.push({ specifier, node, kind: 'thunk' });
  }

  #visitExport(node: Node, place: Place): void {
    if (isNode(node['declaration'])) return this.visit(node['declaration'], place);
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
        return this.visitAll(node['attributes'], place);
      case 'JSXAttribute':
        return this.visit(node['value'], place);
      default:
        return this.visitKeys(node, place);
    }
  }

  #noteTag(tag: Node, place: Place): void {
    if (tag.type === 'JSXMemberExpression') {
      const object = tag['object'] as Node;
      if (object.type === 'JSXMemberExpression') this.#noteTag(object, place);
      else this.#note(object, 'element', place, nameOf(tag['property']));
    } else if (tag.type !== 'JSXNamespacedName' && !/^[a-z]|-/.test(nameOf(tag))) {
      // A lower-case name is an HTML element.
      this.#note(tag, 'element', place);
    }
  }

  // A decorated class may use parameter types as values.
  protected lookAtType(annotation: unknown, place: Place): void {
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
    case 'TSAsExpression':
    case 'TSSatisfiesExpression':
    case 'TSNonNullExpression':
    case 'TSTypeAssertion':
    case 'ParenthesizedExpression':
      return importIn(node['expression']);
    case 'AwaitExpression':
    case 'ReturnStatement':
      return importIn(node['argument']);
    case 'BlockStatement':
      return importIn(nodesIn(node['body'])[0]);
    default:
      return undefined;
  }
}
