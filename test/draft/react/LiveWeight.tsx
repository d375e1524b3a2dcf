import { useWeight } from './useWeight';

export function LiveWeight() {
  const { kilograms, isLive } = useWeight();
  return (
    <output aria-label="Weight">{isLive ? `${kilograms} kg` : `${kilograms} kg, the last it told`}</output>
  );
}
