import type { Choice, Plan } from './run';

/* Which orders are tried: all of them where there are few, else those that find most. */

/** Answers arrive as they become ready, each before the test goes on. */
export const natural: Plan = () => 0;

/** Follows choices that were made before, and goes on as it would by itself. */
export const following =
  (choices: readonly number[]): Plan =>
  (at) =>
    choices[at] ?? 0;

/** How many orders there are, as far as the choices of one run show. */
export const countOrders = (choices: readonly Choice[]): number =>
  choices.reduce((all, { labels, mayGoOn }) => all * (labels.length + (mayGoOn ? 1 : 0)), 1);

/** The choices to follow for the next order after one, depth first; undefined after the last. */
export function nextAfter(choices: readonly Choice[]): number[] | undefined {
  for (let at = choices.length - 1; at >= 0; at--) {
    const { labels, mayGoOn, chosen } = choices[at]!;
    if (chosen + 1 < labels.length + (mayGoOn ? 1 : 0))
      return [...choices.slice(0, at).map((one) => one.chosen), chosen + 1];
  }
  return undefined;
}

/** One answer is kept back until some other things have happened, or as long as anything else can. */
export function keepingLate(late: string, happenings: number): () => Plan {
  return () => {
    let waited = 0;
    return (_, labels, mayGoOn) => {
      const others = labels.findIndex((label) => label !== late);
      if (!labels.includes(late)) return 0;
      if (waited >= happenings) return labels.indexOf(late);
      waited++;
      if (others >= 0) return others;
      return mayGoOn ? labels.length : 0;
    };
  };
}

/** What became ready last arrives first. */
export const newestFirst: Plan = (_, labels) => labels.length - 1;

/** Any order, the same for the same seed. */
export function shuffled(seed: number): Plan {
  let state = seed >>> 0;
  const random = () => {
    // A linear congruential generator, as good as is needed to choose among a few.
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  return (_, labels, mayGoOn) => Math.floor(random() * (labels.length + (mayGoOn ? 1 : 0)));
}

/** The plans to try where there are too many orders, those that find most first. */
export function* bestPlans(labels: readonly string[], seed: number): Generator<() => Plan> {
  for (const happenings of [Infinity, 1, 2, 3])
    for (const late of labels) yield keepingLate(late, happenings);
  yield () => newestFirst;
  for (let at = 0; ; at++) {
    const from = seed + at;
    yield () => shuffled(Math.imul(from, 2654435761));
  }
}
