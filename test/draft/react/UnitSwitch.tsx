import { useState } from 'react';

export function UnitSwitch() {
  const [unit, setUnit] = useState(() => localStorage.getItem('unit') ?? 'kg');
  const other = unit === 'kg' ? 'lb' : 'kg';
  const change = () => {
    localStorage.setItem('unit', other);
    setUnit(other);
  };
  return <button onClick={change}>Show {other}</button>;
}
