import type * as Ts from 'typescript';
import type { Value } from '../value';
import { sample, type Sampling } from './sample';
import { samplingIn } from './sampling';
import { singular } from '../write/words';
import type { Types } from './service';
import { sampleOfUse } from './use';

/** A place where something is asked for, and what it is. */
interface AskedAt {
  readonly file: string;
  readonly line: number;
  /** The path that is asked for: `/api/hives/:hiveId`. */
  readonly path: string;
}

/** The answer that the asking code expects; undefined where nothing shows it. */
export function sampleAnswer(
  types: Types,
  { file, line, path }: AskedAt,
  framework: Sampling['framework'],
): Value | undefined {
  const sampling = samplingIn(types, file, framework, true);
  if (!sampling) return undefined;
  const { ts, source } = sampling;
  const place = placeOf(path);
  const calls = callsAt(ts, source, line);
  // What is asked for comes in a promise, an Observable, a resource; what else is called on the line does not.
  const asking = calls.filter((call) => isWrapped(sampling, sampling.checker.getTypeAtLocation(call)));
  for (const call of new Set([...asking, ...calls])) {
    const type = answerType(sampling, call);
    if (type) return sample(type, place, sampling);
  }
  for (const call of callsAt(ts, source, line)) {
    const used = answerUsed(sampling, call, place);
    if (used) return used;
  }
  return undefined;
}

/** What an operation of GraphQL is expected to answer, by how a client is called for it in some files. */
export function sampleOperation(
  types: Types,
  files: readonly string[],
  name: string,
  framework: Sampling['framework'],
): Value | undefined {
  const place = { owner: name, field: 'data', path: [] };
  for (const file of files) {
    const sampling = samplingIn(types, file, framework, true);
    if (!sampling) continue;
    const { checker, source } = sampling;
    const call = findCall(
      types.ts,
      source,
      (one) => asksOperation.test(one.expression.getText()) && one.typeArguments !== undefined,
    );
    const [argument] = call?.typeArguments ?? [];
    if (argument) return sample(checker.getTypeFromTypeNode(argument), place, sampling);
    const used = /query|mutation|subscription/i.test(source.text)
      ? sampleOfUse(types.ts, source, 'data', place)
      : undefined;
    if (used?.kind === 'object') {
      const [[key, inner] = ['', used]] = used.fields;
      return key === 'value' && used.fields.length === 1 ? inner : used;
    }
  }
  return undefined;
}

const asksOperation = /(query|mutation|subscription)(Ref)?$/i;

function findCall(
  ts: typeof Ts,
  source: Ts.SourceFile,
  fits: (call: Ts.CallExpression) => boolean,
): Ts.CallExpression | undefined {
  const look = (node: Ts.Node): Ts.CallExpression | undefined =>
    ts.isCallExpression(node) && fits(node) ? node : ts.forEachChild(node, look);
  return look(source);
}

export function placeOf(path: string) {
  const words = path.split(/[/?]/).filter((part) => /^[A-Za-z][\w-]*$/.test(part));
  const field = (words.at(-1) ?? 'value').replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
  return { owner: singular(field), field, path: [field] };
}

/** The calls that begin on a line, the innermost first. */
function callsAt(ts: typeof Ts, source: Ts.SourceFile, line: number): readonly Ts.CallExpression[] {
  const found: Ts.CallExpression[] = [];
  const lineOf = (at: number) => source.getLineAndCharacterOfPosition(at).line + 1;
  const look = (node: Ts.Node): void => {
    if (lineOf(node.getStart(source)) > line || lineOf(node.end) < line) return;
    ts.forEachChild(node, look);
    // What begins a chain stands on a line of its own.
    if (
      ts.isCallExpression(node) &&
      (lineOf(node.getStart(source)) === line || lineOf(node.expression.end) === line)
    )
      found.push(node);
  };
  look(source);
  return found;
}

