import { label, role, standIn, testId, text } from 'simulacra';
import { states } from 'simulacra/vue';
import { ref } from 'vue';
import { SessionKey, type Session } from './session';
import YardGate from './YardGate.vue';

const session = (keeper: string | null) => [[SessionKey, standIn<Session>({ keeper: ref(keeper) })]] as const;

export default states(
  YardGate,
  { slots: { default: 'The yard' } },
  {
    'signed out': {
      provide: session(null),
      shows: [role('button', 'Sign in', { disabled: true })],
      lacks: [text('The yard')],
    },
    named: {
      from: 'signed out',
      after: (gate) => gate.type(label('Keeper'), 'Imke'),
      shows: [role('button', 'Sign in', { disabled: false })],
    },
    'signed in': { provide: session('Imke'), shows: [testId('keeper'), role('button', 'Sign out')] },
  },
);
