import { useRef, useState, type DragEvent } from 'react';
import { doubtOfPhoto, sendPhoto } from '../../shared/photos';

type State =
  | { is: 'waiting' }
  | { is: 'sending'; name: string; gone: number }
  | { is: 'kept'; name: string }
  | { is: 'refused'; why: string };

/** Takes photos of frames, dropped or chosen, and tells how much of each has gone. */
export function PhotoDrop({ hiveId }: { hiveId: string }) {
  const [state, setState] = useState<State>({ is: 'waiting' });
  const [isOver, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);

  const send = async (photo: File | undefined) => {
    if (!photo) return;
    const why = doubtOfPhoto(photo);
    if (why) return setState({ is: 'refused', why });
    const { name } = photo;
    setState({ is: 'sending', name, gone: 0 });
    try {
      for await (const gone of sendPhoto(hiveId, photo)) setState({ is: 'sending', name, gone });
      setState({ is: 'kept', name });
    } catch {
      setState({ is: 'refused', why: `${name} could not be sent` });
    }
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void send(event.dataTransfer.files[0]);
  };
  return (
    <section
      className={isOver ? 'photos over' : 'photos'}
      aria-label="Photos"
      onDragEnter={() => setOver(true)}
      onDragLeave={() => setOver(false)}
      onDragOver={(event) => event.preventDefault()}
      onDrop={drop}
    >
      <p>Drop a photo of a frame here</p>
      <button type="button" disabled={state.is === 'sending'} onClick={() => input.current?.click()}>
        Choose a photo
      </button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        hidden
        onChange={({ target }) => void send(target.files?.[0])}
      />
      {state.is === 'sending' && <progress aria-label={`Sending ${state.name}`} value={state.gone} />}
      {state.is === 'kept' && <p role="status">{state.name} is kept</p>}
      {state.is === 'refused' && <p role="alert">{state.why}</p>}
    </section>
  );
}
