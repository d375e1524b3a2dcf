import {
  createContext,
  forwardRef,
  useContext,
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import { hives, type Hive } from '../../examples/shared/hive';
import type { Play } from './time';

/* The components of the specification, as a React engineer writes them for React 18 and 19 alike. */

export const Keeper = createContext<string | undefined>(undefined);
Keeper.displayName = 'Keeper';

export function Weight({ kilograms }: { kilograms: number }) {
  return <p>{kilograms} kg</p>;
}

interface CardProps {
  hive: Hive;
  onOpen?: (id: string) => void;
  children?: ReactNode;
}

export function Card({ hive, onOpen, children }: CardProps) {
  return (
    <article aria-label={hive.name}>
      <h3>{hive.name}</h3>
      <Weight kilograms={hive.weight} />
      {children}
      <button onClick={() => onOpen?.(hive.id)}>Open</button>
    </article>
  );
}

type Found = { state: 'loading' } | { state: 'failed' } | { state: 'loaded'; hives: Hive[] };

export function Board({ yard, onOpen }: { yard: string; onOpen?: (id: string) => void }) {
  const [found, setFound] = useState<Found>({ state: 'loading' });
  const [attempt, setAttempt] = useState(0);
  const [opened, setOpened] = useState('');
  useEffect(() => {
    let current = true;
    setFound({ state: 'loading' });
    fetch(`/api/hives?yard=${yard}`)
      .then((response) =>
        response.ok ? (response.json() as Promise<Hive[]>) : Promise.reject(new Error('not ok')),
      )
      .then((loaded) => current && setFound({ state: 'loaded', hives: loaded }))
      .catch(() => current && setFound({ state: 'failed' }));
    return () => void (current = false);
  }, [yard, attempt]);
  const open = (id: string) => {
    setOpened(id);
    onOpen?.(id);
  };
  return (
    <section aria-label="Hives">
      {found.state === 'loading' && <p role="status">Loading hives</p>}
      {found.state === 'failed' && (
        <div role="alert">
          The hives could not be loaded
          <button onClick={() => setAttempt(attempt + 1)}>Try again</button>
        </div>
      )}
      {found.state === 'loaded' && found.hives.length === 0 && <p>No hives</p>}
      {found.state === 'loaded' &&
        found.hives.map((hive) => (
          <Card key={hive.id} hive={hive} onOpen={open}>
            <p>Tasks: {hive.tasks.length}</p>
          </Card>
        ))}
      {opened && <p>Opened {opened}</p>}
    </section>
  );
}

export function Greeting() {
  const keeper = useContext(Keeper);
  if (keeper === undefined) throw new Error('Greeting needs a keeper');
  return <p>Good day, {keeper}</p>;
}

export interface PadHandle {
  focus(): void;
}

export const Pad = forwardRef<PadHandle>(function Pad(_, ref) {
  const area = useRef<HTMLTextAreaElement>(null);
  useImperativeHandle(ref, () => ({ focus: () => area.current?.focus() }));
  return <textarea ref={area} aria-label="Pad" />;
});

export function Desk() {
  const pad = useRef<PadHandle>(null);
  return (
    <>
      <button onClick={() => pad.current?.focus()}>Write</button>
      <Pad ref={pad} />
    </>
  );
}

export function Patient({ ill }: { ill: boolean }) {
  if (ill) throw new RangeError('39.5 degrees');
  return <p>Well</p>;
}

export function Ward({ ill }: { ill: boolean }) {
  return (
    <div>
      <Patient ill={ill} />
    </div>
  );
}

interface LogEntry {
  note: string;
  varroa: string;
  yard: string;
  marked: boolean;
  mood: string;
}

export function Log({ onLog }: { onLog: (entry: LogEntry) => void }) {
  const [entry, setEntry] = useState<LogEntry>({
    note: '',
    varroa: '',
    yard: 'north',
    marked: false,
    mood: 'calm',
  });
  const set = (change: Partial<LogEntry>) => setEntry({ ...entry, ...change });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onLog(entry);
      }}
    >
      <h2>Log</h2>
      <label>
        Note <input value={entry.note} onChange={(event) => set({ note: event.target.value })} />
      </label>
      <label htmlFor="varroa">Varroa</label>
      <input
        id="varroa"
        type="number"
        value={entry.varroa}
        onChange={(event) => set({ varroa: event.target.value })}
      />
      <label>
        Yard
        <select value={entry.yard} onChange={(event) => set({ yard: event.target.value })}>
          <option value="north">North</option>
          <option value="east">East</option>
        </select>
      </label>
      <label>
        <input
          type="checkbox"
          checked={entry.marked}
          onChange={(event) => set({ marked: event.target.checked })}
        />{' '}
        Marked
      </label>
      {['calm', 'angry'].map((mood) => (
        <label key={mood}>
          <input type="radio" name="mood" checked={entry.mood === mood} onChange={() => set({ mood })} />{' '}
          {mood === 'calm' ? 'Calm' : 'Angry'}
        </label>
      ))}
      <button disabled={entry.note === ''}>Log</button>
    </form>
  );
}

export const YardOpen = ({ children }: { children?: ReactNode }) => (
  <div>
    <p>Yard open</p>
    {children}
  </div>
);
export const GateSign = ({ children, sign = 'Gate' }: { children?: ReactNode; sign?: string }) => (
  <div>
    <p>{sign}</p>
    {children}
  </div>
);

export const Unread = createContext('');
Unread.displayName = 'Unread';

export function Runner({ work }: { work: () => unknown }) {
  const [outcome, setOutcome] = useState('');
  const run = async () => {
    try {
      setOutcome(String(await work()));
    } catch (error) {
      setOutcome(`caught: ${(error as Error).message}`);
    }
  };
  const latest = useRef(run);
  useEffect(() => {
    void latest.current();
  }, []);
  return (
    <>
      <button onClick={() => void run()}>Run</button>
      <p>{outcome}</p>
    </>
  );
}

export function Live({ play }: { play: Play }) {
  const [shown, show] = useState('');
  useEffect(() => play.start?.(show), [play]);
  return (
    <>
      <button onClick={() => play.press?.(show)}>Go</button>
      <output>{shown}</output>
    </>
  );
}

export { hives };
