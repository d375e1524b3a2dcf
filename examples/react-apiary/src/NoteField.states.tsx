import { label, spy } from 'simulacra';
import { states } from 'simulacra/react';
import { NoteField } from './NoteField';

export default states(
  NoteField,
  { props: { text: 'Calm', onWrite: spy<(text: string) => void>() } },
  { written: { shows: [label('Note')] } },
);
