import { readFileSync } from 'node:fs';
import { dirname, join, relative, sep } from 'node:path';
import { isSlip } from '../core/near';
import type { Unit } from '../survey/facts';
import type { SurveyNode } from '../survey/graph';
import { packageOf } from '../survey/project';
import { answerTo, channelValue, neededFor, referenceTo, timeValue, type Known } from './plan';
import type { Draft, Given } from './model';
import { wrapperNamed, wrapperOfPackage } from './packages';
import type { FailureSeen, PlaceSeen } from './run/observed';
import { readProps } from './types/props';
import { sampleProvided, sampleStandIn } from './types/returned';
import { leafOf } from './types/use';
import { code, constant, object, text, type Needed, type Value } from './value';

/** A draft that was changed for what a failure told, and what was done, in words. */
export interface Mended {
  readonly given: Given;
  readonly done: string;
  /** True for what may help: it is taken back where the same fails again. */
  readonly isGuess?: true;
}

/** Changes what is given for what has failed; nothing where that tells nothing new. */
export function mend(
  known: Known,
  draft: Draft,
  failures: readonly FailureSeen[],
  tried: ReadonlySet<string>,
): { draft: Draft; done: readonly string[]; isGuess: boolean } {
  let { given } = draft;
  let isGuess = false;
  const done: string[] = [];
  const [threw] = failures;
  for (const failure of failures) {
    // What was worded on the way and is not told at the end was dealt with by somebody.
    if (failure !== threw && !isTold(failure, threw!)) continue;
    // A consequence of what was mended already.
    if (done.length > 0 && failure.code === 'SIM-RENDER-THREW') continue;
    const mended = mendOne(known, { ...draft, given }, failure, tried);
    if (!mended || same(mended.given, given)) continue;
    given = mended.given;
    isGuess ||= mended.isGuess === true;
    done.push(mended.done);
  }
  return { draft: { ...draft, given }, done, isGuess };
}

const isTold = ({ code: told, message }: FailureSeen, threw: FailureSeen): boolean =>
  told !== threw.code && threw.message.includes(message.split('\n\n')[0]!);

const same = (one: Given, other: Given): boolean =>
  one === other || JSON.stringify(asData(one)) === JSON.stringify(asData(other));
const asData = (given: Given) =>
  Object.fromEntries(
    Object.entries(given).map(([key, value]) => [
      key,
      value instanceof Map ? [...(value as Map<string, Value>)] : value,
    ]),
  );

function mendOne(
  known: Known,
  draft: Draft,
  failure: FailureSeen,
  tried: ReadonlySet<string>,
): Mended | undefined {
  const { given } = draft;
  const { code: failed, fields } = failure;
  const words = (key: string): string | undefined =>
    typeof fields[key] === 'string' ? fields[key] : undefined;
  switch (failed) {
    case 'SIM-REQUEST-UNMATCHED':
      return addRoutes(known, given, fields['requests']);
    case 'SIM-GRAPHQL-LACKS':
      return fillAnswer(given, words('route'), (fields['lacking'] as readonly string[] | undefined) ?? []);
    case 'SIM-PROVIDE-MISSING':
    case 'SIM-WRAP-MISSING':
      return addProvider(known, draft, failure);
    case 'SIM-SUSPENSE-MISSING':
      return addWrapper(
        given,
        code('[Suspense, { fallback: null }]', { name: 'Suspense', from: 'react' }),
        'Suspense',
      );
    case 'SIM-PROP-MISSING':
      return addProps(known, given, (fields['missing'] as readonly string[] | undefined) ?? []);
    case 'SIM-PROP-UNKNOWN':
      return dropProp(given, words('asked'));
    case 'SIM-STUB-UNUSED':
    case 'SIM-STUB-NAME':
      return dropStub(given, words('stub'));
    case 'SIM-PROVIDE-UNUSED':
      return dropProvided(given, (fields['names'] as readonly string[] | undefined) ?? []);
    case 'SIM-SWAP-UNUSED':
    case 'SIM-SWAP-REFUSED':
    case 'SIM-SEAM-PRESET':
    case 'SIM-SEAM-MISSING':
      return given.swap.length > 0 ? { given: { ...given, swap: [] }, done: 'swapped nothing' } : undefined;
    case 'SIM-SLOT-UNUSED':
    case 'SIM-SLOT-UNKNOWN': {
      const slots = new Map(given.slots);
      return slots.delete(words('asked') ?? '')
        ? { given: { ...given, slots }, done: 'left a slot empty' }
        : undefined;
    }
    case 'SIM-LEFT-BEHIND':
      return allowLeft(given, fields['left']);
    case 'SIM-LOG-UNEXPECTED':
      return mendLogs(known, draft, fields['logs']);
    case 'SIM-REST-NEVER':
      return setMore(given, 'time', timeValue, 'gave it virtual time');
    case 'SIM-PAGE-LACKS':
    case 'SIM-RENDER-THREW':
    case 'SIM-LATE-THREW':
      return mendThrown(known, draft, failure, tried);
    default:
      return undefined;
  }
}

