import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';

/** Who works in the yard; null when nobody is signed in. */
export interface Session {
  keeper: string | null;
  signIn(keeper: string): void;
  signOut(): void;
}

export const SessionContext = createContext<Session | undefined>(undefined);
SessionContext.displayName = 'SessionContext';

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error('useSession works only below a SessionProvider');
  return session;
}

export function SessionProvider({ children }: { children: ReactNode }) {
  const [keeper, setKeeper] = useState<string | null>(null);
  const session = useMemo(() => ({ keeper, signIn: setKeeper, signOut: () => setKeeper(null) }), [keeper]);
  return <SessionContext.Provider value={session}>{children}</SessionContext.Provider>;
}
