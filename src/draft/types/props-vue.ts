import type * as Ts from 'typescript';
import type { Declared } from './props';
import { declare } from './props';
import type { Sampling } from './sample';

/** The props of a single-file component, or of one that is made of options. */
export function vueProps(sampling: Sampling, source: Ts.SourceFile): readonly Declared[] | undefined {
  const { ts } = sampling;
  const found: Declared[] = [];
  let isDeclared = false;
  const look = (node: Ts.Node): void => {
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression)) {
      const called = node.expression.text;
      if (called === 'withDefaults' && node.arguments[0] && ts.isCallExpression(node.arguments[0])) {
        found.push(...withDefaults(node.arguments[0], node.arguments[1], sampling));
        isDeclared = true;
        return;
      }
      if (called === 'defineProps') {
        found.push(...definedBy(node, sampling, destructured(node, ts)));
        isDeclared = true;
        return;
      }
      if (called === 'defineModel') {
        found.push(modelOf(node, sampling));
        isDeclared = true;
      }
    }
    if (ts.isPropertyAssignment(node) && node.name.getText() === 'props' && isOptions(node.parent, ts)) {
      found.push(...runtime(node.initializer, sampling));
      isDeclared = true;
      return;
    }
    if (
      ts.isPropertyAssignment(node) &&
      /^(extends|mixins)$/.test(node.name.getText()) &&
      isOptions(node.parent, ts)
    ) {
      found.push(...inherited(node.initializer, sampling));
      isDeclared = true;
      return;
    }
    ts.forEachChild(node, look);
  };
  look(source);
  const named = new Map([...found].reverse().map((one) => [one.name, one]));
  return isDeclared ? [...named.values()].reverse() : [];
}

/** The props of the components that another one is made of. */
function inherited(node: Ts.Expression, sampling: Sampling): readonly Declared[] {
  const { ts, checker } = sampling;
  if (ts.isArrayLiteralExpression(node)) return node.elements.flatMap((one) => inherited(one, sampling));
  const symbol = checker.getSymbolAtLocation(node);
  const real = symbol && symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
  const source = real?.declarations?.[0]?.getSourceFile();
  return source && source !== node.getSourceFile() ? (vueProps(sampling, source) ?? []) : [];
}

/** True for the options of a component: `export default { props }`, `defineComponent({ props })`. */
const isOptions = ({ parent }: Ts.Node, ts: typeof Ts): boolean =>
  ts.isExportAssignment(parent) ||
  (ts.isCallExpression(parent) && /^(defineComponent|extend)$/.test(parent.expression.getText()));

function definedBy(
  call: Ts.CallExpression,
  sampling: Sampling,
  defaults: ReadonlyMap<string, string>,
): readonly Declared[] {
  const { ts, checker } = sampling;
  const [argument] = call.typeArguments ?? [];
  if (argument) {
    const type = checker.getTypeFromTypeNode(argument);
    return checker.getPropertiesOfType(type).map((one) => ({
      ...declare(one, checker, ts, call),
      ...(defaults.has(one.name) && { unless: defaults.get(one.name)!, isRequired: false }),
    }));
  }
  return call.arguments[0] ? runtime(call.arguments[0], sampling) : [];
}

function withDefaults(
  call: Ts.CallExpression,
  defaults: Ts.Expression | undefined,
  sampling: Sampling,
): readonly Declared[] {
  const { ts } = sampling;
  const given = new Map<string, string>();
  if (defaults && ts.isObjectLiteralExpression(defaults))
    for (const one of defaults.properties)
      if (one.name)
        given.set(one.name.getText(), ts.isPropertyAssignment(one) ? one.initializer.getText() : '');
  return definedBy(call, sampling, given);
}

/** `const { yard = 'north' } = defineProps<…>()` */
function destructured({ parent }: Ts.CallExpression, ts: typeof Ts): ReadonlyMap<string, string> {
  if (!ts.isVariableDeclaration(parent) || !ts.isObjectBindingPattern(parent.name)) return new Map();
  return new Map(
    parent.name.elements.flatMap((one) =>
      one.initializer ? [[(one.propertyName ?? one.name).getText(), one.initializer.getText()] as const] : [],
    ),
  );
}

