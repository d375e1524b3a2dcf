import type { Told } from './run';

const most = 40;

/** What happened, a line each. */
export function tellStory(story: readonly Told[]): string[] {
  const lines = story.map(({ words, verb }) => (verb ? `${words} ${verb}` : words));
  return lines.length <= most ? lines : [...lines.slice(0, most - 1), `… ${lines.length - most + 1} more`];
}

/** The same thing happens several times, so each is numbered. */
function placesIn(story: readonly Told[]): Map<string, { readonly at: number; readonly told: Told }> {
  const places = new Map<string, { at: number; told: Told }>();
  const counts = new Map<string, number>();
  story.forEach((told, at) => {
    const which = (counts.get(told.words) ?? 0) + 1;
    counts.set(told.words, which);
    places.set(`${told.words} ${which}`, { at, told });
  });
  return places;
}

/**
 * In what one order differs from another: of two neighbours that changed places, which came first.
 *
 * @returns at most three
 */
export function differencesOf(story: readonly Told[], other: readonly Told[]): string[] {
  const [own, others] = [placesIn(story), placesIn(other)];
  const shared = [...own].filter(([key]) => others.has(key));
  const found: string[] = [];
  for (const [at, [key, { told }]] of shared.entries()) {
    const [nextKey, next] = shared[at + 1] ?? [];
    if (!next || others.get(key)!.at < others.get(nextKey!)!.at) continue;
    const [one, two] = [told, next.told];
    found.push(
      one.verb === 'arrives'
        ? `${one.words} arrived before ${two.words}`
        : `${two.words} arrived after ${one.words}`,
    );
  }
  return found.slice(0, 3);
}
