import 'simulacra/jest';
import { fail, hold, label, role, spy, standIn, swap } from 'simulacra';
import { isolate } from 'simulacra/vue';
import { Refused, type Inspections } from '../../shared/inspection';
import InspectionForm from '../src/InspectionForm.vue';
import { InspectionsKey, YardInspections } from '../src/inspections';
import InspectionsProvider from '../src/InspectionsProvider.vue';

const props = { hiveId: 'h1' };
const logged = [{ hiveId: 'h1', varroa: 4, note: '' }];

test('an inspection is logged, and the form says so (a stand-in for an interface)', async () => {
  const saving = hold<void>();
  const service = standIn<Inspections>({ log: saving });
  const form = await isolate(InspectionForm, { props, provide: [[InspectionsKey, service]] });
  await form.type(label('Varroa per 100 bees'), '4');
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('button', 'Logging', { disabled: true }));
  await saving.release();
  expect(form).toShow(role('status', 'The inspection is logged'));
  expect(form.given(InspectionsKey).log.calls).toEqual([logged]);
});

test('what is refused is told in the words of who refused it (a stand-in for a class)', async () => {
  const service = standIn(YardInspections, { log: fail(new Refused('The yard is closed')) });
  const form = await isolate(InspectionForm, { props, provide: [[InspectionsKey, service]] });
  await form.type(label('Varroa per 100 bees'), '4');
  await form.press('Enter');
  expect(form).toShow(role('alert', 'The yard is closed'));
});

test('a count that cannot be right is not sent (a wrapper)', async () => {
  const log = spy<Inspections['log']>();
  const form = await isolate(InspectionForm, { props, wrap: [[InspectionsProvider, { at: { log } }]] });
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('alert', 'Count the mites first'));
  await form.type(label('Varroa per 100 bees'), '101');
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('alert', 'There are 0 to 100 mites per 100 bees'));
  expect(log.calls).toEqual([]);
});

test('a failure that nobody foresaw is told in words of our own (a swapped module)', async () => {
  const service = standIn<Inspections>({ log: fail('Out of paper') });
  const form = await isolate(() => import('../src/InspectionForm.vue'), {
    props,
    swap: [swap(() => import('../src/inspections'), { useInspections: () => service })],
  });
  await form.type(label('Varroa per 100 bees'), '4');
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('alert', 'It could not be logged'));
});

test('the yard itself refuses with problem details (the real service, on the network)', async () => {
  const form = await isolate(InspectionForm, {
    props,
    network: {
      'POST /api/hives/:hiveId/inspections': fail(422, { detail: 'No hive lives with that many mites' }),
    },
  });
  await form.type(label('Varroa per 100 bees'), '60');
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('alert', 'No hive lives with that many mites'));
});
