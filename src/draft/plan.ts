import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { reachedFrom, type SurveyNode } from '../survey/graph';
import type { Survey } from '../survey/index';
import { exportedAs } from './exported';
import { nothingGiven, type Draft, type Given } from './model';
import { paramsIn, predictWrappers } from './packages';
import type { DeclaredSeen } from './run/observed';
import { routeRead } from './route';
import { factOfDeclared, type PropFact } from './types/props';
import { sampleAnswer, sampleOperation, placeOf } from './types/answers';
import { sampleReturned } from './types/returned';
import type { Types } from './types/service';
import { around, code, isSpy, placeholder, spyValue, text, type Needed, type Value } from './value';

/** All that is known of a component before it is run. */
export interface Known {
  readonly survey: Survey;
  readonly types: Types | undefined;
  readonly props: readonly PropFact[];
  readonly component: Needed;
  /** Where files of the project begin that the survey names. */
  readonly from: string;
}

/** With the props that only the component itself declares. */
export function withDeclared(known: Known, declared: readonly DeclaredSeen[] = []): Known {
  const more = declared.filter(({ name }) => !known.props.some((one) => one.name === name));
  return more.length > 0 ? { ...known, props: [...known.props, ...more.map(factOfDeclared)] } : known;
}

/** The first draft: what the source says, before anything is run. */
export function planDraft(known: Known): Draft {
  const { survey, props, component } = known;
  const { framework = 'react' } = survey.subject.unit;
  const swapped = planSwaps(known);
  const stubbed = planStubs(known, swapped.nodes);
  const left = nodesLeft(survey, [...stubbed.nodes, ...swapped.nodes]);
  const given: Given = {
    ...nothingGiven,
    props: new Map(props.filter(isWanted).map(({ name, value }) => [name, value])),
    slots: planSlots(known),
    network: planRoutes(known, left),
    stub: stubbed.values,
    swap: swapped.values,
    wrap: [...predictWrappers(left, framework, paramsOf(known, left)), ...declaringModule(known)],
    provide: planRoute(known, left),
    more: planMore(left),
  };
  return {
    component,
    framework,
    variable: variableOf(component.local ?? component.name),
    given,
    cases: [],
    done: [],
    isLoadedLate: swapped.values.length > 0,
    isOnlyOne: survey.others.length === 0,
  };
}

/** The module that declares a component which is not standalone: what its template may use is known by that alone. */
function declaringModule({ survey: { project, subject } }: Known): readonly Value[] {
  const { unit, file } = subject;
  if (unit.framework !== 'angular' || !/\bstandalone:\s*false\b/.test(readFileSync(file, 'utf8'))) return [];
  for (const from of project.list())
    for (const { name, declares = [] } of project.facts(from).units) {
      const needed = declares.includes(unit.name) ? exportedAs(project, from, name) : undefined;
      if (needed) return [code(needed.local ?? needed.name, needed)];
    }
  return [];
}

/** Props that are given from the start: those that have to be, and what is put inside of it. */
const isWanted = ({ name, isRequired }: PropFact): boolean => isRequired || name === 'children';

/** `board` of `HiveBoard`. */
function variableOf(name: string): string {
  const [last = 'subject'] = /[A-Z][a-z0-9]*$/.exec(name.replace(/Component$/, '')) ?? [];
  const word = last.charAt(0).toLowerCase() + last.slice(1);
  return word.length < 3 ||
    /^(default|class|function|new|delete|switch|import|export|package|case|catch|void|text|label|part|role|link|for)$/.test(
      word,
    )
    ? 'subject'
    : word;
}

function planSlots({ survey }: Known): ReadonlyMap<string, Value> {
  const { framework, slots = [], template } = survey.subject.unit;
  if (framework === 'react') return new Map();
  const named = framework === 'vue' ? slots : (template?.slots ?? slots);
  return new Map(named.includes('default') ? [['default', { kind: 'text', text: 'Content' } as Value]] : []);
}

/** The parameters of the address that the project's own files read. */
const paramsOf = (known: Known, left: readonly SurveyNode[]): readonly string[] => [
  ...new Set(textsOf(known, left).flatMap(paramsIn)),
];

