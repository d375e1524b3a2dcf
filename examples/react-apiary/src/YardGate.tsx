import { useState, type FormEvent, type ReactNode } from 'react';
import { useSession } from './session';

/** Lets only those in who have signed in. */
export function YardGate({ children }: { children?: ReactNode }) {
  const { keeper, signIn, signOut } = useSession();
  const [name, setName] = useState('');
  if (keeper !== null) {
    return (
      <>
        <p className="keeper">
          Signed in as <strong data-testid="keeper">{keeper}</strong>
          <button type="button" onClick={signOut}>
            Sign out
          </button>
        </p>
        {children}
      </>
    );
  }
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn(name.trim());
  };
  return (
    <form className="gate" aria-label="Sign in" onSubmit={submit}>
      <h2>Who is in the yard?</h2>
      <label>
        Keeper
        <input value={name} onChange={(event) => setName(event.target.value)} autoComplete="off" />
      </label>
      <button type="submit" disabled={name.trim() === ''}>
        Sign in
      </button>
    </form>
  );
}
