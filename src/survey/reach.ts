import { isHard, marks, type Mark, type SurveyNode } from './graph';

/** What is reached from a node, in figures. */
export interface Reached {
  /** How many files of the project are used. */
  readonly modules: number;
  readonly marks: readonly Mark[];
  /** What is hard, and what else a test would have to prepare. */
  readonly notable: readonly SurveyNode[];
}

/** True for what a test would have to prepare, or could not have. */
export const isNotable = (node: SurveyNode): boolean =>
  isHard(node) || /^(store|context|token|service)$/.test(node.kind);

/**
 * What is reached from each of many nodes, found in one pass: circles are taken as one node, and what each
 * reaches is one bit for each thing that counts.
 *
 * @see R. Tarjan: Depth-First Search and Linear Graph Algorithms
 */
export class Reach {
  /** By the number of the node, as all lists here. */
  readonly #bits: Uint32Array[] = [];
  readonly #notable: readonly SurveyNode[];
  readonly #files = new Map<string, number>();
  readonly #places: number[] = [];
  readonly #words: number;

  constructor(nodes: readonly SurveyNode[]) {
    for (const { unit, file } of nodes)
      if (unit && file !== undefined && !this.#files.has(file)) this.#files.set(file, this.#files.size);
    this.#notable = nodes.filter(isNotable);
    for (const [index, { id }] of this.#notable.entries()) this.#places[id] = this.#files.size + index;
    this.#words = ((this.#files.size + this.#notable.length) >>> 5) + 1;
    this.#findCircles(nodes);
  }

  of(node: SurveyNode): Reached {
    const bits = this.#bits[node.id]!;
    const has = (place: number) => (bits[place >>> 5]! & (1 << (place & 31))) !== 0;
    let modules = 0;
    for (let place = 0; place < this.#files.size; place++) if (has(place)) modules++;
    const notable = this.#notable.filter((_, index) => has(this.#files.size + index));
    const met = new Set(notable.flatMap(({ own }) => own));
    return { modules, notable, marks: marks.filter((mark) => met.has(mark)) };
  }

  #findCircles(nodes: readonly SurveyNode[]): void {
    const order: number[] = [];
    const low: number[] = [];
    const held: SurveyNode[] = [];
    let met = 0;
    for (const start of nodes) {
      const way = order[start.id] === undefined ? [{ node: start, next: 0 }] : [];
      for (let top = way.at(-1); top; top = way.at(-1)) {
        const { node } = top;
        const { id } = node;
        if (top.next === 0) {
          low[id] = order[id] = met++;
          held.push(node);
        }
        const to = node.edges[top.next++]?.to;
        if (to === undefined) {
          way.pop();
          const over = way.at(-1)?.node.id;
          if (over !== undefined) low[over] = Math.min(low[over]!, low[id]!);
          if (low[id] === order[id]) this.#close(held.splice(held.lastIndexOf(node)));
        } else if (order[to.id] === undefined) way.push({ node: to, next: 0 });
        else if (!this.#bits[to.id]) low[id] = Math.min(low[id]!, order[to.id]!);
      }
    }
  }

  // What a circle leads to was found before.
  #close(circle: readonly SurveyNode[]): void {
    const bits = new Uint32Array(this.#words);
    const mark = (place: number | undefined) => {
      if (place !== undefined) bits[place >>> 5]! |= 1 << (place & 31);
    };
    for (const { id, unit, file, edges } of circle) {
      mark(this.#places[id]);
      if (unit) mark(this.#files.get(file!));
      for (const { to } of edges) {
        const others = this.#bits[to.id];
        if (others) for (let word = 0; word < bits.length; word++) bits[word]! |= others[word]!;
      }
    }
    for (const { id } of circle) this.#bits[id] = bits;
  }
}
