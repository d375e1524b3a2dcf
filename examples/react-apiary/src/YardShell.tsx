import { useState } from 'react';
import { HiveBoard } from './HiveBoard';
import { SessionProvider } from './session';
import { UnitsContext, type Units } from './units';
import { YardGate } from './YardGate';

const yards = ['north', 'east', 'south'];

/** The page: the gate, the choice of yard and units, the board. */
export function YardShell() {
  const [yard, setYard] = useState('north');
  const [units, setUnits] = useState<Units>('kilograms');
  const [opened, setOpened] = useState<string>();
  return (
    <SessionProvider>
      <UnitsContext.Provider value={units}>
        <header className="shell">
          <h1>Brackenfold Apiary</h1>
          <nav aria-label="Yards">
            {yards.map((name) => (
              <button key={name} type="button" aria-pressed={name === yard} onClick={() => setYard(name)}>
                {name[0]?.toUpperCase()}
                {name.slice(1)}
              </button>
            ))}
          </nav>
          <label>
            Units
            <select value={units} onChange={(event) => setUnits(event.target.value as Units)}>
              <option value="kilograms">Kilograms</option>
              <option value="pounds">Pounds</option>
            </select>
          </label>
        </header>
        <main>
          <YardGate>
            <HiveBoard key={yard} yard={yard} onOpen={setOpened} />
            {opened && <p role="status">Hive {opened} is open</p>}
          </YardGate>
        </main>
      </UnitsContext.Provider>
    </SessionProvider>
  );
}
