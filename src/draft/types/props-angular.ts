import type * as Ts from 'typescript';
import type { Declared } from './props';
import type { Sampling } from './sample';

/** The inputs of a component: `@Input()`, `input()`, `model()`. */
export function angularInputs(
  sampling: Sampling,
  source: Ts.SourceFile,
  exported: string,
): readonly Declared[] | undefined {
  const { ts } = sampling;
  const found = source.statements.find(
    (one): one is Ts.ClassDeclaration =>
      ts.isClassDeclaration(one) && (one.name?.text === exported || exported === 'default'),
  );
  if (!found) return undefined;
  const declared: Declared[] = [];
  const symbol = found.name && sampling.checker.getSymbolAtLocation(found.name);
  const instance = symbol && sampling.checker.getDeclaredTypeOfSymbol(symbol);
  // What a base class leaves open is known where it is extended.
  const typeOf = (member: Ts.ClassElement): Ts.Type => {
    const { checker } = sampling;
    const known = member.parent === found ? undefined : instance?.getProperty(member.name!.getText());
    return known ? checker.getTypeOfSymbolAtLocation(known, found) : checker.getTypeAtLocation(member);
  };
  for (let at: Ts.ClassDeclaration | undefined = found; at; at = baseOf(at, sampling))
    for (const member of at.members) {
      const one = inputOf(member, sampling, typeOf);
      if (one && !declared.some(({ name }) => name === one.name)) declared.push(one);
    }
  return declared;
}

function baseOf(node: Ts.ClassDeclaration, { ts, checker }: Sampling): Ts.ClassDeclaration | undefined {
  const [base] =
    node.heritageClauses?.find(({ token }) => token === ts.SyntaxKind.ExtendsKeyword)?.types ?? [];
  const symbol = base && checker.getSymbolAtLocation(base.expression);
  const real = symbol && symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
  return real?.declarations?.find((one): one is Ts.ClassDeclaration => ts.isClassDeclaration(one));
}

function inputOf(
  member: Ts.ClassElement,
  sampling: Sampling,
  typeOf: (member: Ts.ClassElement) => Ts.Type,
): Declared | undefined {
  const { ts, checker } = sampling;
  const name = member.name?.getText();
  if (name === undefined) return undefined;
  if (ts.isPropertyDeclaration(member) && member.initializer && ts.isCallExpression(member.initializer)) {
    const called = /^(input|model)(\.required)?$/.exec(
      member.initializer.expression.getText().replace(/\s/g, ''),
    );
    if (called) {
      const type = typeOf(member);
      // InputSignal<T> and ModelSignal<T>; an InputSignalWithTransform<T, U> is written as U.
      const given = checker.getTypeArguments(type as Ts.TypeReference);
      const options = member.initializer.arguments.at(-1)?.getText() ?? '';
      const alias = /alias:\s*['"]([^'"]+)/.exec(options)?.[1];
      const unless = called[2] ? undefined : member.initializer.arguments[0]?.getText();
      return {
        name,
        ...(alias !== undefined && { alias }),
        type: given.at(-1) ?? checker.getAnyType(),
        isRequired: called[2] !== undefined,
        ...(unless !== undefined && { unless }),
      };
    }
  }
  const input = (ts.canHaveDecorators(member) ? (ts.getDecorators(member) ?? []) : []).find((one) =>
    /^Input\b/.test(one.expression.getText()),
  );
  if (!input) return undefined;
  const options = ts.isCallExpression(input.expression)
    ? (input.expression.arguments[0]?.getText() ?? '')
    : '';
  const alias = /alias:\s*['"]([^'"]+)/.exec(options)?.[1] ?? /^['"]([^'"]+)['"]$/.exec(options)?.[1];
  const type =
    ts.isSetAccessor(member) && member.parameters[0]
      ? checker.getTypeAtLocation(member.parameters[0])
      : typeOf(member);
  const isCertain = /required:\s*true/.test(options);
  const isBang = ts.isPropertyDeclaration(member) && member.exclamationToken !== undefined;
  return { name, ...(alias !== undefined && { alias }), type, isRequired: isCertain || isBang };
}