function answerType(sampling: Sampling, call: Ts.CallExpression): Ts.Type | undefined {
  const { checker } = sampling;
  const direct = useful(sampling, unwrap(sampling, checker.getTypeAtLocation(call)));
  if (direct) return direct;
  for (const sink of sinksOf(sampling, call)) {
    const wanted = checker.getContextualType(sink) ?? checker.getTypeAtLocation(sink);
    const found =
      useful(sampling, unwrap(sampling, wanted)) ??
      useful(sampling, unwrap(sampling, checker.getTypeAtLocation(sink)));
    if (found) return found;
  }
  return undefined;
}

/** Where what was answered goes: `.json()`, what it is handed to, the variable that holds it. */
function sinksOf({ ts }: Sampling, call: Ts.CallExpression): readonly Ts.Expression[] {
  const around = enclosing(ts, call);
  const sinks: Ts.Expression[] = [];
  const add = (start: Ts.Expression): void => {
    let node = start;
    for (;;) {
      sinks.push(node);
      const { parent } = node;
      if (
        ts.isAwaitExpression(parent) ||
        ts.isParenthesizedExpression(parent) ||
        ts.isAsExpression(parent) ||
        ts.isNonNullExpression(parent) ||
        ts.isConditionalExpression(parent)
      )
        node = parent;
      else if (ts.isArrowFunction(parent) && parent.body === node) {
        // What a step of a chain returns is what the chain goes on with.
        const { parent: chain } = parent;
        if (!ts.isCallExpression(chain)) return;
        node = chain;
      } else if (
        ts.isPropertyAccessExpression(parent) &&
        ts.isCallExpression(parent.parent) &&
        /^(then|catch|finally|subscribe|pipe)$/.test(parent.name.text)
      ) {
        for (const given of parent.parent.arguments) if (parent.name.text !== 'catch') addCallback(given);
        node = parent.parent;
      } else if (ts.isVariableDeclaration(parent) && ts.isIdentifier(parent.name)) {
        for (const use of usesOf(ts, around, parent.name.text)) sinks.push(use);
        return;
      } else return;
    }
  };
  const addCallback = (given: Ts.Expression): void => {
    if (ts.isArrowFunction(given) || ts.isFunctionExpression(given)) {
      const parameter = given.parameters[0]?.name;
      if (parameter && ts.isIdentifier(parameter)) {
        sinks.push(parameter);
        for (const use of usesOf(ts, given.body, parameter.text)) sinks.push(use);
      }
      return;
    }
    sinks.push(given);
  };
  const look = (node: Ts.Node): void => {
    if (
      ts.isCallExpression(node) &&
      ts.isPropertyAccessExpression(node.expression) &&
      node.expression.name.text === 'json'
    )
      add(node);
    ts.forEachChild(node, look);
  };
  look(around);
  add(call);
  return sinks;
}

function usesOf(ts: typeof Ts, scope: Ts.Node, name: string): readonly Ts.Identifier[] {
  const found: Ts.Identifier[] = [];
  const look = (node: Ts.Node): void => {
    if (ts.isIdentifier(node) && node.text === name && !ts.isVariableDeclaration(node.parent))
      found.push(node);
    ts.forEachChild(node, look);
  };
  look(scope);
  return found;
}

function enclosing(ts: typeof Ts, node: Ts.Node): Ts.Node {
  let found: Ts.Node = node;
  for (let at: Ts.Node = node; at.parent; at = at.parent) {
    found = at;
    if (ts.isFunctionDeclaration(at) || ts.isMethodDeclaration(at)) return at;
    if ((ts.isArrowFunction(at) || ts.isFunctionExpression(at)) && !ts.isCallExpression(at.parent)) return at;
    if (
      (ts.isArrowFunction(at) || ts.isFunctionExpression(at)) &&
      /^(useEffect|useCallback|onMounted|watch|watchEffect)$/.test(
        (at.parent as Ts.CallExpression).expression?.getText() ?? '',
      )
    )
      return at;
  }
  return found;
}

