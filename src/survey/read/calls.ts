import { nameOf, nodesIn, textOf, type Node } from '../../syntax/syntax';
import type { Place } from '../../syntax/walk';
import type { How, Use } from '../facts';
import { looksLikeAddress, readText } from './addresses';
import { calledGlobal, isGlobalObject, madeGlobal, memberOfGlobal, methodOfElement } from './leaves';
import { Notes } from './notes';
import { memberTaken, thenOf, valueOf } from './shapes';
import { readMacro, slotIn } from './vue';

const verbs =
  /^(get|post|put|patch|delete|head|options|request|fetch|\$?(get|post|put|patch|delete|head)Json)$/;

/** Reads calls: what they ask for, inject, render, load, and which global functions they are of. */
export abstract class Calls extends Notes {
  protected readMember(node: Node, place: Place, how: How = 'read', more: Partial<Use> = {}): void {
    const object = node['object'] as Node;
    const member = node['computed'] ? undefined : nameOf(node['property']);
    const slot = this.framework === 'vue' ? slotIn(node) : undefined;
    if (slot !== undefined) this.unit.add('slots', slot);
    if (object.type === 'Identifier') {
      const name = nameOf(object);
      if (!place.scope.whereIs(name)) this.leaf(memberOfGlobal(name, member), node, place);
      else this.note(object, how, place, { ...(member && { member }), ...more });
    } else if (object.type === 'MemberExpression' && isGlobalObject(nameOf(object['object'])))
      this.leaf(memberOfGlobal(nameOf(object['property']), member), node, place);
    else if (slot === undefined) this.visit(object, place);
    if (object.type === 'ThisExpression' && member) this.readOwnMember(member, node, place, more);
    if (node['computed']) this.visit(node['property'], place);
  }

  protected readOwnMember(member: string, node: Node, place: Place, more: Partial<Use>): void {
    const name = this.members.get(member);
    if (name && more.addresses) this.unit.use(name, 'called', this.lineOf(node), more);
    if (/^\$(router|route|store|t)$/.test(member))
      this.leaf({ kind: member === '$store' ? 'global' : 'navigation', what: member }, node, place);
  }

  /** Imports that were read with what is taken of them. */
  readonly #lazy = new Set<Node>();

  protected readCall(node: Node, place: Place): void {
    const callee = node['callee'] as Node;
    const args = nodesIn(node['arguments']);
    if (thenOf(callee)) this.readLazy(node);
    if (callee.type === 'Identifier') this.readNamedCall(callee, args, node, place);
    else if (callee.type === 'MemberExpression') this.readMemberCall(callee, args, node, place);
    else this.visit(callee, place);
    this.visitAll(node['arguments'], place);
  }

  protected readNamedCall(callee: Node, args: readonly Node[], node: Node, place: Place): void {
    const name = nameOf(callee);
    if (!place.scope.whereIs(name)) {
      const found = calledGlobal(name);
      if (found?.kind === 'request') this.request(name, args, node, place);
      else if (/^(define[A-Z]\w+|withDefaults)$/.test(name)) readMacro(this.unit, node);
      else this.leaf(found, node, place);
      return;
    }
    const from = this.imported.get(name);
    if (from && this.readFrameworkCall(from.name, args, node, place)) return;
    this.note(callee, 'called', place, this.addressesIn(args, place));
  }

  /** What calls of a framework's own functions mean. @returns true where that is all there is to say */
  protected readFrameworkCall(name: string, args: readonly Node[], node: Node, place: Place): boolean {
    const [first] = args;
    const isNamed = first?.type === 'Identifier';
    if (/^(inject|useContext|use)$/.test(name)) {
      const key = textOf(first);
      if (isNamed) this.note(first, 'injected', place);
      else if (key !== undefined) this.unit.use(`'${key}'`, 'injected', this.lineOf(node));
      return true;
    }
    if (name === 'provide' && isNamed) this.note(first, 'provided', place);
    if (/^(createElement|h|jsx|jsxs)$/.test(name)) {
      this.unit.hasElements = true;
      if (isNamed) this.note(first, 'rendered', place);
    }
    if (/^(gql|graphql)$/.test(name) && first) {
      const address = readText(first, (one) => this.meaningOf(one, place));
      this.unit.leaves.push({ kind: 'request', what: name, line: this.lineOf(node), address });
    }
    if (name === 'httpResource') this.request(name, args, node, place);
    return false;
  }

  protected request(name: string, args: readonly Node[], node: Node, place: Place): void {
    const [first, options] = args;
    const said = [options, first].filter((one) => one?.type === 'ObjectExpression');
    const method = said.map((one) => textOf(valueOf(one, 'method'))).find(Boolean);
    const address = this.addressOf(first, place);
    this.leaf(
      {
        ...{ kind: 'request', what: name, method: (method ?? 'GET').toUpperCase() },
        ...(address && { address }),
      },
      node,
      place,
    );
  }

