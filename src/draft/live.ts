import type { Draft } from './model';
import { type Known, swapFor } from './plan';
import type { Value } from './value';

/** A draft in which what listens to a channel is swapped for what the channel would emit. */
export function swapLive(known: Known, draft: Draft): Draft | undefined {
  const isLive = (value: Value) => value.kind === 'code' && value.code.startsWith('channel(');
  const live = [...draft.given.network]
    .filter(([, value]) => isLive(value))
    .map(([route]) => route.replace(/^\w+ /, ''));
  const leaf = known.survey.graph.nodes.find(
    ({ kind, name }) => /^(socket|event stream)$/.test(kind) && live.includes(name.replace(/^\w+ /, '')),
  );
  const found = leaf && swapFor(known, leaf);
  if (!found) return undefined;
  const network = new Map([...draft.given.network].filter(([, value]) => !isLive(value)));
  return {
    ...draft,
    isLoadedLate: true,
    given: { ...draft.given, network, swap: [...draft.given.swap, found.value] },
  };
}
