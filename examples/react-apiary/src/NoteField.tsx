import { forwardRef, useImperativeHandle, useRef } from 'react';

/** What a parent can do to the field. */
export interface NoteFieldHandle {
  write(): void;
}

interface NoteFieldProps {
  text: string;
  onWrite: (text: string) => void;
}

export const NoteField = forwardRef<NoteFieldHandle, NoteFieldProps>(function NoteField(
  { text, onWrite },
  ref,
) {
  const area = useRef<HTMLTextAreaElement>(null);
  useImperativeHandle(ref, () => ({ write: () => area.current?.focus() }));
  return (
    <label className="note">
      Note
      <textarea ref={area} value={text} onChange={(event) => onWrite(event.target.value)} />
    </label>
  );
});
