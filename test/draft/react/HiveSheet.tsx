import { useEffect, useState } from 'react';
import { getJson, type Hive } from './hives';

export function HiveSheet({ hiveId }: { hiveId: string }) {
  const [state, setState] = useState<{ hive?: Hive; problem?: string }>({});
  useEffect(() => {
    getJson<Hive>(`/api/hives/${hiveId}`).then(
      (hive) => setState({ hive }),
      (error: Error) => setState({ problem: error.message }),
    );
  }, [hiveId]);
  const { hive, problem } = state;
  if (problem) return <p role="alert">{problem}</p>;
  return hive ? <h1>{hive.name}</h1> : <p role="progressbar" aria-label="Looking for the hive" />;
}
