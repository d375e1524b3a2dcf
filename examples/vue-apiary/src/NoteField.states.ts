import { label } from 'simulacra';
import { states } from 'simulacra/vue';
import NoteField from './NoteField.vue';

export default states(NoteField, { props: { text: 'Calm' } }, { written: { shows: [label('Note')] } });
