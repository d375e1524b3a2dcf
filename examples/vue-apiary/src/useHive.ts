import { shallowRef, toValue, watchEffect, type MaybeRefOrGetter, type ShallowRef } from 'vue';
import type { Hive } from '../../shared/hive';

export type HiveState = { state: 'loading' } | { state: 'failed' } | { state: 'loaded'; hive: Hive };

/** One hive, by its id. */
export function useHive(hiveId: MaybeRefOrGetter<string>): ShallowRef<HiveState> {
  const found = shallowRef<HiveState>({ state: 'loading' });
  watchEffect((onCleanup) => {
    const controller = new AbortController();
    onCleanup(() => controller.abort());
    found.value = { state: 'loading' };
    const tell = (is: HiveState) => {
      if (!controller.signal.aborted) found.value = is;
    };
    fetch(`/api/hives/${toValue(hiveId)}`, { signal: controller.signal })
      .then((response) => (response.ok ? (response.json() as Promise<Hive>) : Promise.reject(response)))
      .then(
        (hive) => tell({ state: 'loaded', hive }),
        () => tell({ state: 'failed' }),
      );
  });
  return found;
}
