import dagre from '@dagrejs/dagre';
import { isHard, loadedWith, type SurveyNode } from '../graph';
import type { Survey } from '../index';
import { styles } from './picture-styles';
import { isPlain } from './tree';

const box = { width: 210, height: 38 };
const margin = 24;
const letters = 28;

interface Placed {
  readonly node: SurveyNode;
  readonly x: number;
  readonly y: number;
}
type Point = { readonly x: number; readonly y: number };

export const escape = (text: string): string =>
  text.replace(/[&<>"']/g, (letter) => `&#${letter.codePointAt(0)};`);
const cut = (text: string, most = letters) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** The graph of what a component leans on, drawn from left to right. It needs no other file. */
export function drawSurvey(survey: Survey): string {
  const { placed, lines, width, height } = layOut(survey);
  const top = 64;
  const title = `What ${survey.graph.root.name} leans on`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height + top}" width="${width}" height="${height + top}" role="img" aria-label="${escape(title)}">
<style>${styles}</style>
<rect class="ground" width="100%" height="100%"/>
<text class="title" x="${margin}" y="30">${escape(title)}</text>
<g transform="translate(${margin} 50)">${legend()}</g>
<g transform="translate(0 ${top})">
${lines.join('\n')}
${placed.map((one) => drawNode(survey, one)).join('\n')}
</g>
</svg>
`;
}

function layOut(survey: Survey) {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 10, ranksep: 56, marginx: margin, marginy: margin });
  graph.setDefaultEdgeLabel(() => ({}));
  const shown = survey.graph.nodes.filter((node) => isDrawn(survey, node));
  // The layout draws what comes last at the top: so it has the order of the source.
  for (const { id } of shown.toSorted((a, b) => b.id - a.id)) graph.setNode(String(id), { ...box });
  const drawn = new Set(shown);
  const loads = new Set<SurveyNode>();
  for (const node of shown) {
    for (const { to, how } of [...node.edges, ...loadedWith(node)].reverse()) {
      const isLoad = to.own.includes('on load');
      if (how === 'loaded' || !drawn.has(to) || (isLoad && loads.has(to))) continue;
      if (isLoad) loads.add(to);
      graph.setEdge(String(node.id), String(to.id));
    }
  }
  dagre.layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    width: Math.ceil(Math.max(width, 760)),
    height: Math.ceil(height),
    placed: shown.map((node): Placed => {
      const { x, y } = graph.node(String(node.id));
      return { node, x: x - box.width / 2, y: y - box.height / 2 };
    }),
    lines: graph.edges().map((edge: { v: string; w: string }) => {
      const { points } = graph.edge(edge) as { points: readonly Point[] };
      const [from, to] = [graph.node(edge.v) as Point, graph.node(edge.w) as Point];
      const side = from.x < to.x ? box.width / 2 : -box.width / 2;
      const way = [{ x: from.x + side, y: from.y }, ...points.slice(1, -1), { x: to.x - side, y: to.y }];
      return `<path class="way" data-from="${edge.v}" data-to="${edge.w}" d="${curve(way)}"/>`;
    }),
  };
}

const isDrawn = (survey: Survey, node: SurveyNode): boolean =>
  node === survey.graph.root ||
  (!isPlain(survey, node) && (node.kind !== 'on load' || node.unit !== undefined));

/** A line that leaves and reaches each of its points level. */
function curve(points: readonly Point[]): string {
  const round = (x: number, y: number) => `${Math.round(x)} ${Math.round(y)}`;
  return points
    .map((point, index) => {
      const before = points[index - 1];
      if (!before) return `M${round(point.x, point.y)}`;
      const middle = (before.x + point.x) / 2;
      return `C${round(middle, before.y)} ${round(middle, point.y)} ${round(point.x, point.y)}`;
    })
    .join('');
}

/** Kinds that look alike, by the word that styles know them by. */
function familyOf({ kind, own }: SurveyNode): string {
  if (/^(component|directive|pipe|unknown)$/.test(kind)) return 'component';
  if (/^(context|token|service|store)$/.test(kind)) return 'given';
  if (kind === 'package') return 'package';
  return own.length > 0 && !/^(hook|composable|function|value|class)$/.test(kind) ? 'leaf' : 'code';
}

function drawNode({ graph, cuts, reached }: Survey, { node, x, y }: Placed): string {
  const place = cuts.findIndex((one) => one.node === node);
  const isOnWay = !isHard(node) && (reached.get(node)?.size ?? 0) > 0;
  const names = [
    ...['node', familyOf(node), isHard(node) && 'hard', isOnWay && 'way-to-hard'],
    ...[place >= 0 && 'cut', node === graph.root && 'subject'],
  ].filter(Boolean);
  const second = [node.package ?? node.kind, ...node.own].join(' · ');
  const where = node.package ?? `${node.file}:${node.line}`;
  return `<g class="${names.join(' ')}" data-id="${node.id}" transform="translate(${Math.round(x)} ${Math.round(y)})"><title>${escape(`${node.name}, ${node.kind}, ${where}`)}</title><rect class="box" width="${box.width}" height="${box.height}" rx="6"/><rect class="edge" width="5" height="${box.height}" rx="2"/><text class="name" x="14" y="16">${escape(cut(node.name))}</text><text class="kind" x="14" y="30">${escape(cut(second, 34))}</text>${place >= 0 ? `<text class="cut-number" x="${box.width - 8}" y="16">cut ${place + 1}</text>` : ''}</g>`;
}

const families = [
  ['component', 'component'],
  ['code', 'function, hook, class'],
  ['given', 'context, token, service, store'],
  ['package', 'package'],
  ['leaf hard', 'hard to have in a test'],
] as const;

function legend(): string {
  let x = 0;
  return families
    .map(([names, words]) => {
      const place = x;
      x += 46 + words.length * 6;
      return `<g class="node ${names}" transform="translate(${place} 0)"><rect class="box" width="14" height="10" y="-9" rx="2"/><rect class="edge" width="5" height="10" y="-9" rx="1"/><text class="kind" x="20">${words}</text></g>`;
    })
    .join('');
}
