import { useEffect, useState } from 'react';
import type { Hive } from './hives';

export function YardList() {
  const [hives, setHives] = useState<Hive[]>();
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    fetch('/api/hives')
      .then((response) => (response.ok ? response.json() : Promise.reject(new Error('no'))))
      .then(setHives, () => setFailed(true));
  }, []);
  if (failed) return <p role="alert">The hives could not be loaded</p>;
  if (!hives) return <p role="status">Loading hives</p>;
  if (hives.length === 0) return <p>No hives in this yard yet</p>;
  return (
    <ul>
      {hives.map(({ id, name }) => (
        <li key={id}>{name}</li>
      ))}
    </ul>
  );
}
