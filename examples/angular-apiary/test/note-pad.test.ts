import 'simulacra/jest';
import { label, role } from 'simulacra';
import { isolate, stub } from 'simulacra/angular';
import { NoteField } from '../src/note-field';
import { NotePad } from '../src/note-pad';

const props = { text: '' };

test('the button leads into the field', async () => {
  const pad = await isolate(NotePad, { props });
  await pad.click(role('button', 'Write a note'));
  expect(document.activeElement).toBe(pad.find(label('Note')));
});

test('the button asks the field to be written in', async () => {
  const pad = await isolate(NotePad, { props, stub: [stub(NoteField, { handle: ['begin'] })] });
  await pad.click(role('button', 'Write a note'));
  expect(pad.part(NoteField).handle['begin']?.calls).toEqual([[]]);
});

test('what is written is told', async () => {
  const pad = await isolate(NotePad, { props: { text: 'Calm' }, stub: [NoteField] });
  await pad.part(NoteField).tell('write', 'Calm bees');
  expect(pad.outputs.write).toEqual([['Calm bees']]);
});
