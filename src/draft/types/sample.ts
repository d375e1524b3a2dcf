import type * as Ts from 'typescript';
import { decimalOf, idOf, momentOf, textOf, wholeOf, type Place } from '../../network/contract/plausible';
import {
  around,
  code,
  isSpy,
  object,
  spyOf,
  spyValue,
  text,
  type Field,
  type Needed,
  type Value,
} from '../value';
import type { TypeScript } from './service';

/** How values are made of types. */
export interface Sampling {
  readonly ts: TypeScript;
  readonly checker: Ts.TypeChecker;
  readonly framework: 'react' | 'vue' | 'angular';
  /** True for what JSON can hold: an answer of the network. */
  readonly isJson: boolean;
  /** Where the code that uses it stands. */
  readonly at: Ts.Node;
  /** Whether members that may be missing are made as well. */
  readonly isFull: boolean;
}

const deepest = 5;

/** A plausible value of a type, the same on every run. */
export const sample = (type: Ts.Type, place: Place, sampling: Sampling): Value =>
  new Sampler(sampling).make(type, place, []);

class Sampler {
  constructor(readonly given: Sampling) {}

  make(type: Ts.Type, place: Place, above: readonly Ts.Type[]): Value {
    const { ts } = this.given;
    const { flags } = type;
    const is = (flag: Ts.TypeFlags) => (flags & flag) !== 0;
    if (is(ts.TypeFlags.StringLiteral)) return text((type as Ts.StringLiteralType).value, true);
    if (is(ts.TypeFlags.NumberLiteral)) return code(String((type as Ts.NumberLiteralType).value));
    if (is(ts.TypeFlags.BooleanLiteral)) return code(this.given.checker.typeToString(type));
    if (is(ts.TypeFlags.BigIntLike)) return code('3n');
    if (is(ts.TypeFlags.EnumLike) && !type.isUnion()) return this.#member(type);
    if (is(ts.TypeFlags.StringLike)) return this.#text(place);
    if (is(ts.TypeFlags.NumberLike)) return this.#number(place);
    if (is(ts.TypeFlags.BooleanLike)) return code('false');
    if (is(ts.TypeFlags.Null)) return code('null');
    if (is(ts.TypeFlags.Undefined | ts.TypeFlags.Void)) return code('undefined');
    if (is(ts.TypeFlags.ESSymbolLike)) return code('Symbol()');
    if (is(ts.TypeFlags.Any | ts.TypeFlags.Unknown)) return this.unknown(place);
    if (is(ts.TypeFlags.TypeParameter | ts.TypeFlags.Conditional | ts.TypeFlags.IndexedAccess)) {
      const known = this.given.checker.getBaseConstraintOfType(type);
      return known && known !== type ? this.make(known, place, above) : this.unknown(place);
    }
    if (type.isUnion()) return this.#union(type, place, above);
    return this.#object(type, place, above);
  }

  /** Of what has no type: as its name has it. */
  unknown(place: Place): Value {
    const { field } = place;
    if (/^(as|is|tag|element|component)$/.test(field)) return text('div', true);
    if (/^on[A-Z]|^(handle|set)[A-Z]|^(callback|render|fn)$/.test(field)) return spyValue();
    if (
      /^(is|has|can|should|show|hide|with)[A-Z]|^(disabled|loading|open|checked|visible|active|required|selected)$/.test(
        field,
      )
    )
      return code('false');
    if (
      /(count|total|size|length|index|amount|price|kilograms|weight|width|height|number|percent|value)$/i.test(
        field,
      ) &&
      !/^value$/.test(field)
    )
      return { kind: 'number', number: wholeOf(place) };
    if (/^(items|list|rows|options|entries|data)$/.test(field)) return { kind: 'list', items: [] };
    return text(textOf(place));
  }

