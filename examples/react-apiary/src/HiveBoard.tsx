import { useState } from 'react';
import { HiveCard } from './HiveCard';
import { useHives } from './useHives';

interface HiveBoardProps {
  yard: string;
  onOpen?: (hiveId: string) => void;
}

export function HiveBoard({ yard, onOpen }: HiveBoardProps) {
  const [search, setSearch] = useState('');
  const found = useHives(yard, search);
  return (
    <section className="board" aria-labelledby="board-title">
      <header>
        <h2 id="board-title">Hives in the {yard} yard</h2>
        <label>
          Find a hive
          <input type="search" value={search} onChange={(event) => setSearch(event.target.value)} />
        </label>
      </header>
      {found.state === 'loading' && <p role="status">Loading hives</p>}
      {found.state === 'failed' && (
        <div role="alert">
          <p>The hives could not be loaded</p>
          <button type="button" onClick={found.retry}>
            Try again
          </button>
        </div>
      )}
      {found.state === 'loaded' && found.hives.length === 0 && (
        <p className="empty">{search ? `No hive is called “${search}”` : 'No hives in this yard yet'}</p>
      )}
      {found.state === 'loaded' && found.hives.length > 0 && (
        <div className="cards">
          {found.hives.map((hive) => (
            <HiveCard key={hive.id} hive={hive} onOpen={onOpen} />
          ))}
        </div>
      )}
    </section>
  );
}
