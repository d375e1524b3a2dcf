import { readFileSync } from 'node:fs';
import type * as Ts from 'typescript';
import type { Place } from '../../network/contract/plausible';
import type { Framework } from '../../survey/facts';
import type { DeclaredSeen } from '../run/observed';
import { code, isSpy, spyValue, type Value } from '../value';
import { ofKind } from './leaf';
import { sampleOfTemplate, templateOf } from './use';
import { sample, type Sampling } from './sample';
import { samplingIn } from './sampling';
import { singular } from '../write/words';
import type { Types } from './service';
import { angularInputs } from './props-angular';
import { vueProps } from './props-vue';

/** One prop or input, as its type has it. */
export interface PropFact {
  readonly name: string;
  /** What it goes by in templates, where that is another name. */
  readonly alias?: string;
  readonly isRequired: boolean;
  readonly value: Value;
  /** Other values that may make a difference: the other words of a union, the other of two. */
  readonly others: readonly Value[];
  readonly isCallback: boolean;
}

/** A prop as it is declared. */
export interface Declared {
  readonly name: string;
  readonly alias?: string;
  readonly type: Ts.Type;
  readonly isRequired: boolean;
  /** Words of the code for what it is unless given. */
  readonly unless?: string;
  /** The constructor that a value has to be of, where that is all that is said: `Object`. */
  readonly runtime?: string;
}

/** The props of a component; undefined where nothing is known of them. */
export function readProps(
  types: Types,
  file: string,
  exported: string,
  framework: Framework,
): readonly PropFact[] | undefined {
  const sampling = samplingIn(types, file, framework);
  if (!sampling) return undefined;
  const { ts, source } = sampling;
  const read = { react: reactProps, vue: vueProps, angular: angularInputs }[framework];
  const declared = read(sampling, source, exported);
  const uses = usesIn(ts, source, file);
  // What may be nothing but left out, `children?: never`, is no prop.
  const isNever = ({ type }: Declared) =>
    (sampling.checker.getNonNullableType(type).flags & sampling.ts.TypeFlags.Never) !== 0;
  return declared
    ?.filter((one) => isOwn(one.name) && !isNever(one))
    .map((one) => factOf(one, sampling, uses));
}

/** A prop that only the component itself declares when it runs. */
export function factOfDeclared({ name, kinds, isRequired }: DeclaredSeen): PropFact {
  const place = { owner: singular(name), field: name, path: [name] };
  const [kind = ''] = kinds.includes('String') ? ['String'] : kinds;
  const value = ofKind(kind, place);
  const others = kind === 'Boolean' ? [code('true')] : [];
  return { name, isRequired, value, others, isCallback: isSpy(value) };
}

/** What a prop without a type has to look like, by what the component does with it. */
type Uses = (name: string, place: Place) => Value | undefined;

function usesIn(ts: typeof Ts, source: Ts.SourceFile, file: string): Uses {
  const template = file.endsWith('.vue') ? templateOf(readFileSync(file, 'utf8')) : '';
  const script = { ts, source };
  return (name, place) => sampleOfTemplate(template, name, place, script);
}

const isOwn = (name: string): boolean => !/^(key|ref|__\w+)$/.test(name);

function factOf(declared: Declared, sampling: Sampling, uses: Uses): PropFact {
  const { name, type, isRequired, alias } = declared;
  const { checker } = sampling;
  const bare = checker.getNonNullableType(type);
  const place = { owner: singular(name), field: name, path: [name] };
  const value = untyped(declared, sampling, place, uses) ?? sample(bare, place, sampling);
  const isCallback = isSpy(value);
  const others = othersOf(declared, bare, value, sampling);
  return { name, ...(alias !== undefined && { alias }), isRequired, value, others, isCallback };
}

