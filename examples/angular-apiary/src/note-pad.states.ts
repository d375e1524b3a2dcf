import { part, role } from 'simulacra';
import { states } from 'simulacra/angular';
import { NoteField } from './note-field';
import { NotePad } from './note-pad';

export default states(
  NotePad,
  { props: { text: '' }, stub: [NoteField] },
  { empty: { shows: [role('button', 'Write a note'), part(NoteField)] } },
);
