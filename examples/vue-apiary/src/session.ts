import { inject, type InjectionKey, type Ref } from 'vue';

/** Who works in the yard; null when nobody is signed in. */
export interface Session {
  readonly keeper: Readonly<Ref<string | null>>;
  signIn(keeper: string): void;
  signOut(): void;
}

export const SessionKey: InjectionKey<Session> = Symbol('SessionKey');

export function useSession(): Session {
  const session = inject(SessionKey);
  if (!session) throw new Error('useSession works only below a SessionProvider');
  return session;
}
