import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { getJson, type Hive } from './hives';

export default function HivePage() {
  const { hiveId } = useParams<{ hiveId: string }>();
  const [hive, setHive] = useState<Hive | null>(null);
  useEffect(() => void getJson<Hive>(`/api/hives/${hiveId}`).then(setHive, () => undefined), [hiveId]);
  return (
    <main>
      {hive ? <h1>{hive.name}</h1> : <p role="status">One moment</p>}
      <Link to="/">All hives</Link>
    </main>
  );
}
