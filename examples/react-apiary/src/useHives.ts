import { useCallback, useEffect, useState } from 'react';
import type { Hive } from '../../shared/hive';

export type HivesState =
  | { state: 'loading' }
  | { state: 'failed'; reason: string }
  | { state: 'loaded'; hives: Hive[] };

/** The hives of a yard whose name has `search` in it; a later question makes an earlier one void. */
export function useHives(yard: string, search: string): HivesState & { retry: () => void } {
  const [found, setFound] = useState<HivesState>({ state: 'loading' });
  const [attempt, setAttempt] = useState(0);

  useEffect(() => {
    const controller = new AbortController();
    const query = new URLSearchParams({ yard, ...(search && { q: search }) });
    setFound({ state: 'loading' });
    load(`/api/hives?${query}`, controller.signal).then(
      (hives) => setFound({ state: 'loaded', hives }),
      (error: unknown) => {
        if (!controller.signal.aborted) setFound({ state: 'failed', reason: String(error) });
      },
    );
    return () => controller.abort();
  }, [yard, search, attempt]);

  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  return { ...found, retry };
}

async function load(url: string, signal: AbortSignal): Promise<Hive[]> {
  const response = await fetch(url, { signal });
  if (!response.ok) throw new Error(`The yard answered ${response.status}`);
  return (await response.json()) as Hive[];
}