  protected readMemberCall(callee: Node, args: readonly Node[], node: Node, place: Place): void {
    const method = callee['computed'] ? '' : nameOf(callee['property']);
    const object = callee['object'] as Node;
    if (isGlobalObject(nameOf(object)) && !place.scope.whereIs(nameOf(object))) {
      const found = calledGlobal(method);
      if (found?.kind === 'request') this.request(method, args, node, place);
      else this.leaf(found ?? memberOfGlobal('window', method), node, place);
      return;
    }
    // `React.useContext(…)`
    const whole = place.scope.whereIs(nameOf(object)) === this.module && this.imported.get(nameOf(object));
    const isFramework = whole && /^(\*|default)$/.test(whole.name) && /^(react|vue)$/.test(whole.specifier);
    if (isFramework && this.readFrameworkCall(method, args, node, place)) return;
    this.leaf(methodOfElement(method), node, place);
    if (method === 'open') this.readOpening(object, args, node, place);
    if (verbs.test(method)) this.readClient(object, method, args, node, place);
    this.readMember(callee, place, 'called', this.addressesIn(args, place));
  }

  // `request.open('PUT', url)` of an XMLHttpRequest says what is asked for.
  protected readOpening(object: Node, args: readonly Node[], node: Node, place: Place): void {
    const method = textOf(args[0]);
    const made = this.unit.leaves.findIndex(({ what, address }) => what === 'XMLHttpRequest' && !address);
    if (made < 0 || !method || object.type !== 'Identifier') return;
    this.unit.leaves.splice(made, 1);
    const address = this.addressOf(args[1], place);
    const leaf = { kind: 'request', what: 'XMLHttpRequest', method: method.toUpperCase() } as const;
    this.leaf({ ...leaf, ...(address && { address }) }, node, place);
  }

  // `api.get('/hives')` is a request if `api` turns out to be something that asks the network.
  protected readClient(object: Node, method: string, args: readonly Node[], node: Node, place: Place): void {
    const address = this.addressOf(args[0], place);
    if (!address || !looksLikeAddress(address)) return;
    const name = this.ownerOf(object, place);
    if (!name) return;
    const written = method.replace(/^\$|Json$/g, '').toUpperCase();
    const said = textOf(valueOf(args[1], 'method'))?.toUpperCase();
    const asked = /^(REQUEST|FETCH)$/.test(written) ? (said ?? 'GET') : written;
    this.leaf({ kind: 'request', what: method, method: asked, address, client: name }, node, place);
  }

  protected readNew(node: Node, place: Place): void {
    const callee = node['callee'] as Node;
    const args = nodesIn(node['arguments']);
    const name = nameOf(callee);
    if (callee.type === 'Identifier' && !place.scope.whereIs(name)) {
      const found = madeGlobal(name, args.length);
      const address = /socket|stream/.test(found?.kind ?? '') ? this.addressOf(args[0], place) : undefined;
      this.leaf(found && { ...found, ...(address && { address }) }, node, place);
    } else if (callee.type === 'Identifier') this.note(callee, 'made', place, this.addressesIn(args, place));
    else this.visit(callee, place);
    this.visitAll(node['arguments'], place);
  }

  // Documents of GraphQL are written as tagged templates.
  protected readTagged(node: Node, place: Place): void {
    const tag = node['tag'] as Node;
    if (/^(gql|graphql)$/.test(nameOf(tag))) {
      const address = [this.script.code.slice(node.start, node.end)];
      this.unit.leaves.push({ kind: 'request', what: nameOf(tag), line: this.lineOf(node), address });
    }
    if (tag.type === 'Identifier') this.note(tag, 'called', place);
    else this.visit(tag, place);
    this.visit(node['quasi'], place);
  }

  /** `import('…')`, and which export is taken of it: `import('…').then(({ Board }) => Board)`. */
  protected readLazy(node: Node): void {
    const loading = node.type === 'ImportExpression' ? node : thenOf(node['callee'] as Node);
    const specifier = textOf(loading?.['source']);
    if (!loading || specifier === undefined || this.#lazy.has(loading)) return;
    this.#lazy.add(loading);
    const name = (node === loading ? undefined : memberTaken(nodesIn(node['arguments'])[0])) ?? 'default';
    const local = `import(${specifier})${name === 'default' ? '' : `.${name}`}`;
    const line = this.lineOf(node);
    if (!this.imports.some(({ names }) => names[0]?.local === local))
      this.imports.push({ specifier, line, names: [{ local, name }], isLazy: true });
    this.unit.use(local, 'rendered', line, { isLazy: true });
  }
}
