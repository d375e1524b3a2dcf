import { createContext, useContext, useState, type ReactNode } from 'react';

interface Keeper {
  name: string;
  rename(name: string): void;
}
const KeeperContext = createContext<Keeper | undefined>(undefined);

export function useKeeper(): Keeper {
  const keeper = useContext(KeeperContext);
  if (!keeper) throw new Error('useKeeper must be used within a KeeperProvider');
  return keeper;
}

export function KeeperProvider({ children }: { children: ReactNode }) {
  const [name, rename] = useState('Imke');
  return <KeeperContext.Provider value={{ name, rename }}>{children}</KeeperContext.Provider>;
}