function modelOf(call: Ts.CallExpression, { ts, checker }: Sampling): Declared {
  const named = call.arguments.find((one) => ts.isStringLiteral(one));
  const options = call.arguments.find((one) => ts.isObjectLiteralExpression(one));
  const [argument] = call.typeArguments ?? [];
  const type = argument ? checker.getTypeFromTypeNode(argument) : checker.getAnyType();
  const isRequired = /required:\s*true/.test(options?.getText() ?? '');
  return { name: named && ts.isStringLiteral(named) ? named.text : 'modelValue', type, isRequired };
}

/** Props that are declared as values: `{ hive: { type: Object as PropType<Hive>, required: true } }`. */
function runtime(node: Ts.Expression, sampling: Sampling): readonly Declared[] {
  const { ts, checker } = sampling;
  if (ts.isAsExpression(node) || ts.isSatisfiesExpression(node) || ts.isParenthesizedExpression(node))
    return runtime(node.expression, sampling);
  if (ts.isIdentifier(node)) {
    const symbol = checker.getSymbolAtLocation(node);
    const declared = symbol?.declarations?.[0];
    return declared && ts.isVariableDeclaration(declared) && declared.initializer
      ? runtime(declared.initializer, sampling)
      : [];
  }
  if (ts.isCallExpression(node)) return node.arguments[0] ? runtime(node.arguments[0], sampling) : [];
  if (ts.isArrayLiteralExpression(node))
    return node.elements.flatMap((one) =>
      ts.isStringLiteral(one) ? [{ name: one.text, type: checker.getAnyType(), isRequired: false }] : [],
    );
  if (!ts.isObjectLiteralExpression(node)) return [];
  return node.properties.flatMap((one): readonly Declared[] => {
    if (ts.isSpreadAssignment(one)) return runtime(one.expression, sampling);
    if (!ts.isPropertyAssignment(one)) return [];
    const name = one.name.getText().replace(/^['"]|['"]$/g, '');
    const { initializer } = one;
    if (!ts.isObjectLiteralExpression(initializer))
      return [{ name, ...typeOf(initializer, sampling), isRequired: false }];
    const member = (wanted: string) => initializer.properties.find((each) => each.name?.getText() === wanted);
    const type = member('type');
    const unless = member('default');
    return [
      {
        name,
        ...(type && ts.isPropertyAssignment(type)
          ? typeOf(type.initializer, sampling)
          : { type: checker.getAnyType() }),
        isRequired: /:\s*true/.test(member('required')?.getText() ?? ''),
        ...(unless && ts.isPropertyAssignment(unless) && { unless: unless.initializer.getText() }),
      },
    ];
  });
}

/** What a constructor, or `Object as PropType<Hive>`, stands for. */
function typeOf(node: Ts.Expression, sampling: Sampling): Pick<Declared, 'type' | 'runtime'> {
  const { ts, checker } = sampling;
  if (ts.isAsExpression(node)) {
    const written = ts.isParenthesizedTypeNode(node.type) ? node.type.type : node.type;
    if (
      ts.isTypeReferenceNode(written) &&
      /PropType$/.test(written.typeName.getText()) &&
      written.typeArguments?.[0]
    )
      return { type: checker.getTypeFromTypeNode(written.typeArguments[0]) };
    // () => Hive
    return { type: checker.getTypeFromTypeNode(ts.isFunctionTypeNode(written) ? written.type : written) };
  }
  if (ts.isArrayLiteralExpression(node)) {
    const all = node.elements.filter((one) => one.getText() !== 'null');
    const first = all.find((one) => one.getText() === 'String') ?? all[0];
    return first ? typeOf(first, sampling) : { type: checker.getAnyType() };
  }
  // Array<Hive>
  if (ts.isExpressionWithTypeArguments(node)) {
    const [made] = checker.getTypeAtLocation(node).getConstructSignatures();
    if (made) return { type: made.getReturnType() };
  }
  const runtime = node.getText();
  switch (runtime) {
    case 'String':
      return { type: checker.getStringType() };
    case 'Number':
      return { type: checker.getNumberType() };
    case 'Boolean':
      return { type: checker.getBooleanType() };
    case 'null':
    case 'undefined':
      return { type: checker.getAnyType() };
    default:
      return { type: checker.getAnyType(), runtime };
  }
}