interface Unmatched {
  readonly method: string;
  readonly url: string;
  readonly carrier: string;
  readonly asked: string;
  readonly at?: PlaceSeen;
}

function addRoutes(known: Known, given: Given, requests: unknown): Mended | undefined {
  const network = new Map(given.network);
  for (const request of (requests as readonly Unmatched[] | undefined) ?? []) {
    const route = routeFor(known, request);
    if (network.has(route)) continue;
    const isLive = /^(WebSocket|EventSource)$/.test(request.carrier);
    network.set(route, isLive ? channelValue : answerTo(known, route, request.at));
  }
  return {
    given: { ...given, network },
    done: `answered ${[...network.keys()].slice(given.network.size).join(', ')}`,
  };
}

/** Adds fields to an answer that an operation selects. */
function fillAnswer(given: Given, route: string | undefined, lacking: readonly string[]): Mended | undefined {
  const known = route === undefined ? undefined : given.network.get(route);
  if (!known || route === undefined) return undefined;
  const filled = lacking.reduce<Value>(
    (value, path) => withField(value, path.split(/[.[\]]+/).filter(Boolean)),
    known,
  );
  return {
    given: { ...given, network: new Map([...given.network, [route, filled]]) },
    done: `answered ${lacking.join(', ')}`,
  };
}

function withField(value: Value, [step, ...rest]: readonly string[]): Value {
  if (step === undefined) return value;
  if (value.kind === 'list')
    return {
      ...value,
      items: value.items.map((item, index) => (String(index) === step ? withField(item, rest) : item)),
    };
  if (value.kind !== 'object') return value;
  const own = value.fields.find(([key]) => key === step)?.[1];
  const made = own ?? leafOf({ owner: step, field: step, path: [step] });
  const others = value.fields.filter(([key]) => key !== step);
  return {
    ...value,
    fields: [
      ...others,
      [step, rest.length > 0 ? withField(own ?? { kind: 'object', fields: [] }, rest) : made],
    ],
  };
}

/** A request as a route: as the source has it, where it is there. */
function routeFor({ survey }: Known, { method, url, asked, carrier }: Unmatched): string {
  if (/^(QUERY|MUTATION|SUBSCRIPTION) /.test(asked)) return asked.replace(/\?.*$/, '');
  const verb = carrier === 'WebSocket' ? 'WS' : carrier === 'EventSource' ? 'GET' : method;
  const { origin, pathname } = new URL(url, 'http://localhost');
  const path =
    origin === 'http://localhost' || /^wss?:\/\/localhost/.test(url) ? pathname : `${origin}${pathname}`;
  const known = survey.graph.nodes.find(
    ({ kind, name }) =>
      kind === 'request' && name.startsWith(`${verb} `) && fits(name.slice(verb.length + 1), pathname),
  );
  return known ? known.name : `${verb} ${path}`;
}

function fits(pattern: string, path: string): boolean {
  const [wanted, given] = [pattern.split('/'), path.split('/')];
  return (
    wanted.length === given.length &&
    wanted.length > 2 &&
    !wanted.every((part) => part === '' || part.startsWith(':')) &&
    wanted.every((part, index) => part === given[index] || (part.startsWith(':') && given[index] !== ''))
  );
}

/** Names of a failure as a file that exports it. */
interface Home {
  readonly file?: string;
  readonly name?: string;
}

