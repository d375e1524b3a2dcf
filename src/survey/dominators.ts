import type { SurveyNode } from './graph';

/**
 * For each node that is reached: the nearest node that every way to it passes. What a node dominates is what
 * goes when it is replaced.
 *
 * @see K. D. Cooper, T. J. Harvey, K. Kennedy: A Simple, Fast Dominance Algorithm
 */
export function findDominators(
  root: SurveyNode,
  next: (node: SurveyNode) => readonly SurveyNode[],
): ReadonlyMap<SurveyNode, SurveyNode> {
  const order = postOrder(root, next);
  const place = new Map(order.map(({ node }, index) => [node, index]));
  const before = order.map((): number[] => []);
  for (const [index, { to }] of order.entries()) for (const one of to) before[place.get(one)!]!.push(index);
  // The root comes last, and a node that is not found yet is at -1.
  const last = order.length - 1;
  const found = new Int32Array(order.length).fill(-1);
  found[last] = last;
  const meet = (a: number, b: number): number => {
    let [one, two] = [a, b];
    while (one !== two) {
      while (one < two) one = found[one]!;
      while (two < one) two = found[two]!;
    }
    return one;
  };
  for (let isChanged = true; isChanged;) {
    isChanged = false;
    for (let index = last - 1; index >= 0; index--) {
      let nearest = -1;
      for (const one of before[index]!)
        if (found[one]! >= 0) nearest = nearest < 0 ? one : meet(nearest, one);
      if (found[index] === nearest) continue;
      found[index] = nearest;
      isChanged = true;
    }
  }
  const pairs = order.map(({ node }, index) => [node, order[found[index]!]!.node] as const);
  return new Map(pairs.toReversed());
}

interface Met {
  readonly node: SurveyNode;
  readonly to: readonly SurveyNode[];
}

function postOrder(root: SurveyNode, next: (node: SurveyNode) => readonly SurveyNode[]): readonly Met[] {
  const order: Met[] = [];
  const seen = new Set<SurveyNode>();
  const enter = (node: SurveyNode) => {
    seen.add(node);
    return { node, to: next(node), at: 0 };
  };
  const way = [enter(root)];
  for (let top = way.at(-1); top; top = way.at(-1)) {
    const to = top.to[top.at++];
    if (to === undefined) order.push(way.pop()!);
    else if (!seen.has(to)) way.push(enter(to));
  }
  return order;
}