  #text(place: Place): Value {
    const { field } = place;
    if (/^(as|is|tag|element)$/.test(field)) return text('div', true);
    if (/^(class|className|style|key|ref|testId|data-testid)$/i.test(field)) return text(textOf(place), true);
    const words = textOf(place);
    return text(words, /(^|_)ids?$|Ids?$/.test(field));
  }

  #number(place: Place): Value {
    const { field } = place;
    if (/(kilograms|weight|price|amount|ratio|rate|temperature|lat|lon|lng|latitude|longitude)$/i.test(field))
      return { kind: 'number', number: decimalOf(place) };
    if (/(percent|progress|percentage)$/i.test(field)) return { kind: 'number', number: 40 };
    if (/(timestamp|time|At|date)$/.test(field)) return { kind: 'number', number: 1935648000000 };
    if (/^(id|key|index)$/i.test(field))
      return { kind: 'number', number: Number(/\d+$/.exec(idOf(place))?.[0] ?? 1) };
    return { kind: 'number', number: wholeOf(place) };
  }

  #member(type: Ts.Type): Value {
    const { checker } = this.given;
    const needed = this.nameable(
      type.symbol &&
        (checker.getSymbolAtLocation(
          (type.symbol.declarations?.[0]?.parent as Ts.EnumDeclaration | undefined)?.name ?? this.given.at,
        ) ??
          type.symbol),
    );
    return needed
      ? code(`${needed.local ?? needed.name}.${type.symbol.name}`, valueOf(needed))
      : code(checker.typeToString(type));
  }

  #union(type: Ts.UnionType, place: Place, above: readonly Ts.Type[]): Value {
    const { ts, checker } = this.given;
    if (isNode(type)) return this.#node(place);
    const there = type.types.filter(
      ({ flags }) => (flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null | ts.TypeFlags.Void)) === 0,
    );
    const [first] = there;
    if (!first) return code(checker.typeToString(type.types[0]!));
    if (there.every(({ flags }) => (flags & ts.TypeFlags.BooleanLiteral) !== 0)) return code('false');
    const rank = (one: Ts.Type) => {
      if (one.flags & (ts.TypeFlags.StringLiteral | ts.TypeFlags.EnumLiteral)) return 0;
      if (one.flags & ts.TypeFlags.StringLike) return 1;
      if (one.flags & ts.TypeFlags.NumberLike) return 2;
      if (checker.isArrayType(one)) return 3;
      if (one.flags & ts.TypeFlags.BooleanLike) return 5;
      return above.includes(one) ? 7 : one.getCallSignatures().length > 0 ? 6 : 4;
    };
    const best = [...there].sort((a, b) => rank(a) - rank(b))[0]!;
    return this.make(best, place, above);
  }

  /** Something that can be rendered. */
  #node({ field }: Place): Value {
    const words = field === 'children' ? 'Content' : textOf({ owner: field, field, path: [] });
    return text(words === 'Children 1' ? 'Content' : words);
  }

  #object(type: Ts.Type, place: Place, above: readonly Ts.Type[]): Value {
    const { checker, ts } = this.given;
    const name = type.aliasSymbol?.name ?? type.symbol?.name ?? '';
    const known = this.#wellKnown(name, type, place, above);
    if (known) return known;
    if (
      type.isIntersection() &&
      type.types.some(({ flags }) => flags & (ts.TypeFlags.StringLike | ts.TypeFlags.NumberLike))
    )
      return this.make(
        type.types.find(({ flags }) => flags & (ts.TypeFlags.StringLike | ts.TypeFlags.NumberLike))!,
        place,
        above,
      );
    if (checker.isArrayType(type)) return this.#list(type, place, above);
    if (checker.isTupleType(type))
      return {
        kind: 'list',
        items: checker
          .getTypeArguments(type as Ts.TypeReference)
          .map((one, index) => this.make(one, { ...place, path: [...place.path, index] }, above)),
      };
    const [call] = type.getCallSignatures();
    if (call) return this.given.isJson ? code('null') : this.#function(call, place, above);
    if (type.getConstructSignatures().length > 0) return code('class {} as never');
    if (above.includes(type) || above.length >= deepest) return object([]);
    if (this.#isClosed(type)) return this.#stand(type);
    const fields = this.#fields(type, { ...place, owner: ownerOf(name, place) }, [...above, type]);
    const needed = this.nameable(type.aliasSymbol ?? type.symbol);
    const index = fields.length === 0 ? checker.getIndexTypeOfType(type, ts.IndexKind.String) : undefined;
    if (index)
      return object([['first', this.make(index, { ...place, field: 'first' }, [...above, type])]], needed);
    return object(fields, needed && !hasParameters(type) ? needed : undefined);
  }

  #list(type: Ts.Type, place: Place, above: readonly Ts.Type[]): Value {
    const [element] = this.given.checker.getTypeArguments(type as Ts.TypeReference);
    if (!element || (above.includes(element) && above.length > 1)) return { kind: 'list', items: [] };
    const one = singular(place.field);
    const items = [0, 1].map((index) =>
      this.make(
        element,
        { owner: ownerOf('', { ...place, field: one }), field: one, path: [...place.path, index] },
        above,
      ),
    );
    // A list of one and the same says nothing.
    const isSame = items.every((item) => JSON.stringify(item) === JSON.stringify(items[0]));
    const [first] = items;
    const kept = isSame ? items.slice(0, 1) : items;
    const of = first?.kind === 'object' ? first.type : undefined;
    const bare = kept.map((item) => (item.kind === 'object' ? object(item.fields) : item));
    return of ? { kind: 'list', items: bare, type: of } : { kind: 'list', items: bare };
  }

  #fields(type: Ts.Type, place: Place, above: readonly Ts.Type[]): readonly Field[] {
    const { ts, checker, at, isFull } = this.given;
    return checker.getPropertiesOfType(type).flatMap((property): Field[] => {
      const isOptional = (property.flags & ts.SymbolFlags.Optional) !== 0;
      if (property.name.startsWith('__') || (isOptional && !isFull)) return [];
      if (isOptional && above.length > 2) return [];
      const own = checker.getTypeOfSymbolAtLocation(property, at);
      // A type that holds itself ends here, where it may.
      if (isOptional && this.#leadsTo(own, above)) return [];
      const made = this.make(
        own,
        { ...place, field: property.name, path: [...place.path, property.name] },
        above,
      );
      return made.kind === 'code' && made.code === 'undefined' ? [] : [[property.name, made]];
    });
  }

  #leadsTo(type: Ts.Type, above: readonly Ts.Type[]): boolean {
    const { checker } = this.given;
    const parts = type.isUnion() ? type.types : [type];
    return parts.some(
      (one) =>
        above.includes(one) ||
        (checker.isArrayType(one) && above.includes(checker.getTypeArguments(one as Ts.TypeReference)[0]!)),
    );
  }

  #function(call: Ts.Signature, place: Place, above: readonly Ts.Type[]): Value {
    const { ts, checker } = this.given;
    const answer = checker.getReturnTypeOfSignature(call);
    const nothing =
      ts.TypeFlags.Void |
      ts.TypeFlags.Undefined |
      ts.TypeFlags.Any |
      ts.TypeFlags.Unknown |
      ts.TypeFlags.Never;
    if (answer.flags & nothing) return spyValue();
    if (answer.isUnion() && answer.types.some(({ flags }) => flags & ts.TypeFlags.Void)) return spyValue();
    const promised =
      answer.symbol?.name === 'Promise' ? checker.getTypeArguments(answer as Ts.TypeReference)[0] : undefined;
    if (promised && promised.flags & nothing) return spyOf('() => Promise.resolve(', code(''), ')');
    const made = this.make(promised ?? answer, { ...place, path: [...place.path, 0] }, [...above, answer]);
    return functionOf(made, promised !== undefined);
  }

  /** Types that the platform and the frameworks have, which nobody writes out. */
  #wellKnown(name: string, type: Ts.Type, place: Place, above: readonly Ts.Type[]): Value | undefined {
    const { checker, isJson, framework } = this.given;
    const aliased = type.aliasTypeArguments?.[0];
    const argument =
      (checker.getTypeArguments(type as Ts.TypeReference) as (Ts.Type | undefined)[])[0] ?? aliased;
    const inner = () => (argument ? this.make(argument, place, above) : code('undefined'));
    switch (name) {
      case 'Readonly':
      case 'DeepReadonly':
      case 'NonNullable':
        return aliased && aliased !== type && this.#isWellKnown(aliased)
          ? this.make(aliased, place, above)
          : undefined;
      case 'Date': {
        const moment = momentOf(place);
        return isJson ? text(moment) : { kind: 'code', code: `new Date('${moment}')` };
      }
      case 'RegExp':
        return code('/hive/');
      case 'Map':
      case 'ReadonlyMap':
        return code('new Map()');
      case 'Set':
      case 'ReadonlySet':
      case 'WeakMap':
        return code(`new ${name.replace('Readonly', '')}()`);
      case 'URL':
        return code("new URL('https://brackenfold.example/')");
      case 'Error':
        return {
          kind: 'code',
          code: "new Error('The hive is closed')",
          varied: "new Error('The yard is shut')",
        };
      case 'File':
        return code("new File(['…'], 'frame.png', { type: 'image/png' })");
      case 'Blob':
        return code("new Blob(['…'])");
      case 'AbortSignal':
        return code('new AbortController().signal');
      case 'Promise':
        return around('Promise.resolve(', inner(), ')');
      case 'ReactNode':
      case 'ReactPortal':
        return this.#node(place);
      case 'ReactElement':
      case 'Element':
        return framework === 'react'
          ? { kind: 'code', code: '<span>Content</span>', varied: '<span>Other content</span>' }
          : undefined;
      case 'RefObject':
      case 'MutableRefObject':
        return code('{ current: null }');
      case 'ComponentType':
      case 'FunctionComponent':
      case 'ForwardRefExoticComponent':
        return code('() => null');
      case 'CSSProperties':
      case 'StyleValue':
        return object([]);
      case 'VNode':
      case 'VNodeChild':
        return text('Content');
      case 'Ref':
      case 'ShallowRef':
      case 'ComputedRef':
      case 'ModelRef':
        if (framework !== 'vue') return undefined;
        return typed('ref', inner(), { name: 'ref', from: 'vue' });
      case 'Signal':
      case 'WritableSignal':
      case 'InputSignal':
        if (framework !== 'angular') return undefined;
        return typed('signal', inner(), { name: 'signal', from: '@angular/core' });
      case 'Observable':
        return typed('of', inner(), { name: 'of', from: 'rxjs' });
      case 'Subject':
      case 'EventEmitter':
        return undefined;
      default:
        return /^HTML\w*Element$|^Element$|^Node$/.test(name)
          ? code("document.createElement('div')")
          : undefined;
    }
  }

  #isWellKnown(type: Ts.Type): boolean {
    return (
      type.symbol !== undefined &&
      /^(Ref|ShallowRef|ComputedRef|Signal|WritableSignal|Observable|Map|Set|Date)$/.test(type.symbol.name)
    );
  }

  /** A class with members that only it can have. */
  #isClosed(type: Ts.Type): boolean {
    const { ts } = this.given;
    return (
      type.isClass() ||
      (type.symbol?.declarations ?? []).some(
        (one) =>
          ts.isClassDeclaration(one) &&
          one.members.some((member) => member.name && ts.isPrivateIdentifier(member.name)),
      )
    );
  }

  #stand(type: Ts.Type): Value {
    const needed = this.nameable(type.symbol);
    return needed ? standFor(type, valueOf(needed), this.given) : object([]);
  }

  /** What a stand-in has to hold: signals, streams and values; and what its methods answer, where that is something. */
  held(type: Ts.Type): readonly Field[] {
    const { ts, checker, at } = this.given;
    return checker.getPropertiesOfType(type).flatMap((property): Field[] => {
      const declared = property.valueDeclaration;
      const hidden = declared
        ? ts.getCombinedModifierFlags(declared as Ts.Declaration) &
          (ts.ModifierFlags.Private | ts.ModifierFlags.Protected)
        : 0;
      if (hidden || property.name.startsWith('#') || property.name.startsWith('__')) return [];
      const own = checker.getTypeOfSymbolAtLocation(property, at);
      const place = { owner: property.name, field: property.name, path: [property.name] };
      const made = this.make(own, place, [type]);
      if (made.kind === 'code' && /^(spy\(\)|undefined|null|\{\})$/.test(made.code)) return [];
      if (made.kind === 'object' && made.fields.length === 0) return [];
      return [[property.name, answerOf(made)]];
    });
  }

  /** How another file can import a type; undefined for one that it cannot name. */
  nameable(symbol: Ts.Symbol | undefined): Needed | undefined {
    const { ts, checker } = this.given;
    const declared = symbol?.declarations?.[0];
    if (!symbol || !declared || symbol.name.startsWith('__')) return undefined;
    const source = declared.getSourceFile();
    if (/[\\/]node_modules[\\/]|[\\/]lib\.\w+.*\.d\.ts$/.test(source.fileName)) return undefined;
    const module = checker.getSymbolAtLocation(source);
    if (!module) return undefined;
    const exported = checker
      .getExportsOfModule(module)
      .find((one) => (one.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(one) : one) === symbol);
    if (!exported) return undefined;
    const from = source.fileName.replace(/\.vue\.tsx?$/, '.vue');
    return exported.name === 'default'
      ? { name: 'default', local: symbol.name, from, isType: true }
      : { name: exported.name, from, isType: true };
  }
}

