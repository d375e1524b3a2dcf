import { isNode, nameOf, nodesIn, textOf, type Node } from '../../syntax/syntax';
import type { Framework, UnitKind } from '../facts';
import { readAngularTemplate } from './angular';
import type { OpenUnit } from './unit';

/** What reading a class needs of the walk around it. */
interface Around {
  readonly unit: OpenUnit;
  readonly framework: Framework;
  lineOf(node: Node): number;
}

const decorated: Readonly<Record<string, UnitKind>> = {
  Component: 'component',
  Directive: 'directive',
  Pipe: 'pipe',
  Injectable: 'service',
  NgModule: 'module',
};

/** Reads the head of a class: what its decorator says, what its constructor is given, what its members are. */
export function readClass(around: Around, node: Node, members: Map<string, string>): void {
  const { unit } = around;
  unit.kind = 'class';
  for (const decorator of nodesIn(node['decorators'])) readDecorator(around, decorator['expression'] as Node);
  for (const member of nodesIn((node['body'] as Node)['body'])) readMember(around, member, members);
}

/** Decides on a class once its inside was read: one that renders elements is a component, whatever it derives from. */
export function kindOfClass({ unit, framework }: Around, node: Node): void {
  const base = node['superClass'];
  // What has no `render` of its own is what components are derived from.
  if (unit.kind !== 'class' || framework !== 'react' || !isNode(base) || !rendersItself(node)) return;
  const name = nameOf(base.type === 'MemberExpression' ? base['property'] : base);
  if (!unit.hasElements && !/Component$/.test(name)) return;
  unit.kind = 'component';
  unit.framework = 'react';
}

const rendersItself = (node: Node): boolean =>
  nodesIn((node['body'] as Node)['body']).some(
    ({ key, value }) => nameOf(key) === 'render' && isNode(value) && isNode(value['body']),
  );

/** `Component` of `@Component({ … })`, `Input` of `@Input`. */
const nameOfDecorator = (call: Node): string =>
  nameOf(call.type === 'CallExpression' ? call['callee'] : call);

function readDecorator({ unit, lineOf }: Around, call: Node): void {
  const name = nameOfDecorator(call);
  const kind = Object.hasOwn(decorated, name) ? decorated[name] : undefined;
  if (!kind) return;
  unit.kind = kind;
  unit.framework = 'angular';
  const said = new Map(
    nodesIn(nodesIn(call['arguments'])[0]?.['properties']).map(({ key, value }) => [
      nameOf(key),
      value as Node,
    ]),
  );
  const selector = plainText(said.get(kind === 'pipe' ? 'name' : 'selector'));
  if (selector !== undefined) unit.selectors.push(...selector.split(',').map((one) => one.trim()));
  unit.lends.push(...namesIn(said.get(kind === 'module' ? 'exports' : 'imports')));
  if (kind === 'module') {
    unit.declares.push(...namesIn(said.get('declarations')));
    unit.imports.push(...namesIn(said.get('imports')));
  }
  const template = said.get('template');
  const text = plainText(template);
  if (template && text !== undefined) {
    unit.template = readAngularTemplate(text, lineOf(template));
    for (const slot of unit.template.slots) unit.add('slots', slot);
  }
  const url = plainText(said.get('templateUrl'));
  if (url !== undefined) unit.template = { tags: [], pipes: [], deferred: [], slots: [], url };
  for (const input of textsIn(said.get('inputs'))) unit.add('inputs', input);
}

function readMember(around: Around, member: Node, members: Map<string, string>): void {
  const { unit, lineOf } = around;
  const name = nameOf(member['key']);
  // A component that is asked for by its class is kept by a reference.
  const noteRef = (call: Node) => {
    const [asked] = nodesIn(call['arguments']);
    if (asked?.type === 'Identifier') unit.use(nameOf(asked), 'rendered', lineOf(member), { hasRef: true });
  };
  if (member['kind'] === 'constructor') return readConstructor(around, member['value'] as Node, members);
  for (const decorator of nodesIn(member['decorators'])) {
    const call = decorator['expression'] as Node;
    const word = nameOfDecorator(call);
    if (word === 'Input') unit.add('inputs', name);
    if (word === 'Output') unit.add('outputs', name);
    if (/^View(Child|Children)$/.test(word)) noteRef(call);
  }
  const value = member['value'];
  if (!isNode(value) || value.type !== 'CallExpression') return;
  const callee = value['callee'] as Node;
  const head = nameOf(callee.type === 'MemberExpression' ? callee['object'] : callee);
  const [first] = nodesIn(value['arguments']);
  if (head === 'input' || head === 'model') unit.add('inputs', name);
  if (head === 'output') unit.add('outputs', name);
  if (head === 'inject' && first?.type === 'Identifier') members.set(name, nameOf(first));
  if (/^viewChild(ren)?$/.test(head)) noteRef(value);
}

/** The types of what a constructor is given are what it injects. */
function readConstructor({ unit, lineOf }: Around, constructor: Node, members: Map<string, string>): void {
  if (unit.framework !== 'angular') return;
  for (const param of nodesIn(constructor['params'])) {
    const inner = param.type === 'TSParameterProperty' ? (param['parameter'] as Node) : param;
    const plain = inner.type === 'AssignmentPattern' ? (inner['left'] as Node) : inner;
    const annotation = plain['typeAnnotation'];
    const type = isNode(annotation) ? annotation['typeAnnotation'] : undefined;
    const token = injectedBy(param) ?? (isNode(type) ? nameOf(type['typeName']) : '');
    if (!token) continue;
    unit.use(token, 'injected', lineOf(param));
    members.set(nameOf(plain), token);
  }
}

/** `UNITS` of `@Inject(UNITS) units`. */
function injectedBy(param: Node): string | undefined {
  for (const decorator of [
    ...nodesIn(param['decorators']),
    ...nodesIn((param['parameter'] as Node)?.['decorators']),
  ]) {
    const call = decorator['expression'] as Node;
    if (nameOf(call['callee']) === 'Inject') return nameOf(nodesIn(call['arguments'])[0]);
  }
  return undefined;
}

/** The names in a list, also those in lists within it. */
function namesIn(node: Node | undefined): string[] {
  if (!node) return [];
  if (node.type === 'Identifier') return [nameOf(node)];
  if (node.type === 'ArrayExpression') return nodesIn(node['elements']).flatMap(namesIn);
  if (node.type === 'SpreadElement') return namesIn(node['argument'] as Node);
  // `RouterModule.forChild(routes)` lends what the module lends.
  if (node.type === 'CallExpression') return namesIn(node['callee'] as Node);
  if (node.type === 'MemberExpression') return namesIn(node['object'] as Node);
  return /^TS/.test(node.type) ? namesIn(node['expression'] as Node) : [];
}

const textsIn = (node: Node | undefined): string[] =>
  nodesIn(node?.['elements']).flatMap((one) => textOf(one)?.split(':')[0]?.trim() ?? []);

/** A text that is written out, in quotes or as a template without parts. */
function plainText(node: Node | undefined): string | undefined {
  const quasis = node?.type === 'TemplateLiteral' ? nodesIn(node['quasis']) : [];
  return quasis.length === 1 ? (quasis[0]!['value'] as { cooked?: string }).cooked : textOf(node);
}
