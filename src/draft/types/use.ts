import type * as Ts from 'typescript';
import { decimalOf, textOf, wholeOf, type Place } from '../../network/contract/plausible';
import { code, object, spyValue, text, type Field, type Value } from '../value';
import { singular } from '../write/words';

/* What a value without a type has to look like, by what the code does with it. */

interface Shape {
  readonly fields: Map<string, Shape>;
  item?: Shape;
  /** What an item is called. */
  called?: string;
  isFunction?: true;
  isNumber?: true;
  isTested?: true;
}

const empty = (): Shape => ({ fields: new Map() });
const ofLists =
  /^(map|forEach|filter|some|every|find|findIndex|flatMap|reduce|sort|toSorted|slice|join|at|push|concat|reverse|entries)$/;
const ofTexts =
  /^(toUpperCase|toLowerCase|trim|split|charAt|replace|replaceAll|padStart|padEnd|startsWith|endsWith|localeCompare)$/;
const ofNumbers = /^(toFixed|toPrecision|toExponential)$/;

/** A value that fits how a name is used within a part of the source; undefined where it is not used. */
export function sampleOfUse(ts: typeof Ts, scope: Ts.Node, name: string, place: Place): Value | undefined {
  const shape = empty();
  return readUses(ts, scope, name, shape, 0) ? valueOf(shape, place) : undefined;
}

/** The template of a single-file component. */
export const templateOf = (file: string): string =>
  /<template\b[^>]*>([\s\S]*)<\/template>/.exec(file)?.[1] ?? '';

/** What a template calls: the script beside it. */
interface Script {
  readonly ts: typeof Ts;
  readonly source: Ts.Node;
}

/** The same by a template as well: `hive.name`, `v-for="task in hive.tasks"`, `label(task)`. */
export function sampleOfTemplate(
  template: string,
  name: string,
  place: Place,
  script: Script,
): Value | undefined {
  const shape = empty();
  const isShown = readTemplate(template, name, shape, 0, script);
  const isUsed = readUses(script.ts, script.source, name, shape, 0);
  return isShown || isUsed ? valueOf(shape, place) : undefined;
}

/** What the functions do with it that a template hands it to. */
function readCalled(template: string, name: string, shape: Shape, { ts, source }: Script): void {
  for (const [, called = ''] of template.matchAll(
    new RegExp(`(?<![\\w$.])([A-Za-z_$][\\w$]*)\\(\\s*${name}\\s*[,)]`, 'g'),
  )) {
    const look = (node: Ts.Node): void => {
      const body = parameterOf(ts, node, called);
      if (body) readUses(ts, body.scope, body.name, shape, 1);
      else ts.forEachChild(node, look);
    };
    look(source);
  }
}

/** The first parameter of a function of this name. */
function parameterOf(
  ts: typeof Ts,
  node: Ts.Node,
  called: string,
): { readonly name: string; readonly scope: Ts.Node } | undefined {
  const own =
    ts.isMethodDeclaration(node) || ts.isFunctionDeclaration(node)
      ? node
      : (ts.isVariableDeclaration(node) || ts.isPropertyAssignment(node)) &&
          node.initializer &&
          (ts.isArrowFunction(node.initializer) || ts.isFunctionExpression(node.initializer))
        ? node.initializer
        : undefined;
  const name = (node as Ts.NamedDeclaration).name;
  const [first] = own?.parameters ?? [];
  if (!own?.body || !name || !ts.isIdentifier(name) || name.text !== called) return undefined;
  return first && ts.isIdentifier(first.name) ? { name: first.name.text, scope: own.body } : undefined;
}

function readTemplate(template: string, name: string, shape: Shape, depth: number, script: Script): boolean {
  readCalled(template, name, shape, script);
  const path = `(?<![\\w$.'-])(?:\\$?props\\.|this\\.)?${name}((?:\\??\\.[A-Za-z_$][\\w$]*)*)`;
  let isUsed = false;
  for (const [, steps = ''] of template.matchAll(new RegExp(`${path}(?![\\w$])`, 'g'))) {
    isUsed = true;
    let at = shape;
    for (const step of steps.split(/\??\./).filter(Boolean)) {
      if (step === 'length' || ofLists.test(step)) at.item ??= empty();
      if (step === 'length' || ofLists.test(step) || ofTexts.test(step) || ofNumbers.test(step)) break;
      at = fieldOf(at, step);
    }
  }
  for (const [, item = '', steps = ''] of template.matchAll(
    new RegExp(`(?:v-for="|@for \\()\\(?\\s*([A-Za-z_$][\\w$]*)[^"]*?\\b(?:in|of)\\s+${path}(?![\\w$])`, 'g'),
  )) {
    let at = shape;
    for (const step of steps.split(/\??\./).filter(Boolean)) at = fieldOf(at, step);
    at.called ??= item;
    if (depth < 3) readTemplate(template, item, (at.item ??= empty()), depth + 1, script);
    isUsed = true;
  }
  return isUsed;
}

