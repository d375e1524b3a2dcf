import { useEffect, useState } from 'react';
import { weigh } from './weights';

/** Weighs two hives, and shows which came in which order. */
export function Pair() {
  const [came, setCame] = useState<string[]>([]);
  useEffect(() => {
    for (const hive of ['h1', 'h2']) void weigh(hive).then((told) => setCame((before) => [...before, told]));
  }, []);
  return <output>{came.join(' ')}</output>;
}
