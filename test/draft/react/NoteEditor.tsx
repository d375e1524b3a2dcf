import { forwardRef, memo, useImperativeHandle, useRef } from 'react';

interface NoteEditorProps {
  note: string;
  onWrite?: (note: string) => void;
}

export const NoteEditor = memo(
  forwardRef<{ focus(): void }, NoteEditorProps>(function NoteEditor({ note, onWrite }, ref) {
    const area = useRef<HTMLTextAreaElement>(null);
    useImperativeHandle(ref, () => ({ focus: () => area.current?.focus() }));
    return (
      <textarea
        ref={area}
        aria-label="Note"
        value={note}
        onChange={({ target }) => onWrite?.(target.value)}
      />
    );
  }),
);
