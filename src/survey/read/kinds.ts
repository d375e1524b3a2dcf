import { isNode, nameOf, nodesIn, type Node } from '../../syntax/syntax';
import type { UnitKind, Use } from '../facts';
import { packageKind } from './leaves';
import type { OpenUnit, Imported } from './unit';
import { readOptions } from './vue';

/** What deciding the kind of a declaration needs to know of its file. */
interface Around {
  readonly unit: OpenUnit;
  readonly imported: ReadonlyMap<string, Imported>;
  readonly framework: 'react' | 'vue' | 'angular';
  readonly script: { readonly stem: string };
  lineOf(node: Node): number;
}

const isCapital = (name: string) => /^\p{Lu}/u.test(name);
const isHook = (name: string) => /^use[A-Z0-9]/.test(name);

// What a call makes, by the name of what is called.
const made: readonly (readonly [UnitKind, RegExp])[] = [
  ['context', /^createContext$/],
  ['store', /^(defineStore|configureStore|createStore|createSlice|signalStore|atom|proxy)$/],
  ['component', /^(memo|forwardRef|lazy|defineComponent|defineAsyncComponent|observer|styled)$/],
  ['token', /^InjectionToken$/],
];

/** Decides what kind of thing was declared, once all of it was read. */
export function kindOfValue(around: Around, node: Node): void {
  const { unit, imported, framework } = around;
  if (unit.kind !== 'value') return;
  const isFunction = /^(Function|Arrow)/.test(node.type);
  if (isFunction) {
    unit.kind = kindOfFunction(unit, framework);
    if (unit.kind === 'component') readInputs(unit, node);
  } else unit.kind = kindOfExpression(unit, node, imported);
  // What a single-file component exports is taken for one later.
  const isOptions = node.type === 'ObjectExpression' && unit.name === around.script.stem;
  if (framework === 'vue' && (unit.kind === 'component' || isOptions)) readOptions(around, node);
  if (unit.kind === 'component' || unit.kind === 'hook' || unit.kind === 'composable')
    unit.framework = framework;
}

function kindOfFunction(unit: OpenUnit, framework: Around['framework']): UnitKind {
  if (isHook(unit.name)) return framework === 'vue' ? 'composable' : 'hook';
  if (isCapital(unit.name) && (unit.hasElements || usesHooks(unit))) return 'component';
  return 'function';
}

const usesHooks = (unit: OpenUnit) => unit.uses.some(({ name, how }) => how === 'called' && isHook(name));

function kindOfExpression(unit: OpenUnit, node: Node, imported: Around['imported']): UnitKind {
  const bare = unwrap(node);
  if (/Class/.test(bare.type)) return 'class';
  if (
    bare.type === 'CallExpression' ||
    bare.type === 'NewExpression' ||
    bare.type === 'TaggedTemplateExpression'
  ) {
    const name = headOf(bare['callee'] ?? bare['tag']);
    const known = imported.get(name)?.name ?? name;
    if (bare.type === 'CallExpression') unit.madeBy = nameOf(bare['callee']);
    const own = methodOf(bare['callee']) ?? known;
    if (packageKind(imported.get(name)?.specifier ?? '') === 'store') return 'store';
    const kind = made.find(([, names]) => names.test(own) || names.test(known))?.[0];
    if (kind) return kind;
    if (isHook(unit.name)) return 'hook';
    if (/Store$/.test(unit.name)) return 'store';
    if (known === 'Symbol' && /Key$|^[A-Z_]+$/.test(unit.name)) return 'token';
    // A component that is wrapped: `withSession(Board)`.
    if (isCapital(unit.name) && (unit.hasElements || takesComponent(bare))) return 'component';
  }
  if (bare.type === 'ObjectExpression' && isCapital(unit.name) && hasComponentOptions(bare))
    return 'component';
  return 'value';
}

/** Finds components that a function of the same file makes: `const Title = heading('h1')`. */
export function findMade(units: readonly OpenUnit[]): void {
  const makers = new Set(
    units
      .filter(({ kind, uses }) => kind === 'function' && uses.some(makesComponent))
      .map(({ name }) => name),
  );
  if (makers.size === 0) return;
  for (const unit of units) {
    const { kind, name, madeBy } = unit;
    if (kind !== 'value' || !isCapital(name) || madeBy === undefined || !makers.has(madeBy)) continue;
    unit.kind = 'component';
    unit.framework = 'react';
  }
}

const makesComponent = ({ name, how }: Use): boolean =>
  how === 'called' && /^(memo|forwardRef|observer)$/.test(name);

function unwrap(node: Node): Node {
  const inner = /^TS(As|Satisfies|NonNull)/.test(node.type) ? node['expression'] : undefined;
  return isNode(inner) ? unwrap(inner) : node;
}

/** The name an expression such as `styled.button(…)` begins with. */
function headOf(node: unknown): string {
  if (!isNode(node)) return '';
  if (node.type === 'MemberExpression') return headOf(node['object']);
  if (node.type === 'CallExpression') return headOf(node['callee']);
  return nameOf(node);
}

const methodOf = (callee: unknown): string | undefined =>
  isNode(callee) && callee.type === 'MemberExpression' ? nameOf(callee['property']) : undefined;

function takesComponent(call: Node): boolean {
  const args = nodesIn(call['arguments']);
  return args.length > 0 && args.every((one) => one.type === 'Identifier' && isCapital(nameOf(one)));
}

const hasComponentOptions = (object: Node): boolean =>
  nodesIn(object['properties']).some(({ key }) =>
    /^(setup|template|components|render|props|emits)$/.test(nameOf(key)),
  );

/** The props of a function component: what its first parameter takes apart. */
function readInputs(unit: OpenUnit, node: Node): void {
  const [first] = nodesIn(node['params']);
  if (first?.type !== 'ObjectPattern') return;
  for (const { key } of nodesIn(first['properties'])) {
    const name = nameOf(key);
    if (name === 'children') unit.add('slots', 'children');
    else if (/^on[A-Z]/.test(name)) unit.add('outputs', name);
    else if (/^render[A-Z]?/.test(name)) unit.add('renders', name);
    else if (name) unit.add('inputs', name);
  }
}
