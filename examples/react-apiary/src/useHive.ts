import { useEffect, useState } from 'react';
import type { Hive } from '../../shared/hive';

export type HiveState = { state: 'loading' } | { state: 'failed' } | { state: 'loaded'; hive: Hive };

/** One hive, by its id. */
export function useHive(hiveId: string): HiveState {
  const [found, setFound] = useState<{ hiveId: string; is: HiveState }>();
  useEffect(() => {
    const controller = new AbortController();
    const tell = (is: HiveState) => !controller.signal.aborted && setFound({ hiveId, is });
    fetch(`/api/hives/${hiveId}`, { signal: controller.signal })
      .then((response) => (response.ok ? (response.json() as Promise<Hive>) : Promise.reject(response)))
      .then(
        (hive) => tell({ state: 'loaded', hive }),
        () => tell({ state: 'failed' }),
      );
    return () => controller.abort();
  }, [hiveId]);
  return found?.hiveId === hiveId ? found.is : { state: 'loading' };
}
