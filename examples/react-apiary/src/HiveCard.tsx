import type { Hive } from '../../shared/hive';
import { useWeight } from './units';

interface HiveCardProps {
  hive: Hive;
  onOpen?: (hiveId: string) => void;
}

export function HiveCard({ hive, onOpen }: HiveCardProps) {
  const weight = useWeight();
  const { queen } = hive;
  return (
    <article className="card" aria-labelledby={`name-${hive.id}`} style={{ borderTopColor: hive.colour }}>
      <h3 id={`name-${hive.id}`}>{hive.name}</h3>
      <dl>
        <dt>Weight</dt>
        <dd>{weight(hive.weight)}</dd>
        <dt>Queen</dt>
        <dd>
          {queen.year}
          {queen.marked ? ', marked' : ', not marked'}
        </dd>
        <dt>Frames</dt>
        <dd>
          {hive.brood} brood, {hive.stores} stores
        </dd>
        <dt>Varroa</dt>
        <dd className={hive.varroa > 3 ? 'warn' : undefined}>{hive.varroa} per 100 bees</dd>
        <dt>Inspected</dt>
        <dd>
          <time dateTime={hive.lastInspection}>{hive.lastInspection}</time>
        </dd>
      </dl>
      {hive.tasks.length > 0 && (
        <ul className="tasks" aria-label={`Tasks for ${hive.name}`}>
          {hive.tasks.map((task) => (
            <li key={task}>{task}</li>
          ))}
        </ul>
      )}
      <button type="button" onClick={() => onOpen?.(hive.id)}>
        Open {hive.name}
      </button>
    </article>
  );
}