/** A stand-in makes the spies itself. */
const answerOf = (made: Value): Value =>
  made.kind === 'around' && isSpy(made)
    ? { ...made, before: made.before.slice('spy('.length), after: made.after.slice(0, -1), needs: [] }
    : made;

/** `standIn(HiveStore, { hives: signal([…]) })` */
export function standFor(type: Ts.Type, needed: Needed, sampling: Sampling): Value {
  const fields = new Sampler(sampling).held(type);
  const needs = [{ name: 'standIn', from: 'simulacra' }, needed];
  const called = needed.local ?? needed.name;
  return fields.length === 0
    ? code(`standIn(${called})`, ...needs)
    : around(`standIn(${called}, `, object(fields), ')', ...needs);
}

const valueOf = ({ name, local, from }: Needed): Needed =>
  local === undefined ? { name, from } : { name, local, from };

/** `ref<Alert[]>([…])`: with its type where it has one, as words of a union would become any text. */
function typed(called: string, value: Value, needed: Needed): Value {
  const type = (value.kind === 'list' || value.kind === 'object') && called !== 'of' ? value.type : undefined;
  const name = type && `<${type.local ?? type.name}${value.kind === 'list' ? '[]' : ''}>`;
  const own = type ? [{ ...type, isType: true } as const] : [];
  return around(`${called}${name ?? ''}(`, value, ')', needed, ...own);
}

