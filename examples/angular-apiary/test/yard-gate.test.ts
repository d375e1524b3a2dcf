import 'simulacra/jest';
import { label, role, standIn, testId, text } from 'simulacra';
import { signal } from '@angular/core';
import { isolate } from 'simulacra/angular';
import { Session } from '../src/session';
import { SessionProvider } from '../src/session-provider';
import { YardGate } from '../src/yard-gate';

const slots = { default: 'The yard' };

test('a keeper signs in, and out again', async () => {
  const gate = await isolate(YardGate, { slots, wrap: [SessionProvider] });
  await gate.type(label('Keeper'), 'Imke');
  await gate.press('Enter');
  expect(gate).toShow(text(/The yard/));
  expect(gate.find(testId('keeper')).textContent).toBe('Imke');
  await gate.click(role('button', 'Sign out'));
  expect(gate).toShow(role('form', 'Sign in'));
});

test('the gate asks the session, whatever it is', async () => {
  const session = standIn(Session, { keeper: signal(null) });
  const gate = await isolate(YardGate, { provide: [[Session, session]] });
  await gate.type(label('Keeper'), ' Imke ');
  await gate.click(role('button', 'Sign in'));
  expect(gate.given(Session).signIn.calls).toEqual([['Imke']]);
});
