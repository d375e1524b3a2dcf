import type * as Ts from 'typescript';
import { textOf, type Place } from '../../network/contract/plausible';
import { around, code, object, spyOf, spyValue, text, type Field, type Needed, type Value } from '../value';
import { answerOf, functionOf, valueOf } from './called';
import { numberFor, unknownOf, wordsFor } from './leaf';
import { quote, singular } from '../write/words';
import { hasParameters, isKeyOf, isOwn, isNode, isOfPage, ownerOf } from './kinds';
import { isHolder, ofFramework, ofPlatform, signalOf } from './known';
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
  /** True for what stands for a service. */
  #isStanding = false;
  /** Whether something was made that JSON holds in another form than its type says. */
  #isOther = false;

  constructor(readonly given: Sampling) {}

  make(type: Ts.Type, place: Place, above: readonly Ts.Type[]): Value {
    const { ts } = this.given;
    const { flags } = type;
    const is = (flag: Ts.TypeFlags) => (flags & flag) !== 0;
    if (is(ts.TypeFlags.EnumLike) && !type.isUnion()) return this.#member(type);
    if (is(ts.TypeFlags.StringLiteral)) return text((type as Ts.StringLiteralType).value, true);
    if (is(ts.TypeFlags.NumberLiteral)) return code(String((type as Ts.NumberLiteralType).value));
    if (is(ts.TypeFlags.BooleanLiteral)) return code(this.given.checker.typeToString(type));
    if (is(ts.TypeFlags.BigIntLike)) return code('3n');
    // The name of a member of something that is not known yet.
    if (isKeyOf(type, ts)) return code(`${quote(textOf(place))} as never`);
    if (is(ts.TypeFlags.StringLike)) return wordsFor(place);
    if (is(ts.TypeFlags.NumberLike)) return numberFor(place);
    if (is(ts.TypeFlags.BooleanLike)) return code('false');
    if (is(ts.TypeFlags.Null)) return code('null');
    if (is(ts.TypeFlags.Undefined | ts.TypeFlags.Void)) return code('undefined');
    if (is(ts.TypeFlags.ESSymbolLike)) return code('Symbol()');
    if (is(ts.TypeFlags.Any | ts.TypeFlags.Unknown)) return unknownOf(place);
    if (is(ts.TypeFlags.TypeParameter | ts.TypeFlags.Conditional | ts.TypeFlags.IndexedAccess)) {
      // What a method answers with that is said by each call of it.
      if (this.#isStanding && is(ts.TypeFlags.TypeParameter)) return code('undefined');
      const known = this.given.checker.getBaseConstraintOfType(type);
      return known && known !== type ? this.make(known, place, above) : unknownOf(place);
    }
    if (type.isUnion()) return this.#union(type, place, above);
    return this.#object(type, place, above);
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
    if (isOfPage(type)) return code('{} as never');
    if (above.includes(type) || above.length >= deepest) return object([]);
    if (this.#isClosed(type)) return this.#stand(type);
    const fields = this.#fields(type, { ...place, owner: ownerOf(name, place) }, [...above, type]);
    const needed = this.#isOther ? undefined : this.nameable(type.aliasSymbol ?? type.symbol);
    const index = fields.length === 0 ? checker.getIndexTypeOfType(type, ts.IndexKind.String) : undefined;
    if (index)
      return object([['first', this.make(index, { ...place, field: 'first' }, [...above, type])]], needed);
    return object(fields, needed && !hasParameters(type) ? needed : undefined);
  }

  #wellKnown(name: string, type: Ts.Type, place: Place, above: readonly Ts.Type[]): Value | undefined {
    const { checker } = this.given;
    // A type of the project's own may be called as one of the platform is.
    if (isOwn(type.aliasSymbol ?? type.symbol)) return undefined;
    const [own] = checker.getTypeArguments(type as Ts.TypeReference) as readonly (Ts.Type | undefined)[];
    const aliased = type.aliasTypeArguments?.[0];
    if (/^(Readonly|DeepReadonly|NonNullable)$/.test(name))
      return aliased && aliased !== type && isHolder(aliased) ? this.make(aliased, place, above) : undefined;
    const argument = own ?? aliased;
    const inner = () => (argument ? this.make(argument, place, above) : code('undefined'));
    if (name === 'Date' && this.given.isJson) this.#isOther = true;
    if (name === 'ReactNode' || name === 'ReactPortal') return this.#node(place);
    return ofPlatform(name, place, this.given, inner) ?? ofFramework(name, this.given, inner);
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
  held(type: Ts.Type, called: string, isWanted: (member: string) => boolean): readonly Field[] {
    const { ts, checker, at } = this.given;
    this.#isStanding = true;
    return checker.getPropertiesOfType(type).flatMap((property): Field[] => {
      if (!isWanted(property.name)) return [];
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
      return [[property.name, signalOf(answerOf(made), `ReturnType<${called}['${property.name}']>`)]];
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

/** `standIn(HiveStore, { hives: signal([…]) })` */
export function standFor(
  type: Ts.Type,
  needed: Needed,
  sampling: Sampling,
  isWanted: (member: string) => boolean = () => true,
): Value {
  const called = needed.local ?? needed.name;
  const fields = new Sampler(sampling).held(type, called, isWanted);
  const needs = [{ name: 'standIn', from: 'simulacra' }, needed];
  return fields.length === 0
    ? code(`standIn(${called})`, ...needs)
    : around(`standIn(${called}, `, object(fields), ')', ...needs);
}
