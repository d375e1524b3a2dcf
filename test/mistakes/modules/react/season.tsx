import { createContext, useContext, type ReactNode } from 'react';

export const SeasonContext = createContext<{ flow: string } | null>(null);

export const SeasonProvider = ({ children }: { children?: ReactNode }) => (
  <SeasonContext.Provider value={{ flow: 'lime' }}>{children}</SeasonContext.Provider>
);

export function useSeason() {
  const season = useContext(SeasonContext);
  if (!season) throw new Error('useSeason must be used within a SeasonProvider');
  return season;
}
