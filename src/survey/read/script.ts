import { isNode, nameOf, nodesIn, type Node } from '../../syntax/syntax';
import type { Place } from '../../syntax/walk';
import type { Use } from '../facts';
import { readText, readTexts } from './addresses';
import { Calls } from './calls';
import { kindOfClass, readClass } from './classes';
import { findMade, kindOfValue } from './kinds';
import { isGlobalObject } from './leaves';
import type { Script } from './notes';
import { OpenUnit } from './unit';

/** Reads what each declaration of a file uses, in one walk. */
export class Reading extends Calls {
  constructor(script: Script) {
    super(script);
    if (script.isSetup) this.unit = this.component(script.stem);
    this.start(script.program);
    findMade(this.units);
    this.units.push(this.load);
    const exported = new Set(this.exports.map(({ local, specifier }) => (specifier ? undefined : local)));
    for (const unit of this.units) unit.isExported ||= exported.has(unit.name);
  }

  /** The component that a file of Vue is. */
  component(stem: string): OpenUnit {
    const local = this.exports.find(({ name }) => name === 'default')?.local ?? stem;
    const known = this.units.find(({ name }) => name === local);
    const unit = known ?? new OpenUnit(local, 1);
    if (!known) this.units.push(unit);
    unit.kind = 'component';
    unit.framework = 'vue';
    unit.isExported = true;
    return unit;
  }

  protected lookAtType(): void {
    // Types are nothing that a component leans on, except for what a constructor is given.
  }

  protected look(node: Node, place: Place): boolean {
    const isTop = place.depth === 0 && place.scope === this.module && !this.script.isSetup;
    if (isTop && this.#declare(node, place)) return true;
    if (!node.type.startsWith('JSX')) return this.#readNode(node, place);
    this.#readElement(node, place);
    return true;
  }

  #declare(node: Node, place: Place): boolean {
    switch (node.type) {
      case 'VariableDeclarator':
        this.#declareVariable(node, place);
        return true;
      case 'FunctionDeclaration':
      case 'ClassDeclaration':
        this.#within(nameOf(node['id']) || this.script.stem, node, () => this.#readBody(node, place));
        return true;
      case 'ExportDefaultDeclaration': {
        const declaration = node['declaration'] as Node;
        if (declaration.type === 'Identifier') return true;
        const name = nameOf(declaration['id']) || this.script.stem;
        this.#within(name, declaration, () => this.#readBody(declaration, place));
        return true;
      }
      case 'ExpressionStatement':
        return this.#readStatement(node, place);
      default:
        return false;
    }
  }

