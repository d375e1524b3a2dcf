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
  const place = new Map(order.map((node, index) => [node, index]));
  const before = new Map<SurveyNode, SurveyNode[]>(order.map((node) => [node, []]));
  for (const node of order) for (const to of next(node)) before.get(to)?.push(node);
  const found = new Map<SurveyNode, SurveyNode>([[root, root]]);
  const meet = (a: SurveyNode, b: SurveyNode): SurveyNode => {
    let [one, two] = [a, b];
    while (one !== two) {
      while (place.get(one)! < place.get(two)!) one = found.get(one)!;
      while (place.get(two)! < place.get(one)!) two = found.get(two)!;
    }
    return one;
  };
  for (let isChanged = true; isChanged;) {
    isChanged = false;
    for (const node of order.toReversed()) {
      if (node === root) continue;
      const known = before.get(node)!.filter((one) => found.has(one));
      const nearest = known.reduce(meet, known[0]!);
      if (found.get(node) === nearest) continue;
      found.set(node, nearest);
      isChanged = true;
    }
  }
  return found;
}

function postOrder(
  root: SurveyNode,
  next: (node: SurveyNode) => readonly SurveyNode[],
): readonly SurveyNode[] {
  const order: SurveyNode[] = [];
  const seen = new Set([root]);
  const stack: { node: SurveyNode; left: SurveyNode[] }[] = [{ node: root, left: [...next(root)] }];
  for (let top = stack.at(-1); top; top = stack.at(-1)) {
    const to = top.left.shift();
    if (to === undefined) {
      order.push(top.node);
      stack.pop();
    } else if (!seen.has(to)) {
      seen.add(to);
      stack.push({ node: to, left: [...next(to)] });
    }
  }
  return order;
}