function addProvider(known: Known, draft: Draft, failure: FailureSeen): Mended | undefined {
  const { fields, code: failed } = failure;
  const { given, framework } = draft;
  const token = typeof fields['token'] === 'string' ? fields['token'] : undefined;
  const named = token === undefined ? undefined : wrapperNamed(token, framework);
  if (named) return addWrapper(given, named, token!);
  const found =
    token === undefined ? undefined : nodeNamed(known, token, /^(context|token|service|class|value)$/);
  const home = fields['home'] as Home | undefined;
  const needed = (found && neededFor(known, found)) ?? homeOf(known, home, token);
  if (needed && failed === 'SIM-PROVIDE-MISSING') {
    const value = providedValue(known, needed, found, framework);
    const called = needed.local ?? needed.name;
    const reference = code(called, needed);
    if (value && !given.provide.some(([one]) => one.kind === 'code' && one.code === called))
      return {
        given: { ...given, provide: [...given.provide, [reference, value]] },
        done: `provided ${needed.local ?? needed.name}`,
      };
  }
  if (
    !needed &&
    token !== undefined &&
    failed === 'SIM-PROVIDE-MISSING' &&
    framework === 'vue' &&
    !given.provide.some(([one]) => one.kind === 'text' && one.text === token)
  )
    return {
      given: { ...given, provide: [...given.provide, [text(token, true), valueByName(token)]] },
      done: `provided "${token}"`,
    };
  for (const key of ['wrapper', 'around', 'provider'] as const) {
    const wrapper = fields[key];
    if (typeof wrapper !== 'string' || wrapper === '' || wrapper.includes('…')) continue;
    const made = wrapperOf(known, wrapper, fields['imports']);
    if (made) return addWrapper(given, made, wrapper, isByWrapper(draft, failure));
  }
  return addPackage(known, draft, failure);
}

/** What a package that threw needs around it: a provider of the project's own first. */
function addPackage(known: Known, { given, framework }: Draft, failure: FailureSeen): Mended | undefined {
  const packages = [...packagesIn(failure), ...packagesAsked(known, failure)];
  const own = packages.map((name) => providerFor(known, name)).find(Boolean);
  if (own) {
    const called = own.local ?? own.name;
    if (!given.wrap.some((one) => one.kind === 'code' && one.code === called))
      return addWrapper(given, code(called, own), called);
  }
  const recipe = packages.map((name) => wrapperOfPackage(name, framework)).find(Boolean);
  return recipe && addWrapper(given, recipe, 'what its package needs');
}

const valueByName = (name: string): Value =>
  /^(is|has)[A-Z]/.test(name) ? code('false') : text(name.replace(/^./, (letter) => letter.toUpperCase()));

function homeOf({ survey }: Known, home: Home | undefined, token: string | undefined): Needed | undefined {
  if (!home?.file) return undefined;
  const name = home.name ?? token;
  void survey;
  return name === undefined ? undefined : { name, from: home.file };
}

function providedValue(
  { types, from }: Known,
  needed: Needed,
  node: SurveyNode | undefined,
  framework: Draft['framework'],
): Value | undefined {
  void from;
  if (framework === 'angular' && (!node || node.kind === 'service' || node.kind === 'class'))
    return (
      (types && sampleStandIn(types, needed)) ??
      code(`standIn(${needed.local ?? needed.name})`, { name: 'standIn', from: 'simulacra' }, needed)
    );
  return types && sampleProvided(types, needed.from, needed.name, framework);
}

const nodeNamed = ({ survey }: Known, name: string, kind: RegExp): SurveyNode | undefined =>
  survey.graph.nodes.find((one) => one.name === name && kind.test(one.kind)) ??
  survey.graph.nodes.find((one) => kind.test(one.kind) && isSlip(one.name, name));

/** `MemoryRouter` of an import line, or a component of the project's own. */
function wrapperOf(known: Known, written: string, imports: unknown): Value | undefined {
  const needs: Needed[] = [];
  for (const [, names = '', from = ''] of String(imports ?? '').matchAll(
    /import \{ ([^}]+) \} from '([^']+)'/g,
  ))
    needs.push(...names.split(', ').map((name) => ({ name, from })));
  const words = /<?(\w+)/.exec(written)?.[1];
  if (needs.length === 0 && words !== undefined) {
    const own = providerOf(known, words);
    return own && withRequired(known, own);
  }
  return needs.length > 0 ? code(written.replace(/^\[|\]$/g, ''), ...needs) : undefined;
}

