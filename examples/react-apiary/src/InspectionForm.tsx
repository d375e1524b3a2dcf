import { useState, type FormEvent } from 'react';
import { doubtOf, Refused } from '../../shared/inspection';
import { useInspections } from './inspections';
import { NotePad } from './NotePad';

type State = { is: 'open' | 'saving' | 'saved' } | { is: 'refused'; why: string };

/** Logs what a keeper has seen in a hive. */
export function InspectionForm({ hiveId }: { hiveId: string }) {
  const inspections = useInspections();
  const [varroa, setVarroa] = useState('');
  const [note, setNote] = useState('');
  const [state, setState] = useState<State>({ is: 'open' });

  const submit = (event: FormEvent) => {
    event.preventDefault();
    const doubt = doubtOf(varroa);
    if (doubt) return setState({ is: 'refused', why: doubt });
    setState({ is: 'saving' });
    inspections.log({ hiveId, varroa: Number(varroa), note }).then(
      () => setState({ is: 'saved' }),
      (error: unknown) =>
        setState({ is: 'refused', why: error instanceof Refused ? error.message : 'It could not be logged' }),
    );
  };
  return (
    <form className="inspection" aria-label="Inspection" onSubmit={submit}>
      <label>
        Varroa per 100 bees
        <input inputMode="numeric" value={varroa} onChange={(event) => setVarroa(event.target.value)} />
      </label>
      <NotePad text={note} onWrite={setNote} />
      <button type="submit" disabled={state.is === 'saving'}>
        {state.is === 'saving' ? 'Logging' : 'Log inspection'}
      </button>
      {state.is === 'saved' && <p role="status">The inspection is logged</p>}
      {state.is === 'refused' && <p role="alert">{state.why}</p>}
    </form>
  );
}
