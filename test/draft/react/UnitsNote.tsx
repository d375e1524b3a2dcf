import { createContext, useContext } from 'react';

export const Units = createContext<{ unit: 'kg' | 'lb'; note: string } | null>(null);

export function UnitsNote() {
  const { unit, note } = useContext(Units)!;
  return (
    <p>
      Weights are in {unit}: <em>{note}</em>
    </p>
  );
}