const wrappers =
  /^(TypedDocumentNode|Promise|PromiseLike|Observable|AxiosResponse|HttpResponse|Ref|ShallowRef|Signal|WritableSignal|ResponsePromise|UseFetchReturn|HttpResourceRef|ResourceRef)$/;

const isWrapped = (sampling: Sampling, type: Ts.Type): boolean =>
  type.isUnion()
    ? type.types.some((one) => isWrapped(sampling, one))
    : wrappers.test((type.symbol as Ts.Symbol | undefined)?.name ?? '') &&
      useful(sampling, unwrap(sampling, type)) !== undefined;

/** What a promise, an Observable or a response of a client holds. */
function unwrap(sampling: Sampling, type: Ts.Type): Ts.Type {
  const { checker, ts } = sampling;
  if (type.isUnion()) {
    const inner = type.types.find((one) => wrappers.test(one.symbol?.name ?? ''));
    if (inner) return unwrap(sampling, inner);
  }
  // A function that is handed the answer: the setter of a state, say.
  const [call] = type.getCallSignatures();
  if (call && call.parameters.length > 0) {
    const first = checker.getTypeOfSymbolAtLocation(call.parameters[0]!, sampling.at);
    if (!(first.flags & ts.TypeFlags.Any)) return unwrap(sampling, first);
  }
  if (!wrappers.test(type.symbol?.name ?? '')) return type;
  const [argument] = checker.getTypeArguments(type as Ts.TypeReference);
  return argument ? unwrap(sampling, argument) : type;
}

/** A type that says what an answer looks like; not that of a callback, of any value, or of a response. */
function useful({ ts }: Sampling, type: Ts.Type): Ts.Type | undefined {
  const { TypeFlags } = ts;
  const none =
    TypeFlags.Any |
    TypeFlags.Unknown |
    TypeFlags.Void |
    TypeFlags.Never |
    TypeFlags.Undefined |
    TypeFlags.Null;
  const says = (one: Ts.Type): boolean =>
    (one.flags & (none | TypeFlags.TypeParameter | TypeFlags.NonPrimitive)) === 0 &&
    one.getCallSignatures().length === 0 &&
    !/^(DocumentNode|Response|Body|Event|Error|Object|AbortSignal|Subscription)$/.test(
      one.symbol?.name ?? '',
    ) &&
    !(one.getProperties().length === 0 && one.flags & TypeFlags.Object);
  return (type.isUnion() ? type.types.some(says) : says(type)) ? type : undefined;
}

/** By what the code does with the answer. */
function answerUsed(
  { ts }: Sampling,
  call: Ts.CallExpression,
  place: ReturnType<typeof placeOf>,
): Value | undefined {
  const around = enclosing(ts, call);
  const names = new Set<string>();
  const look = (node: Ts.Node): void => {
    if (
      ts.isVariableDeclaration(node) &&
      ts.isIdentifier(node.name) &&
      /\.json\(|await/.test(node.initializer?.getText() ?? '')
    )
      names.add(node.name.text);
    if (
      ts.isCallExpression(node) &&
      ts.isIdentifier(node.expression) &&
      /^set[A-Z]/.test(node.expression.text)
    ) {
      const state = node.expression.text.slice(3);
      names.add(state.charAt(0).toLowerCase() + state.slice(1));
    }
    if (
      ts.isArrowFunction(node) &&
      ts.isCallExpression(node.parent) &&
      /\.(then|subscribe)$/.test(node.parent.expression.getText()) &&
      node.parameters[0] &&
      ts.isIdentifier(node.parameters[0].name)
    )
      names.add(node.parameters[0].name.text);
    ts.forEachChild(node, look);
  };
  look(around);
  // The state of a component is used outside of the effect that sets it.
  const whole = call.getSourceFile();
  for (const name of [...names].reverse()) {
    if (/^(response|res|error|e|r)$/.test(name)) continue;
    const value = sampleOfUse(ts, whole, name, place);
    if (value && (value.kind === 'list' || value.kind === 'object')) return value;
  }
  return undefined;
}
