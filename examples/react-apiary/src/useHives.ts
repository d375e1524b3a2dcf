import { useCallback, useEffect, useState } from 'react';
import type { Hive } from '../../shared/hive';

export type HivesState =
  { state: 'loading' } | { state: 'failed'; reason: string } | { state: 'loaded'; hives: Hive[] };

/** The hives of a yard whose name has what was typed in it, 200 ms after the last letter; a later question makes an earlier one void. */
export function useHives(yard: string, typed: string): HivesState & { retry: () => void } {
  const search = useSettled(typed, 200);
  const [attempt, setAttempt] = useState(0);
  const [answer, setAnswer] = useState<{ question: string; found: HivesState }>();
  const question = JSON.stringify([yard, search, attempt]);

  useEffect(() => {
    const controller = new AbortController();
    const query = new URLSearchParams({ yard, ...(search && { q: search }) });
    load(`/api/hives?${query}`, controller.signal).then(
      (hives) => setAnswer({ question, found: { state: 'loaded', hives } }),
      (error: unknown) => {
        if (!controller.signal.aborted)
          setAnswer({ question, found: { state: 'failed', reason: String(error) } });
      },
    );
    return () => controller.abort();
  }, [yard, search, question]);

  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  // What was found for another question is no answer to this one: it is still being loaded.
  const found: HivesState = answer?.question === question ? answer.found : { state: 'loading' };
  return { ...found, retry };
}

/** What a value came to when it has not changed for some milliseconds. */
function useSettled(value: string, delay: number): string {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    if (value === settled) return undefined;
    const timer = setTimeout(() => setSettled(value), delay);
    return () => clearTimeout(timer);
  }, [value, settled, delay]);
  return settled;
}

async function load(url: string, signal: AbortSignal): Promise<Hive[]> {
  const response = await fetch(url, { signal });
  if (!response.ok) throw new Error(`The yard answered ${response.status}`);
  return (await response.json()) as Hive[];
}
