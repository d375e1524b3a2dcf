import { useWeight } from './units';
import { useScale } from './useScale';

/** The weight of a hive, as its scale tells it. */
export function ScaleFeed({ hiveId }: { hiveId: string }) {
  const { kilograms, live } = useScale(hiveId);
  const weight = useWeight();
  if (kilograms === undefined) return <p role="status">Waiting for the scale</p>;
  return (
    <p className="scale">
      On the scale <strong>{weight(kilograms)}</strong>
      {live ? ' and counting' : ', the last it told'}
    </p>
  );
}
