import { label } from 'simulacra';
import { states } from 'simulacra/angular';
import { NoteField } from './note-field';

export default states(NoteField, { props: { text: 'Calm' } }, { written: { shows: [label('Note')] } });