/** What is called and answers with a value. */
function functionOf(made: Value, isPromise: boolean): Value {
  if (isPromise) return spyOf('() => Promise.resolve(', made, ')');
  if (isSpy(made)) return made.kind === 'code' ? spyOf('() => ', made) : spyValue();
  return made.kind === 'object' ? spyOf('() => (', made, ')') : spyOf('() => ', made);
}

export const quote = (words: string): string =>
  `'${words.replace(/[\\']/g, '\\$&').replace(/\n/g, '\\n').replace(/\r/g, '\\r')}'`;
export const nameField = (key: string): string => (/^[A-Za-z_$][\w$]*$/.test(key) ? key : quote(key));

const isNode = (type: Ts.UnionType): boolean =>
  type.aliasSymbol?.name === 'ReactNode' ||
  type.aliasSymbol?.name === 'VNodeChild' ||
  type.types.some(({ symbol }) => symbol?.name === 'ReactPortal' || symbol?.name === 'ReactElement');

const hasParameters = (type: Ts.Type): boolean =>
  (type.aliasTypeArguments?.length ?? 0) > 0 || ((type as Ts.TypeReference).typeArguments?.length ?? 0) > 0;

const ownerOf = (name: string, { field, owner }: Place): string =>
  name && !name.startsWith('__')
    ? name.replace(/^I(?=[A-Z])|(Type|Model|Dto|Data|Props)$/g, '') || name
    : field || owner;

/** `hive` of `hives`. */
export const singular = (name: string): string =>
  name
    .replace(/ies$/, 'y')
    .replace(/(?<=[a-z]{2})(ch|sh|x|ss)es$/, '$1')
    .replace(/(?<=[^s])s$/, '');