/** A component of the project by its name, which need not be among what the subject uses: the nearest. */
function providerOf(known: Known, name: string): Needed | undefined {
  return findComponent(known, (unit) => unit.name === name);
}

/** A component of the project that puts a provider of a package around what it is given. */
function providerFor(known: Known, packageName: string): Needed | undefined {
  return findComponent(known, (unit, file) =>
    unit.uses.some(({ name, how }) => {
      if (how !== 'rendered' || !/Provider$/.test(name)) return false;
      const { imports } = known.survey.project.facts(file);
      const from = imports.find(({ names }) => names.some(({ local }) => local === name))?.specifier;
      return from !== undefined && packageOf(from) === packageName;
    }),
  );
}

function findComponent({ survey }: Known, fits: (unit: Unit, file: string) => boolean): Needed | undefined {
  const { project, subject } = survey;
  const found: Needed[] = [];
  for (const file of project.list()) {
    const { exports, units } = project.facts(file);
    for (const unit of units) {
      if (unit.kind !== 'component' || unit.framework !== subject.unit.framework || !fits(unit, file))
        continue;
      const exported = exports.find(({ local, specifier }) => local === unit.name && specifier === undefined);
      if (exported && unit !== subject.unit)
        found.push(
          exported.name === 'default'
            ? { name: 'default', local: unit.name, from: file }
            : { name: exported.name, from: file },
        );
    }
  }
  const distance = ({ from }: Needed) => relative(dirname(subject.file), from).split(sep).length;
  return found.sort((a, b) => distance(a) - distance(b))[0];
}

/** @param isOuter true where what stands around it already asks for it */
function addWrapper(given: Given, wrapper: Value, name: string, isOuter = false): Mended | undefined {
  const key = JSON.stringify(wrapper);
  if (given.wrap.some((one) => JSON.stringify(one) === key)) return undefined;
  return {
    given: { ...given, wrap: isOuter ? [wrapper, ...given.wrap] : [...given.wrap, wrapper] },
    done: `put ${name} around it`,
  };
}

function addProps({ props }: Known, given: Given, names: readonly string[]): Mended | undefined {
  const added = new Map(given.props);
  for (const name of names) {
    const fact = props.find((one) => one.name === name);
    if (!added.has(name)) added.set(name, fact?.value ?? text(name));
  }
  return { given: { ...given, props: added }, done: `gave it ${names.join(', ')}` };
}

function dropProp(given: Given, name: string | undefined): Mended | undefined {
  const props = new Map(given.props);
  return name !== undefined && props.delete(name)
    ? { given: { ...given, props }, done: `left out ${name}` }
    : undefined;
}

function dropStub(given: Given, name: string | undefined): Mended | undefined {
  const stub = given.stub.filter(
    (one) => !(one.kind === 'code' && one.code === name) && !(one.kind === 'text' && one.text === name),
  );
  return stub.length < given.stub.length
    ? { given: { ...given, stub }, done: `left ${name} real` }
    : undefined;
}

function dropProvided(given: Given, names: readonly string[]): Mended | undefined {
  const provide = given.provide.filter(
    ([one]) =>
      !(one.kind === 'code' && names.includes(one.code)) &&
      !(one.kind === 'text' && names.includes(one.text)),
  );
  return provide.length < given.provide.length
    ? { given: { ...given, provide }, done: `provided ${names.join(', ')} no longer` }
    : undefined;
}

function setMore(given: Given, option: string, value: Value, done: string): Mended | undefined {
  if (given.more.has(option)) return undefined;
  return { given: { ...given, more: new Map([...given.more, [option, value]]) }, done };
}

interface Left {
  readonly what: string;
}

function allowLeft(given: Given, left: unknown): Mended | undefined {
  const items = ((left as readonly Left[] | undefined) ?? []).map(({ what }) => text(what, true));
  return items.length > 0
    ? setMore(given, 'leaks', { kind: 'list', items }, 'allowed what it leaves behind')
    : undefined;
}

interface Logged {
  readonly text: string;
  readonly from?: string;
}

