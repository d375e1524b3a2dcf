import { existsSync, readFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import type TypeScript from 'typescript';
import { fromStandard, keyOfFile, transpile, type Transformed, type TransformOptions } from './transformer';
import { typescript } from './typescript';
import { versionIn } from './version';

/*
 * A transformer for Jest that makes an Angular component run as it was written: decorators and their
 * metadata, inputs and queries that are signals, templates and styles out of files of their own, and
 * the framework's own standard modules. Each file is looked at by itself, without types.
 */

export function process(code: string, file: string, options: TransformOptions = {}): Transformed {
  if (!/\.[cm]?tsx?$/.test(file)) return ofPackage(code, file, options);
  const ts = typescript(file);
  if (!/@angular\//.test(code)) return transpile(ts, code, file, options);
  const { code: text, map } = transpile(ts, code, file, options, {
    options: { experimentalDecorators: true, emitDecoratorMetadata: true, useDefineForClassFields: false },
    before: (context) => (source) => rewrite(ts, source, context),
  });
  // On the first line, so that no line moves.
  return { code: `${prelude(options.supportsStaticESM ?? false)}${text}`, map };
}

/** Packages are compiled to the last step, which is left to what they are used in: it needs the compiler. */
function ofPackage(code: string, file: string, options: TransformOptions): Transformed {
  const made = fromStandard(code, file, options);
  const isOpen = /\w\.ɵɵngDeclare/.test(code) && versionIn(file, '@angular/compiler') !== undefined;
  if (!isOpen) return made;
  return { ...made, code: `'use strict'; ${loadCompiler(options.supportsStaticESM ?? false)} ${made.code}` };
}

const loadCompiler = (standard: boolean): string =>
  standard ? `import '@angular/compiler';` : `require('@angular/compiler');`;

export const getCacheKey = (code: string, file: string, options: TransformOptions = {}): string =>
  keyOfFile(code, file, options, versionIn(file, '@angular/compiler') ?? '', ...resourcesIn(code, file));

/** The text of the templates and styles a file names: another text is another result. */
const resourcesIn = (code: string, file: string): string[] =>
  [...code.matchAll(/['"`](\.{1,2}\/[^'"`]+\.(?:html|css|svg))['"`]/g)].map(([, path]) =>
    readText(resolve(dirname(file), path!)),
  );

const readText = (path: string): string => (existsSync(path) ? readFileSync(path, 'utf8') : '');

const core = 'ɵcore';

function rewrite(
  ts: typeof TypeScript,
  source: TypeScript.SourceFile,
  context: TypeScript.TransformationContext,
): TypeScript.SourceFile {
  const visit = (node: TypeScript.Node): TypeScript.Node => {
    if (ts.isClassDeclaration(node) && isDirectiveClass(ts, node))
      return rewriteClass(ts, node, source, context);
    return ts.visitEachChild(node, visit, context);
  };
  return ts.visitEachChild(source, visit, context);
}

// Angular compiles classes at run time if they were not compiled ahead of time, and reads constructor types
// through Reflect.
const prelude = (standard: boolean): string =>
  [
    loadCompiler(standard),
    standard ? `import * as ${core} from '@angular/core';` : `const ${core} = require('@angular/core');`,
    `Reflect.getOwnMetadata ??= (key, target) => target['__' + key];`,
    `Reflect.metadata ??= (key, value) => (target, member) => { if (member === undefined) Object.defineProperty(target, '__' + key, { value, configurable: true }); }; `,
  ].join(' ');

const decoratorsOf = (ts: typeof TypeScript, node: TypeScript.ClassDeclaration) =>
  ts.getDecorators(node) ?? [];

const nameOfCall = (ts: typeof TypeScript, node: TypeScript.Node): string =>
  ts.isCallExpression(node) ? node.expression.getText() : '';

const isDirectiveClass = (ts: typeof TypeScript, node: TypeScript.ClassDeclaration) =>
  decoratorsOf(ts, node).some(({ expression }) => /^(Component|Directive)$/.test(nameOfCall(ts, expression)));

function rewriteClass(
  ts: typeof TypeScript,
  node: TypeScript.ClassDeclaration,
  source: TypeScript.SourceFile,
  context: TypeScript.TransformationContext,
): TypeScript.ClassDeclaration {
  const { factory } = context;
  const inline = (inner: TypeScript.Node): TypeScript.Node =>
    ts.isPropertyAssignment(inner)
      ? (inlineResource(ts, inner, source.fileName, factory) ?? inner)
      : ts.visitEachChild(inner, inline, context);
  const modifiers = node.modifiers?.map((modifier) =>
    ts.isDecorator(modifier)
      ? (ts.visitEachChild(modifier, inline, context) as TypeScript.Decorator)
      : modifier,
  );
  const members = node.members.map((member) => {
    const added = ts.isPropertyDeclaration(member) ? decoratorsFor(ts, member, factory) : [];
    if (added.length === 0) return member;
    const property = member as TypeScript.PropertyDeclaration;
    return factory.updatePropertyDeclaration(
      property,
      [...added, ...(property.modifiers ?? [])],
      property.name,
      property.questionToken ?? property.exclamationToken,
      property.type,
      property.initializer,
    );
  });
  return factory.updateClassDeclaration(
    node,
    modifiers,
    node.name,
    node.typeParameters,
    node.heritageClauses,
    members,
  );
}

/** `templateUrl` becomes `template`, `styleUrl` and `styleUrls` become `styles`. */
function inlineResource(
  ts: typeof TypeScript,
  node: TypeScript.PropertyAssignment,
  file: string,
  factory: TypeScript.NodeFactory,
): TypeScript.PropertyAssignment | undefined {
  const text = (path: TypeScript.Expression) =>
    factory.createStringLiteral(
      ts.isStringLiteralLike(path) && /\.(html|svg|css)$/.test(path.text)
        ? readText(resolve(dirname(file), path.text))
        : '',
    );
  const { initializer } = node;
  switch (node.name.getText()) {
    case 'templateUrl':
      return factory.createPropertyAssignment('template', text(initializer));
    case 'styleUrl':
      return factory.createPropertyAssignment('styles', text(initializer));
    case 'styleUrls':
      return factory.createPropertyAssignment(
        'styles',
        factory.createArrayLiteralExpression(
          ts.isArrayLiteralExpression(initializer) ? initializer.elements.map(text) : [],
        ),
      );
    default:
      return undefined;
  }
}

const queries: Record<string, string> = {
  viewChild: 'ViewChild',
  viewChildren: 'ViewChildren',
  contentChild: 'ContentChild',
  contentChildren: 'ContentChildren',
};

/** What Angular's compiler knows of a signal's place in a class, said by decorators. */
function decoratorsFor(
  ts: typeof TypeScript,
  property: TypeScript.PropertyDeclaration,
  factory: TypeScript.NodeFactory,
): TypeScript.Decorator[] {
  const call = property.initializer;
  if (!call || !ts.isCallExpression(call)) return [];
  const [, called = '', must] = /^(\w+)(\.required)?$/.exec(call.expression.getText()) ?? [];
  const args = call.arguments;
  const decorator = (name: string, ...given: TypeScript.Expression[]) =>
    factory.createDecorator(
      factory.createCallExpression(
        factory.createPropertyAccessExpression(factory.createIdentifier(core), name),
        undefined,
        given,
      ),
    );
  const flag = (value: boolean) => (value ? factory.createTrue() : factory.createFalse());
  const optionsAt = called === 'output' || must ? 0 : 1;
  const alias = aliasIn(ts, args[optionsAt]) ?? property.name.getText();
  const text = (value: string) => factory.createStringLiteral(value);
  const input = () =>
    decorator(
      'Input',
      factory.createObjectLiteralExpression([
        factory.createPropertyAssignment('isSignal', flag(true)),
        factory.createPropertyAssignment('alias', text(alias)),
        factory.createPropertyAssignment('required', flag(Boolean(must))),
      ]),
    );
  if (called === 'input') return [input()];
  if (called === 'model') return [input(), decorator('Output', text(`${alias}Change`))];
  if (called === 'output' || called === 'outputFromObservable') return [decorator('Output', text(alias))];
  const query = queries[called];
  const [locator, options] = args;
  if (!query || !locator) return [];
  const known = options && ts.isObjectLiteralExpression(options) ? options.properties : [];
  const told = factory.createObjectLiteralExpression([
    ...known,
    factory.createPropertyAssignment('isSignal', flag(true)),
  ]);
  return [decorator(query, locator, told)];
}

function aliasIn(ts: typeof TypeScript, options: TypeScript.Expression | undefined): string | undefined {
  if (!options || !ts.isObjectLiteralExpression(options)) return undefined;
  const found = options.properties.find((one) => one.name?.getText() === 'alias');
  const value = found && ts.isPropertyAssignment(found) ? found.initializer : undefined;
  return value && ts.isStringLiteralLike(value) ? value.text : undefined;
}
