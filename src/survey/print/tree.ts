import type { Colours } from './colours';
import { count, list } from '../../core/print';
import { isFile, isHard, loadedWith, type Edge, type Problem, type SurveyNode } from '../graph';
import type { Cut } from '../cuts';
import type { Survey } from '../index';
import { fit } from './fit';

const width = 100;
const nameWidth = 44;
const kindWidth = 12;
// What is longer is for a machine to read.
const mostRows = 400;

/** One line of the tree. */
interface Row {
  readonly branch: string;
  readonly node: SurveyNode;
  readonly edge: Edge;
  readonly isRepeated: boolean;
}

/** What a component leans on, for people to read on a terminal of 100 columns. */
export function printSurvey(survey: Survey, colours: Colours): string {
  const seen = new Set<SurveyNode>();
  const rows = readRows(survey, seen);
  const shown = rows.slice(0, mostRows).map((row) => printRow(survey, row, colours));
  if (rows.length > mostRows)
    shown.push(`    … ${rows.length - mostRows} more lines: --json has all of them`);
  return [
    ...printHead(survey, colours),
    '',
    ...shown,
    ...printLoads(survey, seen, colours),
    ...printCuts(survey, colours),
    ...printProblems(survey.graph.problems, colours),
    '',
  ].join('\n');
}

const named = { react: 'React', vue: 'Vue', angular: 'Angular' };