/** A value for what has no type but a constructor, or none at all. */
function untyped(
  { name, type, runtime }: Declared,
  { ts, framework }: Sampling,
  place: Place,
  uses: Uses,
): Value | undefined {
  if ((type.flags & ts.TypeFlags.Any) === 0) return undefined;
  const used = uses(name, place);
  switch (runtime) {
    case 'Array':
      return used?.kind === 'list' ? used : { kind: 'list', items: [] };
    case 'Object':
      return used?.kind === 'object' ? used : { kind: 'object', fields: [] };
    case 'Function':
      return spyValue();
    case 'Date':
      return {
        kind: 'code',
        code: "new Date('2031-05-04T08:00:00Z')",
        varied: "new Date('2032-06-05T08:00:00Z')",
      };
    case undefined:
      return framework === 'react' || used?.kind === 'list' || used?.kind === 'object' ? used : undefined;
    default:
      return undefined;
  }
}

/** What else a prop can be, where that is a choice of a few. */
function othersOf(
  { name, isRequired, unless }: Declared,
  type: Ts.Type,
  value: Value,
  sampling: Sampling,
): readonly Value[] {
  const { ts } = sampling;
  const parts = type.isUnion() ? type.types : [type];
  if (parts.every(({ flags }) => flags & ts.TypeFlags.BooleanLike)) {
    if (isRequired) return [code('true')];
    return [code(unless === 'true' ? 'false' : 'true')];
  }
  if (parts.length > 8 || !parts.every((one) => one.isStringLiteral() || one.isNumberLiteral())) return [];
  const taken = value.kind === 'text' ? value.text : value.kind === 'code' ? value.code : '';
  return parts
    .map((one) => sample(one, { owner: name, field: name, path: [name] }, sampling))
    .filter(
      (one) =>
        (one.kind === 'text' ? one.text : one.kind === 'code' ? one.code : '') !== taken || !isRequired,
    );
}

function reactProps(
  { ts, checker, at }: Sampling,
  source: Ts.SourceFile,
  exported: string,
): readonly Declared[] | undefined {
  const type = typeOfExport(checker, ts, source, exported);
  if (!type) return undefined;
  const [parameter] = type.getCallSignatures()[0]?.parameters ?? [];
  const [made] = type.getConstructSignatures();
  const ofClass = made && checker.getPropertyOfType(made.getReturnType(), 'props');
  const own = parameter ?? ofClass;
  if (!own) return type.getCallSignatures().length > 0 || made ? [] : undefined;
  const props = checker.getTypeOfSymbolAtLocation(own, at);
  const chosen = props.isUnion() ? props.types[0]! : props;
  const all = checker.getPropertiesOfType(chosen);
  // What every element of the platform takes is no prop of the component's own.
  const kept = all.filter((one) => !isOfPlatform(one) || one.name === 'children');
  return kept.map((property) => declare(property, checker, ts, at));
}

/** A member of a type, as a prop. */
export const declare = (
  property: Ts.Symbol,
  checker: Ts.TypeChecker,
  ts: typeof Ts,
  at: Ts.Node,
): Declared => {
  const type = checker.getTypeOfSymbolAtLocation(property, at);
  const isOptional = (property.flags & ts.SymbolFlags.Optional) !== 0;
  return { name: property.name, type, isRequired: !isOptional };
};

const isOfPlatform = (property: Ts.Symbol): boolean =>
  (property.declarations ?? []).length > 0 &&
  property.declarations!.every((one) =>
    /[\\/]node_modules[\\/](@types[\\/]react|csstype|@vue|vue)[\\/]/.test(one.getSourceFile().fileName),
  );

/** The type of what a file exports under a name. */
export function typeOfExport(
  checker: Ts.TypeChecker,
  ts: typeof Ts,
  source: Ts.SourceFile,
  exported: string,
): Ts.Type | undefined {
  const module = checker.getSymbolAtLocation(source);
  const symbol = module && checker.getExportsOfModule(module).find(({ name }) => name === exported);
  if (!symbol) return undefined;
  const real = symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
  return checker.getTypeOfSymbolAtLocation(real, source);
}
