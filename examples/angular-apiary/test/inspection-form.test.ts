import 'simulacra/jest';
import { Component } from '@angular/core';
import { fail, hold, label, role, spy, standIn, swap } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { Refused, type Inspections } from '../../shared/inspection';
import { InspectionForm } from '../src/inspection-form';
import { YardInspections } from '../src/inspections';

const props = { hiveId: 'h1' };
const logged = [{ hiveId: 'h1', varroa: 4, note: '' }];

test('an inspection is logged, and the form says so (a stand-in for an interface)', async () => {
  const saving = hold<void>();
  const service = standIn<Inspections>({ log: saving });
  const form = await isolate(InspectionForm, { props, provide: [[YardInspections, service]] });
  await form.type(label('Varroa per 100 bees'), '4');
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('button', 'Logging', { disabled: true }));
  await saving.release();
  expect(form).toShow(role('status', 'The inspection is logged'));
  expect(form.given(YardInspections).log.calls).toEqual([logged]);
});

test('what is refused is told in the words of who refused it (a stand-in for a class)', async () => {
  const service = standIn(YardInspections, { log: fail(new Refused('The yard is closed')) });
  const form = await isolate(InspectionForm, { props, provide: [[YardInspections, service]] });
  await form.type(label('Varroa per 100 bees'), '4');
  await form.press('Enter');
  expect(form).toShow(role('alert', 'The yard is closed'));
});

const log = spy<Inspections['log']>();

@Component({
  selector: 'paper-book',
  template: '<ng-content />',
  providers: [{ provide: YardInspections, useValue: { log } }],
})
class PaperBook {}

test('a count that cannot be right is not sent (a wrapper)', async () => {
  const form = await isolate(InspectionForm, { props, wrap: [PaperBook] });
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('alert', 'Count the mites first'));
  await form.type(label('Varroa per 100 bees'), '101');
  await form.click(role('button', 'Log inspection'));
  expect(form).toShow(role('alert', 'There are 0 to 100 mites per 100 bees'));
  expect(log.calls).toEqual([]);
});

test('a failure that nobody foresaw is told in words of our own (a swapped module)', async () => {
  const form = await isolate(() => import('../src/inspection-form'), {
    props,
    swap: [swap(() => import('../../shared/inspection'), { logInspection: fail('Out of paper') })],
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
