import { useEffect, useState } from 'react';
import { fetchWeight, readScale, unit } from './scale';

export function ScaleFeed({ hiveId }: { hiveId: string }) {
  const [average, setAverage] = useState('Asking');
  useEffect(() => {
    fetchWeight(hiveId).then(
      (weight) => setAverage(`On average ${weight}`),
      (error: Error) => setAverage(error.message),
    );
  }, [hiveId]);
  return (
    <p>
      {readScale(hiveId).kilograms} {unit}. {average}.
    </p>
  );
}