  #declareVariable(node: Node, place: Place): void {
    const init = node['init'];
    const id = node['id'] as Node;
    if (id.type === 'Identifier' && isNode(init)) {
      this.#within(nameOf(id), node, () => {
        const text = readText(init, (name) => this.meaningOf(name, place));
        if (text.some((part) => typeof part === 'string' || 'constant' in part)) this.unit.text = text;
        this.unit.texts = readTexts(init, (name) => this.meaningOf(name, place));
        this.#readBody(init, place);
      });
      return;
    }
    this.visitPattern(id, place);
    this.visit(init, place);
  }

  #within(name: string, node: Node, read: () => void): void {
    const before = this.unit;
    const unit = new OpenUnit(name, this.lineOf(node));
    this.unit = unit;
    read();
    this.unit = before;
    this.units.push(unit);
  }

  #readBody(node: Node, place: Place): void {
    const isClass = /^Class/.test(node.type);
    if (isClass) {
      readClass(this, node, this.members);
      for (const member of nodesIn((node['body'] as Node)['body']))
        if (member.type === 'PropertyDefinition' && isNode(member['value']))
          this.fields.set(nameOf(member['key']), member['value']);
    }
    if (/^(Function|Arrow)/.test(node.type)) this.readFunction(node, place);
    else if (isClass) this.visitClass(node, place);
    else this.visit(node, place);
    this.members.clear();
    this.fields.clear();
    if (isClass) kindOfClass(this, node);
    kindOfValue(this, node);
  }

  /** What is done by a statement at the top is done when the file is loaded. */
  #readStatement(node: Node, place: Place): boolean {
    const expression = node['expression'] as Node;
    const target = expression.type === 'AssignmentExpression' ? expression['left'] : undefined;
    const owner = isNode(target) && target.type === 'MemberExpression' ? nameOf(target['object']) : '';
    const unit = this.units.find(({ name }) => name === owner);
    // `Board.displayName = '…'` belongs to the board.
    if (unit) {
      const before = this.unit;
      this.unit = unit;
      this.visit(expression['right'], place);
      this.unit = before;
      return true;
    }
    if (expression.type === 'CallExpression')
      this.leaf({ kind: 'global', what: `calls ${this.textOf(expression['callee'])}()` }, node, place);
    if (owner && isGlobalObject(owner))
      this.leaf({ kind: 'global', what: `sets ${this.textOf(target)}` }, node, place);
    return false;
  }

  #readNode(node: Node, place: Place): boolean {
    switch (node.type) {
      case 'Identifier':
        this.note(node, 'read', place);
        return true;
      case 'MemberExpression':
        this.readMember(node, place);
        return true;
      case 'CallExpression':
        this.readCall(node, place);
        return true;
      case 'ArrowFunctionExpression':
      case 'FunctionExpression':
      case 'FunctionDeclaration':
        this.readFunction(node, place);
        return true;
      case 'Property':
        this.#readProperty(node, place);
        return true;
      case 'VariableDeclarator':
        this.readVariable(node, place);
        return true;
      case 'ExportNamedDeclaration':
        this.visit(node['declaration'], place);
        return true;
      case 'AssignmentExpression':
      case 'UpdateExpression':
        this.#readAssignment(node, place);
        return true;
      case 'NewExpression':
        this.readNew(node, place);
        return true;
      case 'TaggedTemplateExpression':
        this.readTagged(node, place);
        return true;
      case 'ImportExpression':
        this.readLazy(node);
        return true;
      case 'MethodDefinition':
      case 'PropertyDefinition':
        this.inMember(node, () => this.visitClassMember(node, place));
        return true;
      default:
        return false;
    }
  }

  #readProperty(node: Node, place: Place): void {
    if (node['computed']) this.visit(node['key'], place);
    this.inMember(node, () => this.visit(node['value'], place));
  }

  #readAssignment(node: Node, place: Place): void {
    const target = (node['left'] ?? node['argument']) as Node;
    if (target.type === 'Identifier' && place.depth > 0) {
      const name = nameOf(target);
      if (place.scope.whereIs(name) === this.module)
        this.leaf(
          { kind: 'global', what: `changes ${name}, which all users of the file share` },
          node,
          place,
        );
    }
    const owner = target.type === 'MemberExpression' ? nameOf(target['object']) : '';
    const isGlobal = isGlobalObject(owner) && !place.scope.whereIs(owner);
    const member = isGlobal ? nameOf(target['property']) : '';
    if (isGlobal && place.depth > 0)
      this.leaf(
        member === 'location'
          ? { kind: 'navigation', what: 'location' }
          : { kind: 'global', what: `sets ${owner}.${member}` },
        node,
        place,
      );
    else if (target.type === 'MemberExpression') this.visit(target, place);
    this.visit(node['right'], place);
  }

  #readElement(node: Node, place: Place): void {
    this.unit.hasElements = true;
    switch (node.type) {
      case 'JSXOpeningElement':
        this.#readTag(node['name'] as Node, nodesIn(node['attributes']), place);
        return this.visitAll(node['attributes'], place);
      case 'JSXClosingElement':
        return;
      case 'JSXAttribute':
        return this.visit(node['value'], place);
      default:
        return this.visitKeys(node, place);
    }
  }

  #readTag(tag: Node, attributes: readonly Node[], place: Place): void {
    const hasRef = attributes.some(({ name }) => nameOf(name) === 'ref');
    const more: Partial<Use> = hasRef ? { hasRef } : {};
    if (tag.type === 'JSXMemberExpression') {
      const object = tag['object'] as Node;
      if (object.type !== 'JSXMemberExpression')
        this.note(object, 'rendered', place, { ...more, member: nameOf(tag['property']) });
    } else if (tag.type !== 'JSXNamespacedName' && /^[^a-z-]/.test(nameOf(tag)))
      this.note(tag, 'rendered', place, more);
  }
}