function printHead({ subject, graph, reached, modules, others }: Survey, { bold, dim }: Colours): string[] {
  const { unit } = subject;
  const { framework = 'react' } = unit;
  const { root } = graph;
  const takes = [...(unit.inputs ?? [])];
  const parts = [
    takes.length > 0 && `takes ${list(takes, 6)}`,
    unit.outputs?.length && `${framework === 'react' ? 'calls' : 'emits'} ${list(unit.outputs, 6)}`,
    unit.slots?.length && `renders what it is given: ${list(unit.slots, 6)}`,
    unit.renders?.length && `calls ${list(unit.renders, 6)} to render`,
  ].filter(Boolean);
  const hard = [...(reached.get(root) ?? [])];
  return [
    `${bold(unit.name)}  ${dim(`component of ${named[framework]}, ${root.file}:${unit.line}`)}`,
    ...(parts.length > 0 ? [`It ${parts.join('; ')}.`] : []),
    hard.length > 0
      ? `It leans on ${count(modules, 'module')}, and on what is hard to have in a test: ${list(hard)}.`
      : `It leans on ${count(modules, 'module')}, and on nothing that is hard to have in a test.`,
    ...(others.length > 0
      ? [dim(`Also in this file: ${others.map((name) => `${root.file}#${name}`).join(', ')}`)]
      : []),
  ];
}

/** True for what a reader need not see: a plain function or value that leads to nothing of interest. */
export function isPlain({ reached }: Pick<Survey, 'reached'>, node: SurveyNode): boolean {
  if (!/^(function|value|class|package|on load|module)$/.test(node.kind)) return false;
  if ((reached.get(node)?.size ?? 0) > 0) return false;
  return node.edges.every(({ to, how }) => how === 'loaded' || isPlain({ reached }, to));
}

function readRows(survey: Survey, seen: Set<SurveyNode>): Row[] {
  const rows: Row[] = [];
  const open = (node: SurveyNode, indent: string): void => {
    seen.add(node);
    const edges = [...node.edges, ...loadedWith(node)]
      .filter(({ how, to }) => how !== 'loaded' && to.kind !== 'on load' && !isPlain(survey, to))
      .filter(({ to }) => !(seen.has(to) && to.own.includes('on load')))
      .sort((a, b) => a.line - b.line);
    edges.forEach((edge, index) => {
      const isLast = index === edges.length - 1;
      const isRepeated = seen.has(edge.to) && edge.to.edges.some(({ how }) => how !== 'loaded');
      rows.push({ branch: `${indent}${isLast ? '└─ ' : '├─ '}`, node: edge.to, edge, isRepeated });
      if (seen.has(edge.to)) return;
      open(edge.to, `${indent}${isLast ? '   ' : '│  '}`);
    });
  };
  open(survey.graph.root, '');
  return rows;
}

function printRow(survey: Survey, { branch, node, edge, isRepeated }: Row, colours: Colours): string {
  const { dim, red, yellow } = colours;
  const on = [...(survey.reached.get(node) ?? [])];
  const sign = isHard(node) ? red('●') : on.length > 0 ? yellow('○') : ' ';
  const more = [
    edge.isLazy && 'loaded late',
    edge.hasRef && 'with a ref',
    edge.how === 'provided' && 'provided',
    isRepeated && 'above',
    node.note === 'not imported here' && node.note,
  ].filter(Boolean);
  const name = `${node.name}${more.length > 0 ? ` (${more.join(', ')})` : ''}`;
  const left = fit(`${branch}${name}`, nameWidth);
  const kind = fit(node.kind, kindWidth);
  const place = placeOf(survey, node, edge);
  const right = node.own.join(', ');
  const room = width - 2 - nameWidth - 2 - kindWidth - 2;
  const written = right
    ? `${fit(place, room - right.length - 2)}  ${red(right)}`
    : fit(place, room).trimEnd();
  return `${sign} ${dim(left.slice(0, branch.length))}${left.slice(branch.length)}  ${dim(kind)}  ${written}`.trimEnd();
}

function placeOf({ graph }: Survey, node: SurveyNode, edge: Edge): string {
  if (node.kind === 'package')
    return node.bytes ? `${node.package}, ${Math.round(node.bytes / 1000)} kB` : (node.package ?? '');
  if (!node.file) return '';
  if (edge.how === 'meets' || node.file === graph.root.file) return `:${node.line}`;
  return `${node.file}:${node.line}`;
}

/** What is done by files that are loaded, and of which nothing is used. */
function printLoads({ graph }: Survey, seen: ReadonlySet<SurveyNode>, { bold, red }: Colours): string[] {
  const lines = graph.nodes
    .filter(isFile)
    .flatMap((node) =>
      node.edges
        .filter(({ how, to }) => how !== 'loaded' && isHard(to) && !seen.has(to))
        .map(({ to }) => `${red('●')} ${fit(`${node.file}:${to.line}`, nameWidth)}  ${to.name}`),
    );
  return lines.length === 0 ? [] : ['', bold('When files are loaded'), ...lines];
}

function printCuts({ cuts }: Survey, { bold, green, dim, yellow }: Colours): string[] {
  if (cuts.length === 0) return [];
  return [
    '',
    bold('Where to cut'),
    ...cuts.flatMap((cut) => [
      `  ${green(cut.line)}`,
      ...printGone(cut).map(dim),
      ...(cut.instead === undefined ? [] : [yellow(printStill(cut)), `      ${green(cut.instead)}`]),
    ]),
  ];
}

/** What goes with a cut, with as many names as a line has room for. */
function printGone({ modules, of, isLoaded, gone }: Cut): string[] {
  const names = [...new Set(gone.map(({ name }) => name))];
  const what =
    modules > 0 ? [`${modules} of ${count(of, 'module')} no longer ${isLoaded ? 'loaded' : 'used'}`] : [];
  const said = [3, 2, 1].map((most) =>
    [...what, ...(names.length > 0 ? [`without ${list(names, most)}`] : [])].join('; '),
  );
  const fits = said.find(({ length }) => length <= width - 6) ?? said.at(-1)!;
  return fits ? [`      ${fit(fits, width - 6).trimEnd()}`] : [];
}

function printStill({ still }: Cut): string {
  const names = list(
    still.map(({ name }) => name),
    2,
  );
  return fit(`      still when its file is loaded: ${names}; without it:`, width).trimEnd();
}

// More of them say nothing that these do not.
const mostProblems = 12;

export function printProblems(problems: readonly Problem[], { bold, yellow, dim }: Colours): string[] {
  if (problems.length === 0) return [];
  const shown = problems.slice(0, mostProblems);
  const left = problems.length - shown.length;
  return [
    '',
    bold('Passed by'),
    ...shown.map(({ file, line, why }) => `  ${yellow(`${file}:${line}`)}  ${why}`),
    ...(left > 0 ? [dim(`  … ${left} more: --json has all of them`)] : []),
  ];
}
