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
  readonly #bits = new Map<SurveyNode, Uint32Array>();
  readonly #notable: readonly SurveyNode[];
  readonly #places = new Map<SurveyNode | string, number>();
  readonly #files: number;

  constructor(nodes: readonly SurveyNode[]) {
    for (const { unit, file } of nodes)
      if (unit && file !== undefined && !this.#places.has(file)) this.#places.set(file, this.#places.size);
    this.#files = this.#places.size;
    this.#notable = nodes.filter(isNotable);
    for (const node of this.#notable) this.#places.set(node, this.#places.size);
    this.#findCircles(nodes);
  }

  of(node: SurveyNode): Reached {
    const bits = this.#bits.get(node)!;
    const has = (place: number) => (bits[place >>> 5]! & (1 << (place & 31))) !== 0;
    let modules = 0;
    for (let place = 0; place < this.#files; place++) if (has(place)) modules++;
    const notable = this.#notable.filter((_, index) => has(this.#files + index));
    const met = new Set(notable.flatMap(({ own }) => own));
    return { modules, notable, marks: marks.filter((mark) => met.has(mark)) };
  }

  #ownBits(nodes: readonly SurveyNode[]): Uint32Array {
    const bits = new Uint32Array((this.#places.size >>> 5) + 1);
    for (const node of nodes) {
      for (const key of [node, node.unit && node.file]) {
        const place = key === undefined ? undefined : this.#places.get(key);
        if (place !== undefined) bits[place >>> 5]! |= 1 << (place & 31);
      }
    }
    return bits;
  }

  #findCircles(nodes: readonly SurveyNode[]): void {
    const order = new Map<SurveyNode, number>();
    const low = new Map<SurveyNode, number>();
    const held: SurveyNode[] = [];
    for (const start of nodes) {
      const way = order.has(start) ? [] : [{ node: start, next: 0 }];
      for (let top = way.at(-1); top; top = way.at(-1)) {
        const { node } = top;
        if (top.next === 0) {
          order.set(node, order.size);
          low.set(node, order.get(node)!);
          held.push(node);
        }
        const to = node.edges[top.next++]?.to;
        if (to === undefined) {
          way.pop();
          const over = way.at(-1)?.node;
          if (over) low.set(over, Math.min(low.get(over)!, low.get(node)!));
          if (low.get(node) === order.get(node)) this.#close(held.splice(held.lastIndexOf(node)));
        } else if (!order.has(to)) way.push({ node: to, next: 0 });
        else if (!this.#bits.has(to)) low.set(node, Math.min(low.get(node)!, order.get(to)!));
      }
    }
  }

  // What a circle leads to was found before.
  #close(circle: readonly SurveyNode[]): void {
    const bits = this.#ownBits(circle);
    for (const { edges } of circle) {
      for (const { to } of edges) {
        const others = this.#bits.get(to);
        if (others) for (let word = 0; word < bits.length; word++) bits[word]! |= others[word]!;
      }
    }
    for (const node of circle) this.#bits.set(node, bits);
  }
}
