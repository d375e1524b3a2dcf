import 'simulacra/jest';
import { label, role, standIn, testId, text } from 'simulacra';
import { ref } from 'vue';
import { isolate } from 'simulacra/vue';
import { SessionKey, type Session } from '../src/session';
import SessionProvider from '../src/SessionProvider.vue';
import YardGate from '../src/YardGate.vue';

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
  const session = standIn<Session>(['signIn', 'signOut'], { keeper: ref(null) });
  const gate = await isolate(YardGate, { provide: [[SessionKey, session]] });
  await gate.type(label('Keeper'), ' Imke ');
  await gate.click(role('button', 'Sign in'));
  expect(gate.given(SessionKey).signIn.calls).toEqual([['Imke']]);
});
