import { useRef } from 'react';
import { NoteField, type NoteFieldHandle } from './NoteField';

interface NotePadProps {
  text: string;
  onWrite: (text: string) => void;
}

/** A field for notes, and a button that leads there. */
export function NotePad({ text, onWrite }: NotePadProps) {
  const field = useRef<NoteFieldHandle>(null);
  return (
    <div className="pad">
      <button type="button" onClick={() => field.current?.write()}>
        Write a note
      </button>
      <NoteField ref={field} text={text} onWrite={onWrite} />
    </div>
  );
}
