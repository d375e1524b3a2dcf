import 'simulacra/jest';
import { label, role, standIn, testId, text } from 'simulacra';
import { isolate } from 'simulacra/react';
import { SessionContext, SessionProvider, type Session } from '../src/session';
import { YardGate } from '../src/YardGate';

const props = { children: 'The yard' };

test('a keeper signs in, and out again', async () => {
  const gate = await isolate(YardGate, { props, wrap: [SessionProvider] });
  await gate.type(label('Keeper'), 'Imke');
  await gate.press('Enter');
  expect(gate).toShow(text(/The yard/));
  expect(gate.find(testId('keeper')).textContent).toBe('Imke');
  await gate.click(role('button', 'Sign out'));
  expect(gate).toShow(role('form', 'Sign in'));
});

test('the gate asks the session, whatever it is', async () => {
  const session = standIn<Session>(['signIn', 'signOut'], { keeper: null });
  const gate = await isolate(YardGate, { provide: [[SessionContext, session]] });
  await gate.type(label('Keeper'), ' Imke ');
  await gate.click(role('button', 'Sign in'));
  expect(gate.given(SessionContext).signIn.calls).toEqual([['Imke']]);
});
