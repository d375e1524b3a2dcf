import { useState } from 'react';
import { Route, Routes, useNavigate } from 'react-router';
import { AlertTicker } from './AlertTicker';
import { ForagePanel, ForageProvider } from './ForagePanel';
import { HiveBoard } from './HiveBoard';
import { HiveDetail } from './HiveDetail';
import { SessionProvider } from './session';
import { UnitsContext, type Units } from './units';
import { YardGate } from './YardGate';

const yards = ['north', 'east', 'south'];

/** The page: the gate, the choice of yard and units, the board or one hive. */
export function YardShell() {
  const [yard, setYard] = useState('north');
  const [units, setUnits] = useState<Units>('kilograms');
  const navigate = useNavigate();
  const open = (hiveId: string) => void navigate(`/hives/${hiveId}`);
  const show = (name: string) => {
    setYard(name);
    void navigate('/');
  };
  return (
    <SessionProvider>
      <UnitsContext.Provider value={units}>
        <header className="shell">
          <h1>Brackenfold Apiary</h1>
          <nav aria-label="Yards">
            {yards.map((name) => (
              <button key={name} type="button" aria-pressed={name === yard} onClick={() => show(name)}>
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
        <AlertTicker />
        <main>
          <YardGate>
            <Routes>
              <Route path="/" element={<HiveBoard key={yard} yard={yard} onOpen={open} />} />
              <Route path="/hives/:hiveId" element={<HiveDetail />} />
            </Routes>
            <ForageProvider>
              <ForagePanel />
            </ForageProvider>
          </YardGate>
        </main>
      </UnitsContext.Provider>
    </SessionProvider>
  );
}
