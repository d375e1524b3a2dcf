import { createContext, useContext } from 'react';

export type Units = 'kilograms' | 'pounds';

export const UnitsContext = createContext<Units>('kilograms');
UnitsContext.displayName = 'UnitsContext';

/** Prints a weight given in kilograms in the units of the yard. */
export function useWeight(): (kilograms: number) => string {
  const units = useContext(UnitsContext);
  return (kilograms) =>
    units === 'kilograms' ? `${kilograms.toFixed(1)} kg` : `${(kilograms * 2.20462).toFixed(1)} lb`;
}
