import { part, role, spy } from 'simulacra';
import { states } from 'simulacra/react';
import { NoteField } from './NoteField';
import { NotePad } from './NotePad';

export default states(
  NotePad,
  { props: { text: '', onWrite: spy<(text: string) => void>() }, stub: [NoteField] },
  { empty: { shows: [role('button', 'Write a note'), part(NoteField)] } },
);
