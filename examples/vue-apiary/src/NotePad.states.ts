import { part, role } from 'simulacra';
import { states } from 'simulacra/vue';
import NoteField from './NoteField.vue';
import NotePad from './NotePad.vue';

export default states(
  NotePad,
  { props: { text: '' }, stub: [NoteField] },
  { empty: { shows: [role('button', 'Write a note'), part(NoteField)] } },
);
