import type { Framework, How, Leaf, LeafKind, Unit, UnitKind } from './facts';

/** Why something is hard to have in a test. */
export type Mark = 'network' | 'clock' | 'chance' | 'global state' | 'page' | 'heavy' | 'on load';
export const marks: readonly Mark[] = [
  'network',
  'clock',
  'chance',
  'global state',
  'page',
  'heavy',
  'on load',
];

export type NodeKind = Exclude<UnitKind, 'load'> | LeafKind | 'package' | 'unknown' | 'on load';

/** One thing that the subject leans on. */
export interface SurveyNode {
  readonly id: number;
  readonly kind: NodeKind;
  readonly name: string;
  readonly file?: string;
  readonly line?: number;
  readonly framework?: Framework;
  /** What makes it hard in itself. */
  readonly own: readonly Mark[];
  readonly edges: Edge[];
  readonly unit?: Unit;
  readonly leaf?: Leaf;
  /** For what is used of a package: its name, and of what weight it is. */
  readonly package?: string;
  readonly bytes?: number;
  readonly note?: string;
}

export interface Edge {
  readonly to: SurveyNode;
  readonly how: How | 'loaded' | 'meets';
  readonly line: number;
  readonly isLazy?: true;
  readonly hasRef?: true;
}

export interface Graph {
  readonly root: SurveyNode;
  readonly nodes: readonly SurveyNode[];
  /** Imports that lead nowhere, and files that could not be read. */
  readonly problems: readonly Problem[];
}

export interface Problem {
  readonly file: string;
  readonly line: number;
  readonly why: string;
}

const marksOf: Readonly<Record<LeafKind, Mark>> = {
  request: 'network',
  socket: 'network',
  'event stream': 'network',
  storage: 'global state',
  timer: 'clock',
  clock: 'clock',
  chance: 'chance',
  global: 'global state',
  'page feature': 'page',
  navigation: 'global state',
  worker: 'page',
};

/** What makes a leaf hard. */
export const markOf = ({ kind, atLoad }: Leaf): readonly Mark[] => [
  marksOf[kind],
  ...(atLoad ? (['on load'] as const) : []),
];

/** All that is reached from a node, itself included. */
export function reachedFrom(start: SurveyNode, without?: ReadonlySet<SurveyNode>): Set<SurveyNode> {
  const reached = new Set<SurveyNode>();
  const open = without?.has(start) ? [] : [start];
  for (let node = open.pop(); node; node = open.pop()) {
    if (reached.has(node)) continue;
    reached.add(node);
    for (const { to } of node.edges) if (!reached.has(to) && !without?.has(to)) open.push(to);
  }
  return reached;
}

/** For each node, what is hard about it or about anything it leads to. */
export function marksReached(nodes: readonly SurveyNode[]): ReadonlyMap<SurveyNode, ReadonlySet<Mark>> {
  const from = new Map<SurveyNode, SurveyNode[]>();
  for (const node of nodes) from.set(node, []);
  for (const node of nodes) for (const { to } of node.edges) from.get(to)?.push(node);
  const reached = new Map(nodes.map((node) => [node, new Set<Mark>()]));
  for (const mark of marks) {
    const open = nodes.filter(({ own }) => own.includes(mark));
    for (let node = open.pop(); node; node = open.pop()) {
      const has = reached.get(node)!;
      if (has.has(mark)) continue;
      has.add(mark);
      open.push(...(from.get(node) ?? []));
    }
  }
  return reached;
}

export const isHard = ({ own }: SurveyNode): boolean => own.length > 0;

/** The files of which something is used. */
export function filesUsed(nodes: Iterable<SurveyNode>): ReadonlySet<string | undefined> {
  const files = new Set<string | undefined>();
  for (const { unit, file } of nodes) if (unit) files.add(file);
  return files;
}

/** True for the node that stands for a file that is loaded. */
export const isFile = ({ kind, unit, leaf }: SurveyNode): boolean =>
  kind === 'on load' && unit === undefined && leaf === undefined;

/** What happens when the file of a node is loaded. */
export const loadedWith = (node: SurveyNode): readonly Edge[] =>
  node.edges
    .filter(({ how, to }) => how === 'loaded' && to.file === node.file)
    .flatMap(({ to }) => to.edges.filter(({ how }) => how === 'meets'));
