import { signal } from '@angular/core';
import { label, role, standIn, testId, text } from 'simulacra';
import { states } from 'simulacra/angular';
import { Session } from './session';
import { YardGate } from './yard-gate';

const session = (keeper: string | null) => [[Session, standIn(Session, { keeper: signal(keeper) })]] as const;

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
