import { shallowRef, toValue, watch, watchEffect, type MaybeRefOrGetter, type ShallowRef } from 'vue';
import type { Hive } from '../../shared/hive';

export type HivesState =
  { state: 'loading' } | { state: 'failed'; reason: string } | { state: 'loaded'; hives: Hive[] };

/** The hives of a yard whose name has what was typed in it, 200 ms after the last letter; a later question makes an earlier one void. */
export function useHives(
  yard: MaybeRefOrGetter<string>,
  typed: MaybeRefOrGetter<string>,
): { found: ShallowRef<HivesState>; retry: () => void } {
  const found = shallowRef<HivesState>({ state: 'loading' });
  const attempt = shallowRef(0);
  const search = settled(typed, 200);

  watchEffect((onCleanup) => {
    void attempt.value;
    const controller = new AbortController();
    onCleanup(() => controller.abort());
    const q = search.value;
    const query = new URLSearchParams({ yard: toValue(yard), ...(q && { q }) });
    found.value = { state: 'loading' };
    load(`/api/hives?${query}`, controller.signal).then(
      (hives) => (found.value = { state: 'loaded', hives }),
      (error: unknown) => {
        if (!controller.signal.aborted) found.value = { state: 'failed', reason: String(error) };
      },
    );
  });

  return { found, retry: () => attempt.value++ };
}

/** What a value came to when it has not changed for some milliseconds. */
function settled(value: MaybeRefOrGetter<string>, delay: number): ShallowRef<string> {
  const found = shallowRef(toValue(value));
  watch(
    () => toValue(value),
    (now, _, onCleanup) => {
      const timer = setTimeout(() => (found.value = now), delay);
      onCleanup(() => clearTimeout(timer));
    },
  );
  return found;
}

async function load(url: string, signal: AbortSignal): Promise<Hive[]> {
  const response = await fetch(url, { signal });
  if (!response.ok) throw new Error(`The yard answered ${response.status}`);
  return (await response.json()) as Hive[];
}
