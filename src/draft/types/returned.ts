import type * as Ts from 'typescript';
import type { Needed, Value } from '../value';
import { typeOfExport } from './props';
import { sample, standFor, type Sampling } from './sample';
import { samplingIn } from './sampling';
import { singular } from '../write/words';
import type { Types } from './service';

/** What a hook or a function returns, or what a context, a key or a token holds. */
export function sampleReturned(
  types: Types,
  file: string,
  exported: string,
  framework: Sampling['framework'],
): Value | undefined {
  const sampling = samplingIn(types, file, framework);
  if (!sampling) return undefined;
  const { ts, checker, source } = sampling;
  const type = typeOfExport(checker, ts, source, exported);
  const [call] = type?.getCallSignatures() ?? [];
  if (!call) return undefined;
  const answer = checker.getReturnTypeOfSignature(call);
  const name = exported.replace(/^use(?=[A-Z])/, '');
  const field = name.charAt(0).toLowerCase() + name.slice(1);
  return sample(answer, { owner: singular(field), field, path: [field] }, sampling);
}

/** The value that is provided for a context, an injection key or a token; undefined where its type says nothing. */
export function sampleProvided(
  types: Types,
  file: string,
  exported: string,
  framework: Sampling['framework'],
): Value | undefined {
  const sampling = samplingIn(types, file, framework);
  if (!sampling) return undefined;
  const { ts, checker, source } = sampling;
  const type = typeOfExport(checker, ts, source, exported);
  const held = type && heldBy(type, checker);
  if (!held) return undefined;
  const bare = checker.getNonNullableType(held);
  if (bare.flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown | ts.TypeFlags.Never)) return undefined;
  const name = exported.replace(/(Context|Key|Token)$|_(CONTEXT|KEY|TOKEN)$/, '').toLowerCase() || 'value';
  return sample(bare, { owner: name, field: name, path: [name] }, sampling);
}

function heldBy(type: Ts.Type, checker: Ts.TypeChecker): Ts.Type | undefined {
  if (
    !/^(Context|InjectionKey|InjectionToken)$/.test(type.symbol?.name ?? '') &&
    !/^InjectionKey$/.test(type.aliasSymbol?.name ?? '')
  )
    return undefined;
  return type.aliasTypeArguments?.[0] ?? checker.getTypeArguments(type as Ts.TypeReference)[0];
}

/** What a file takes a token for that says nothing itself: `@Inject(DATA) data: HiveData`, `inject<HiveData>(DATA)`. */
export function sampleInjected(types: Types, file: string, token: string): Value | undefined {
  const sampling = samplingIn(types, file, 'angular');
  if (!sampling) return undefined;
  const { ts, checker, source } = sampling;
  const isAsked = (call: Ts.Node): call is Ts.CallExpression =>
    ts.isCallExpression(call) &&
    /^[iI]nject$/.test(call.expression.getText()) &&
    call.arguments[0]?.getText() === token;
  const look = (node: Ts.Node): Ts.Node | undefined => {
    if (ts.isParameter(node) && ts.getDecorators(node)?.some((one) => isAsked(one.expression))) return node;
    if (isAsked(node) && !ts.isDecorator(node.parent))
      return ts.isAsExpression(node.parent) || ts.isPropertyDeclaration(node.parent) ? node.parent : node;
    return ts.forEachChild(node, look);
  };
  const place = look(source);
  const type = place && checker.getNonNullableType(checker.getTypeAtLocation(place));
  if (!type || type.flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown | ts.TypeFlags.Never)) return undefined;
  const name = token.replace(/_?TOKEN$|Token$/, '').toLowerCase() || 'value';
  return sample(type, { owner: name, field: name, path: [name] }, sampling);
}

/** A stand-in for a service: what it holds is given values, what it does is recorded. */
export function sampleStandIn(
  types: Types,
  needed: Needed,
  file = needed.from,
  isWanted?: (member: string) => boolean,
): Value | undefined {
  const sampling = samplingIn(types, file, 'angular');
  if (!sampling) return undefined;
  const type = typeOfExport(sampling.checker, sampling.ts, sampling.source, needed.name);
  const [made] = type?.getConstructSignatures() ?? [];
  const instance = made?.getReturnType() ?? declaredBy(type);
  if (!instance) return undefined;
  return standFor(instance, needed, sampling, isWanted);
}

// The instance of an abstract class has no signature that makes it.
const declaredBy = (type: Ts.Type | undefined): Ts.Type | undefined => {
  const prototype = type?.getProperty('prototype');
  return prototype && (prototype as unknown as { links?: { type?: Ts.Type } }).links?.type;
};