function readUses(ts: typeof Ts, scope: Ts.Node, name: string, shape: Shape, depth: number): boolean {
  let isUsed = false;
  const look = (node: Ts.Node): void => {
    if (ts.isIdentifier(node) && node.text === name && isUse(node, ts)) {
      isUsed = true;
      follow(ts, node, shape, depth);
    } else if (
      // this.hive, props.hive
      ts.isPropertyAccessExpression(node) &&
      /^(this|props)$/.test(node.expression.getText()) &&
      node.name.text === name
    ) {
      isUsed = true;
      follow(ts, node, shape, depth);
    }
    ts.forEachChild(node, look);
  };
  ts.forEachChild(scope, look);
  return isUsed;
}

function isUse({ parent, ...node }: Ts.Identifier, ts: typeof Ts): boolean {
  if (ts.isPropertyAccessExpression(parent)) return parent.name.pos !== node.pos;
  if (ts.isPropertyAssignment(parent)) return parent.name.pos !== node.pos;
  return !ts.isBindingElement(parent) && !ts.isParameter(parent) && !ts.isJsxAttribute(parent);
}

function follow(ts: typeof Ts, start: Ts.Expression, shape: Shape, depth: number): void {
  let node: Ts.Expression = start;
  let at = shape;
  for (;;) {
    const { parent } = node;
    if (ts.isNonNullExpression(parent) || ts.isParenthesizedExpression(parent) || ts.isAsExpression(parent)) {
      node = parent;
      continue;
    }
    if (ts.isCallExpression(parent) && parent.expression === node) {
      at.isFunction = true;
      return;
    }
    if (ts.isVariableDeclaration(parent) && ts.isObjectBindingPattern(parent.name)) {
      for (const { propertyName, name } of parent.name.elements) {
        const key = (propertyName ?? name).getText();
        const field = fieldOf(at, key);
        if (depth < 4 && ts.isIdentifier(name))
          readUses(ts, parent.parent.parent.parent, name.text, field, depth + 1);
      }
      return;
    }
    if (!ts.isPropertyAccessExpression(parent) || parent.expression !== node) {
      if (ts.isPrefixUnaryExpression(parent) || ts.isConditionalExpression(parent)) at.isTested = true;
      if (ts.isBinaryExpression(parent) && /^[<>*/%-]/.test(parent.operatorToken.getText()))
        at.isNumber = true;
      return;
    }
    const key = parent.name.text;
    const call =
      ts.isCallExpression(parent.parent) && parent.parent.expression === parent ? parent.parent : undefined;
    if (call && ofLists.test(key)) {
      readItem(ts, call, key, at, depth);
      return;
    }
    if (call && ofNumbers.test(key)) at.isNumber = true;
    if (call && (ofTexts.test(key) || ofNumbers.test(key) || /^(toString|includes|json|then)$/.test(key)))
      return;
    if (key === 'length') {
      at.item ??= empty();
      return;
    }
    at = fieldOf(at, key);
    node = parent;
  }
}

function fieldOf(shape: Shape, key: string): Shape {
  let field = shape.fields.get(key);
  if (!field) shape.fields.set(key, (field = empty()));
  return field;
}

function readItem(ts: typeof Ts, call: Ts.CallExpression, method: string, shape: Shape, depth: number): void {
  const item = (shape.item ??= empty());
  const [given] = call.arguments;
  if (!given || depth > 4 || !(ts.isArrowFunction(given) || ts.isFunctionExpression(given))) return;
  const parameter = given.parameters[method === 'reduce' ? 1 : 0]?.name;
  if (!parameter) return;
  if (ts.isIdentifier(parameter)) {
    shape.called ??= parameter.text;
    readUses(ts, given.body, parameter.text, item, depth + 1);
  } else if (ts.isObjectBindingPattern(parameter)) {
    for (const { propertyName, name } of parameter.elements) {
      const field = fieldOf(item, (propertyName ?? name).getText());
      if (ts.isIdentifier(name)) readUses(ts, given.body, name.text, field, depth + 1);
    }
  }
}

function valueOf(shape: Shape, place: Place): Value {
  const { fields, item, called, isFunction, isNumber, isTested } = shape;
  if (item) {
    const one = called && called.length > 2 ? called : singular(place.field);
    const items = [0, 1].map((index) =>
      valueOf(item, { owner: one, field: one, path: [...place.path, index] }),
    );
    return { kind: 'list', items };
  }
  if (fields.size > 0)
    return object(
      [...fields].map(([key, field]): Field => [
        key,
        valueOf(field, { owner: place.field, field: key, path: [...place.path, key] }),
      ]),
    );
  if (isFunction || /^on[A-Z]/.test(place.field)) return spyValue();
  return leafOf(place, isNumber === true, isTested === true);
}

/** A text or a number, as the name of it has it. */
export function leafOf(place: Place, isNumber = false, isTested = false): Value {
  const { field } = place;
  if (/^(visible|shown|enabled|open)$/.test(field)) return code('true');
  if (isTested || /^(is|has|can|should)[A-Z]/.test(field)) return code('false');
  if (/(kilograms|weight|price|rate|temperature)$/i.test(field))
    return { kind: 'number', number: decimalOf(place) };
  if (
    isNumber ||
    /(count|total|size|amount|age|percent|number|quantity|rating|score|index|page)$/i.test(field)
  )
    return { kind: 'number', number: wholeOf(place) };
  return text(textOf(place), /(^|_)ids?$|Ids?$/.test(field));
}
