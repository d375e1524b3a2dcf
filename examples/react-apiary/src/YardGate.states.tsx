import { label, role, standIn, testId, text } from 'simulacra';
import { states } from 'simulacra/react';
import { SessionContext, type Session } from './session';
import { YardGate } from './YardGate';

const session = (keeper: string | null) => [[SessionContext, standIn<Session>({ keeper })]] as const;

export default states(
  YardGate,
  { props: { children: 'The yard' } },
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