/** The route that the project's own files read the address of. */
function planRoute(known: Known, left: readonly SurveyNode[]): Given['provide'] {
  if (known.survey.subject.unit.framework !== 'angular') return [];
  const route = routeRead(textsOf(known, left));
  return route ? [route] : [];
}

/** The project's own files that something is made of, each once. */
export function filesOf({ survey, from }: Known, nodes = survey.graph.nodes): readonly string[] {
  const files = nodes.flatMap(({ unit, file }) => (unit && file !== undefined ? [join(from, file)] : []));
  return [...new Set(files)];
}

/** What those files say. */
export const textsOf = (known: Known, nodes?: readonly SurveyNode[]): readonly string[] =>
  filesOf(known, nodes).map((file) => readFileSync(file, 'utf8'));

/** What is still reached when some of it is replaced. */
function nodesLeft({ graph }: Survey, without: readonly SurveyNode[]): readonly SurveyNode[] {
  return [...reachedFrom(graph.root, new Set(without))];
}

interface Replaced {
  readonly values: readonly Value[];
  readonly nodes: readonly SurveyNode[];
}

/** Children that are replaced, as what is hard about them would have to be prepared. */
function planStubs(known: Known, without: readonly SurveyNode[]): Replaced {
  const { survey } = known;
  const isGone = (node: SurveyNode) => without.includes(node);
  const chosen = survey.cuts.filter(
    ({ node, gone }) => node.kind === 'component' && !isGone(node) && gone.some(isHardToHave),
  );
  return {
    values: chosen.map(({ node }) => referenceTo(known, node)).filter((one) => one !== undefined),
    nodes: chosen.map(({ node }) => node),
  };
}

const isHardToHave = ({ own }: SurveyNode): boolean =>
  own.some((mark) => /^(network|clock|chance|page|on load)$/.test(mark));

/** What asks the network when its file is loaded has to be kept from loading: by a swap of what uses it. */
function planSwaps(known: Known): Replaced {
  const { graph } = known.survey;
  const isEager = ({ own }: SurveyNode) => own.includes('on load') && own.includes('network');
  const values: Value[] = [];
  const nodes: SurveyNode[] = [];
  for (const leaf of graph.nodes.filter(isEager)) {
    if (!reachedFrom(graph.root, new Set(nodes)).has(leaf)) continue;
    const found = swapFor(known, leaf);
    if (!found) continue;
    values.push(found.value);
    nodes.push(...found.nodes);
  }
  return { values, nodes };
}

/** The swap that keeps something from being reached; a hook rather than what it calls, as it says more. */
export function swapFor(
  known: Known,
  leaf: SurveyNode,
): { readonly value: Value; readonly nodes: readonly SurveyNode[] } | undefined {
  const { root, nodes } = known.survey.graph;
  const far = distances(root);
  const candidates = nodes
    .filter(
      ({ kind, file, unit }) =>
        /^(hook|composable|store|function|value)$/.test(kind) &&
        unit?.isExported === true &&
        file !== root.file,
    )
    .sort((a, b) => rankOf(a) - rankOf(b) || far.get(a)! - far.get(b)!);
  for (const node of candidates) {
    const inFile = nodes.filter(({ file }) => file === node.file);
    if (reachedFrom(root, new Set(inFile)).has(leaf)) continue;
    const value = swapOf(known, node);
    if (value) return { value, nodes: inFile };
  }
  return undefined;
}

const rankOf = ({ kind, name }: SurveyNode): number =>
  /^(hook|composable|store)$/.test(kind) || /^(use|inject)[A-Z]/.test(name) ? 0 : kind === 'function' ? 1 : 2;

function distances(root: SurveyNode): ReadonlyMap<SurveyNode, number> {
  const far = new Map([[root, 0]]);
  for (const node of far.keys())
    for (const { to, how } of node.edges)
      if (how !== 'loaded' && !far.has(to)) far.set(to, far.get(node)! + 1);
  return new Map(far);
}

