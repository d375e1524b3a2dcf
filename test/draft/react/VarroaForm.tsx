import { useState, type FormEvent } from 'react';

export function VarroaForm({ onLog }: { onLog: (varroa: number) => Promise<void> }) {
  const [varroa, setVarroa] = useState('');
  const [saved, setSaved] = useState(false);
  const log = (event: FormEvent) => {
    event.preventDefault();
    void onLog(Number(varroa)).then(() => setSaved(true));
  };
  return (
    <form aria-label="Inspection" onSubmit={log}>
      <label>
        Varroa per 100 bees <input value={varroa} onChange={({ target }) => setVarroa(target.value)} />
      </label>
      <button disabled={varroa === ''}>Log</button>
      {saved && <p role="status">Logged</p>}
    </form>
  );
}