function mendLogs(known: Known, draft: Draft, logs: unknown): Mended | undefined {
  const { given, framework } = draft;
  for (const { text: said } of (logs as readonly Logged[] | undefined) ?? []) {
    const unresolved = /Failed to resolve component: ([\w-]+)/.exec(said)?.[1];
    const wrapper = unresolved === undefined ? undefined : wrapperNamed(unresolved, framework);
    if (wrapper) return addWrapper(given, wrapper, unresolved!);
    const injection = /injection "([^"]+)" not found/.exec(said)?.[1];
    if (injection !== undefined) {
      const token = injection.replace(/^Symbol\((.*)\)$/, '$1');
      const mended = addProvider(known, draft, {
        code: 'SIM-PROVIDE-MISSING',
        message: said,
        fields: { token },
      });
      if (mended) return mended;
    }
    const missing = /Missing required prop: "([^"]+)"/.exec(said)?.[1];
    if (missing !== undefined) return addProps(known, given, [missing]);
    const nested =
      /<(tr|td|th|tbody|thead|li|option|dt|dd)> cannot (?:be a child|appear as a child) of <div>/.exec(
        said,
      )?.[1] ?? /In HTML, <(tr|td|th|tbody|thead|option)>/.exec(said)?.[1];
    if (nested !== undefined && framework === 'react')
      return addWrapper(given, nestIn(nested), `<${nested}>'s place`);
  }
  return undefined;
}

/** What an element has to stand in. */
function nestIn(tag: string): Value {
  const around: Readonly<Record<string, string>> = {
    tr: '<table><tbody>{children}</tbody></table>',
    td: '<table><tbody><tr>{children}</tr></tbody></table>',
    th: '<table><tbody><tr>{children}</tr></tbody></table>',
    tbody: '<table>{children}</table>',
    thead: '<table>{children}</table>',
    option: '<select>{children}</select>',
    li: '<ul>{children}</ul>',
    dt: '<dl>{children}</dl>',
    dd: '<dl>{children}</dl>',
  };
  return constant('Around', `({ children }: { children?: ReactNode }) => (${around[tag]})`, {
    name: 'ReactNode',
    from: 'react',
    isType: true,
  });
}

/** What threw lacked something: the first of what may help that was not tried. */
function mendThrown(
  known: Known,
  draft: Draft,
  failure: FailureSeen,
  tried: ReadonlySet<string>,
): Mended | undefined {
  const ways = [askedAround, askedByName, pluginFor, addPackage, stubThrower, addOptional];
  for (const way of ways) {
    const mended = way(known, draft, failure);
    if (mended && !tried.has(mended.done)) return { ...mended, isGuess: true };
  }
  return undefined;
}

const askedAround = (known: Known, draft: Draft, failure: FailureSeen): Mended | undefined =>
  failure.fields['around'] === undefined ? undefined : addProvider(known, draft, failure);

/** `useHives must be used within a HivesProvider`, `HiveItem must be used within HiveList` */
function askedByName(known: Known, draft: Draft, failure: FailureSeen): Mended | undefined {
  const { given } = draft;
  const message = failure.thrown?.message ?? String(failure.fields['threw'] ?? '');
  const inside =
    /\b(?:within|inside|below|under|wrapped (?:in|with)|child of|missing|in an?)\b(.*)/is.exec(
      message,
    )?.[1] ?? '';
  const names = [
    ...`${inside} ${/\b[A-Z]\w*Provider\b/.exec(message)?.[0] ?? ''}`.matchAll(/\b[A-Z]\w+/g),
  ].map(([name]) => name);
  for (const name of new Set(names)) {
    const own = providerOf(known, name);
    if (!own) continue;
    const wrapper = withRequired(known, own);
    if (!given.wrap.some((one) => writes(one).includes(name)))
      return addWrapper(given, wrapper, name, isByWrapper(draft, failure));
  }
  return undefined;
}

/** True where what stands around the component asks for more, and not the component. */
const isByWrapper = ({ component, given }: Draft, { fields }: FailureSeen): boolean => {
  const asker = fields['thrower'] ?? fields['reader'] ?? fields['asker'];
  return (
    typeof asker === 'string' &&
    asker !== (component.local ?? component.name) &&
    given.wrap.some((one) => new RegExp(`\\b${asker}\\b`).test(writes(one)))
  );
};