function swapOf(known: Known, node: SurveyNode): Value | undefined {
  const { survey, types, from } = known;
  const needed = neededFor(known, node);
  if (!needed || node.file === undefined) return undefined;
  const framework = survey.subject.unit.framework ?? 'react';
  const answer = types && sampleReturned(types, join(from, node.file), needed.name, framework);
  const value = answer ?? spyValue();
  // What a function returns is given as it is; a function that it returns would be called in its place.
  const isCalled =
    answer !== undefined && (isSpy(value) || (value.kind === 'around' && value.before.startsWith('signal')));
  const before = `swap(() => import('${placeholder(needed.from)}'), { ${needed.name}: ${isCalled ? '() => ' : ''}`;
  return around(before, value, ' })', { name: 'swap', from: 'simulacra' });
}

/** How a test names something of the project; undefined for what it cannot import. */
export function neededFor(
  { survey, from }: Pick<Known, 'survey' | 'from'>,
  { file, unit }: SurveyNode,
): Needed | undefined {
  if (file === undefined || unit === undefined) return undefined;
  return exportedAs(survey.project, join(from, file), unit.name);
}

export function referenceTo(known: Pick<Known, 'survey' | 'from'>, node: SurveyNode): Value | undefined {
  const needed = neededFor(known, node);
  return needed ? code(needed.local ?? needed.name, needed) : { kind: 'text', text: node.name };
}

/** Routes for all that is asked for, as far as the source says it. */
function planRoutes(known: Known, left: readonly SurveyNode[]): ReadonlyMap<string, Value> {
  const routes = new Map<string, Value>();
  for (const node of left) {
    if (node.kind === 'request' && isRoute(node.name)) routes.set(node.name, answerTo(known, node.name));
    if (node.kind === 'socket') {
      const path = /^WebSocket (.+)$/.exec(node.name)?.[1];
      if (path !== undefined && isRoute(`WS ${path}`)) routes.set(`WS ${path}`, channelValue);
    }
    if (node.kind === 'event stream') {
      const path = /^EventSource (.+)$/.exec(node.name)?.[1];
      if (path !== undefined && isRoute(`GET ${path}`)) routes.set(`GET ${path}`, channelValue);
    }
  }
  return routes;
}

export const channelValue: Value = code('channel()', { name: 'channel', from: 'simulacra' });

/** True for what can be written as a route: a method, and a path that is known from its beginning. */
const isRoute = (name: string): boolean =>
  /^[A-Z]+ (\/|https?:\/\/)[^\s…]*$/.test(name) && !/^[A-Z]+ \/?:[\w$]+$/.test(name);

/** An answer of the kind that the code expects. */
export function answerTo(
  known: Known,
  route: string,
  at?: { readonly file: string; readonly line: number },
): Value {
  const { survey, types, from } = known;
  const path = route.replace(/^\S+ /, '');
  const framework = survey.subject.unit.framework ?? 'react';
  const nodes = survey.graph.nodes.filter(({ kind, name }) => kind === 'request' && name === route);
  const places = [
    ...nodes.flatMap(({ file, line }) =>
      file !== undefined && line !== undefined ? [{ file: join(from, file), line }] : [],
    ),
    ...(at ? [at] : []),
  ];
  for (const place of types ? places : []) {
    const value = sampleAnswer(types!, { ...place, path }, framework);
    if (value) return value;
  }
  if (/^(QUERY|MUTATION) /.test(route) && types) {
    const value = sampleOperation(types, filesOf(known), path, framework);
    if (value) return value;
  }
  const { field } = placeOf(path);
  if (!/^GET /.test(route)) return { kind: 'object', fields: [] };
  return /s$/.test(field) && !/:\w+$/.test(path)
    ? { kind: 'list', items: [] }
    : { kind: 'object', fields: [] };
}

/** The time of day that a component shows is the same on every run. */
function planMore(left: readonly SurveyNode[]): ReadonlyMap<string, Value> {
  const isTimed = left.some(({ kind }) => kind === 'clock');
  return isTimed ? new Map([['time', timeValue]]) : new Map();
}

export const timeValue: Value = {
  kind: 'object',
  fields: [['startsAt', text('2031-05-04T08:00Z', true)]],
};
