import { fail, hold, label, role, standIn } from 'simulacra';
import { states, type Subject } from 'simulacra/vue';
import { Refused, type Inspections } from '../../shared/inspection';
import InspectionForm from './InspectionForm.vue';
import { InspectionsKey } from './inspections';

const log = async (form: Subject) => {
  await form.type(label('Varroa per 100 bees'), '4');
  await form.click(role('button', 'Log inspection'));
};
const kept = (answer: Parameters<typeof standIn<Inspections>>[0]) =>
  [[InspectionsKey, standIn<Inspections>(answer)]] as const;

export default states(
  InspectionForm,
  { props: { hiveId: 'h1' } },
  {
    open: {
      shows: [role('button', 'Log inspection', { disabled: false })],
      lacks: [role('alert'), role('status')],
    },
    doubted: {
      after: (form) => form.click(role('button', 'Log inspection')),
      shows: [role('alert', 'Count the mites first')],
    },
    saving: {
      provide: kept({ log: hold<void>() }),
      after: log,
      shows: [role('button', 'Logging', { disabled: true })],
    },
    saved: {
      provide: kept({ log: () => Promise.resolve() }),
      after: log,
      shows: [role('status', 'The inspection is logged')],
      everyArrival: true,
    },
    refused: {
      provide: kept({ log: fail(new Refused('The yard is closed')) }),
      after: log,
      shows: [role('alert', 'The yard is closed')],
      everyArrival: true,
    },
    failed: {
      provide: kept({ log: fail('Out of paper') }),
      after: log,
      shows: [role('alert', 'It could not be logged')],
    },
  },
);
