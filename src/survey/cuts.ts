import { dirname, relative } from 'node:path';
import { findDominators } from './dominators';
import { filesUsed, isFile, reachedFrom, type Graph, type SurveyNode } from './graph';
import { isNotable } from './reach';

/** One thing to replace, and what goes with it. */
export interface Cut {
  readonly node: SurveyNode;
  /** The line to write. */
  readonly line: string;
  /** How many of the modules go: are no longer used, or with `swap` no longer loaded. */
  readonly modules: number;
  readonly of: number;
  readonly isLoaded: boolean;
  /** What is hard, and what else one would have to prepare, that goes. */
  readonly gone: readonly SurveyNode[];
  /** What its files do all the same when they are loaded. */
  readonly still: readonly SurveyNode[];
  /** The line that keeps the file from being loaded, where that matters. */
  readonly instead?: string;
}

const used = (node: SurveyNode): readonly SurveyNode[] =>
  node.edges.filter(({ how }) => how !== 'loaded').map(({ to }) => to);

/** Finds the few things whose replacement takes most away. */
export function findCuts(graph: Graph, most = 5): readonly Cut[] {
  const { root } = graph;
  const dominators = findDominators(root, used);
  const below = new Map<SurveyNode, SurveyNode[]>();
  for (const [node, over] of dominators) {
    if (node === root) continue;
    const nodes = below.get(over);
    if (nodes) nodes.push(node);
    else below.set(over, [node]);
  }
  const taken = new Map<SurveyNode, number>();
  const weigh = (node: SurveyNode): number => {
    const known = taken.get(node);
    if (known !== undefined) return known;
    const own = (isModule(node) ? 1 : 0) + (node.own.some((mark) => mark !== 'heavy') ? 3 : 0);
    const weight = (below.get(node) ?? []).reduce((sum, one) => sum + weigh(one), own);
    taken.set(node, weight);
    return weight;
  };
  const chosen: SurveyNode[] = [];
  // Where nearly all lies further down, more stays real if it is cut there.
  const look = (node: SurveyNode): boolean => {
    const found = (below.get(node) ?? []).map((one) => {
      const isWorth = isOnlyOne(graph, one) || (isCuttable(root, one) && weigh(one) >= 4);
      const heaviest = Math.max(0, ...(below.get(one) ?? []).map(weigh));
      if (isWorth && heaviest < weigh(one) * 0.8) return chosen.push(one) > 0;
      if (look(one)) return true;
      return isWorth && chosen.push(one) > 0;
    });
    return found.includes(true);
  };
  look(root);
  const before = {
    used: filesUsed(graph.nodes).size,
    loaded: filesLoaded(graph.nodes),
    onLoad: graph.nodes.filter(({ own }) => own.includes('on load')),
  };
  return chosen
    .sort((a, b) => weigh(b) - weigh(a))
    .slice(0, most)
    .map((node) => describeCut(graph, node, before));
}

const isModule = ({ kind }: SurveyNode): boolean =>
  !/^(request|socket|event stream|storage|timer|clock)$/.test(kind);

/** True for a heavy package of which one thing is used: where that is swapped, the package is not loaded. */
const isOnlyOne = ({ nodes }: Graph, { own, package: from }: SurveyNode): boolean =>
  own.includes('heavy') && nodes.filter((one) => one.package === from).length === 1;

/** True for what a test can replace: what it can import, or what the framework hands in. */
function isCuttable(root: SurveyNode, { kind, unit, file }: SurveyNode): boolean {
  if (/^(component|directive|service|context|token)$/.test(kind)) return unit?.isExported === true;
  return (
    unit?.isExported === true &&
    file !== root.file &&
    /^(hook|composable|store|function|class|value)$/.test(kind)
  );
}

function filesLoaded(nodes: Iterable<SurveyNode>): number {
  let files = 0;
  for (const node of nodes) if (isFile(node)) files++;
  return files;
}

/** What is there before anything is cut. */
interface Before {
  readonly used: number;
  readonly loaded: number;
  readonly onLoad: readonly SurveyNode[];
}

function describeCut({ root, nodes }: Graph, node: SurveyNode, before: Before): Cut {
  const isLoaded = !/^(component|directive|context|token|service)$/.test(node.kind);
  const inFile = () => nodes.filter(({ file }) => file === node.file);
  const without = new Set(isLoaded && node.unit ? inFile() : [node]);
  const left = reachedFrom(root, without);
  // Of a heavy package nothing is gained as long as something of it is used.
  const isGone = ({ own, package: from }: SurveyNode) =>
    !(own.length === 1 && own[0] === 'heavy') || ![...left].some((one) => one.package === from);
  const gone = nodes
    .filter((one) => !left.has(one) && one !== node && isNotable(one) && isGone(one))
    .sort((a, b) => b.own.length - a.own.length || a.id - b.id);
  const of = isLoaded ? before.loaded : before.used;
  const rest = isLoaded ? filesLoaded(left) : filesUsed(left).size;
  const onLoad = before.onLoad.filter((one) => left.has(one));
  const unloaded =
    onLoad.length > 0 && node.file !== root.file
      ? reachedFrom(root, new Set([...without, ...inFile()]))
      : undefined;
  const still = unloaded ? onLoad.filter((one) => !unloaded.has(one)) : [];
  return {
    still,
    ...(still.length > 0 && { instead: printSwap(root, node) }),
    ...{ node, line: printLine(root, node), modules: of - rest, of },
    ...{ isLoaded, gone },
  };
}

/** The line of a test that replaces it. */
function printLine(root: SurveyNode, node: SurveyNode): string {
  const { kind, name } = node;
  switch (kind) {
    case 'component':
    case 'directive':
      return `stub: [${name}]`;
    case 'context':
    case 'token':
    case 'service':
      return `provide: [[${name}, …]]`;
    case 'package':
      return `swap: [swap(() => import('${node.package}'), { ${name}: … })]`;
    default:
      return printSwap(root, node);
  }
}

const printSwap = (root: SurveyNode, { file = '', name }: SurveyNode): string =>
  `swap: [swap(() => import('${pathTo(root, file)}'), { ${name}: … })]`;

/** A file as a test beside the subject imports it. */
function pathTo({ file: from = '' }: SurveyNode, file: string): string {
  const path = relative(dirname(from), file)
    .replaceAll('\\', '/')
    .replace(/\.[cm]?[jt]sx?$/, '');
  return path.startsWith('.') ? path : `./${path}`;
}
