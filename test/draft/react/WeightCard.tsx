import type { Hive } from './hives';

export const WeightCard = ({ hive, onOpen }: { hive: Hive; onOpen?: (id: string) => void }) => (
  <article>
    <h3>{hive.name}</h3>
    <p>{hive.kilograms.toFixed(1)} kg</p>
    <button onClick={() => onOpen?.(hive.id)}>Open {hive.name}</button>
  </article>
);