const writes = (value: Value): string => (value.kind === 'code' ? value.code : JSON.stringify(value));

/** A component to be put around, with the props that it has to be given. */
function withRequired({ types, survey }: Known, needed: Needed): Value {
  const called = needed.local ?? needed.name;
  const reference = code(called, needed);
  const props = types && readProps(types, needed.from, needed.name, survey.subject.unit.framework ?? 'react');
  const required = props?.filter(({ isRequired, name }) => isRequired && name !== 'children') ?? [];
  if (required.length === 0) return reference;
  return { kind: 'list', items: [reference, object(required.map(({ name, value }) => [name, value]))] };
}

/** A plugin of the project's own that gives every component what this one reads of `this`. */
function pluginFor(known: Known, { given, framework }: Draft, failure: FailureSeen): Mended | undefined {
  if (framework !== 'vue') return undefined;
  const { project, graph } = known.survey;
  const files = new Set(
    graph.nodes.flatMap(({ file, unit }) => (file !== undefined && unit ? [join(known.from, file)] : [])),
  );
  const asked = new Set(
    [...files].flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/\$[a-z]\w+/gi)].map(([name]) => name),
    ),
  );
  void failure;
  for (const file of project.list()) {
    const source = readFileSync(file, 'utf8');
    const [, name = ''] = /globalProperties\.(\$\w+)\s*=/.exec(source) ?? [];
    if (!asked.has(name) || !/\binstall\b/.test(source)) continue;
    const local = `${name.charAt(1).toUpperCase()}${name.slice(2)}`;
    const wrapper = code(local, { name: 'default', local, from: file });
    if (/export default/.test(source) && !given.wrap.some((one) => writes(one) === local))
      return addWrapper(given, wrapper, `the plugin of ${name}`);
  }
  return undefined;
}

function stubThrower(known: Known, { given }: Draft, { fields }: FailureSeen): Mended | undefined {
  const { thrower, subject } = fields;
  if (
    typeof thrower !== 'string' ||
    thrower === subject ||
    thrower === 'Anonymous' ||
    !/^[A-Z]/.test(thrower)
  )
    return undefined;
  const node = nodeNamed(known, thrower, /^component$/);
  const reference = node ? referenceTo(known, node) : text(thrower, true);
  if (!reference || given.stub.some((one) => JSON.stringify(one) === JSON.stringify(reference)))
    return undefined;
  return { given: { ...given, stub: [...given.stub, reference] }, done: `stubbed ${thrower}` };
}

/** The packages whose hooks the component calls, where something lacks a provider. */
const packagesAsked = ({ survey }: Known, { fields }: FailureSeen): readonly string[] => {
  const lacks = fields['lacks'];
  if (!Array.isArray(lacks) || lacks.length === 0) return [];
  const hooks = survey.graph.nodes.filter(
    (node) => node.package !== undefined && /^use[A-Z]/.test(node.name),
  );
  return [...new Set(hooks.map((node) => packageOf(node.package!)))];
};

/** The packages whose code threw, the innermost first. */
const packagesIn = ({ stack = '', fields }: FailureSeen): readonly string[] => {
  const frames = `${stack}\n${String(fields['stack'] ?? '')}`;
  const names = [...frames.matchAll(/node_modules[\\/]((?:@[^\\/]+[\\/])?[^\\/]+)/g)].map(([, name]) =>
    name!.replace('\\', '/'),
  );
  return [...new Set(names)].filter(
    (name) => !/^(react|react-dom|vue|@vue\/.*|@angular\/core|jest.*|@jest\/.*|scheduler)$/.test(name),
  );
};

/** Gives all props that may be missing: the code takes one of them to be there. */
export function addOptional({ props }: Known, { given }: Pick<Draft, 'given'>): Mended | undefined {
  const missing = props.filter(({ name, isCallback }) => !given.props.has(name) && !isCallback);
  if (missing.length === 0 || missing.length > 25) return undefined;
  const added = new Map([...given.props, ...missing.map(({ name, value }) => [name, value] as const)]);
  return { given: { ...given, props: added }, done: `gave it ${missing.map(({ name }) => name).join(', ')}` };
}
