/** @jest-environment node */
import { open, takeDown, type SimulacraError } from 'simulacra';
import { opened } from './cases';
import { hearScales } from './scale-service';

describe('open, in Node', opened);

it('fails where a channel is left open, and passes where it is closed', async () => {
  const bench = await open();
  const close = await bench.run(() => hearScales('north'));
  const failure = (await takeDown().catch((error: unknown) => error)) as SimulacraError;
  close();
  expect(failure.message.replace(/\s+/g, ' ')).toContain(
    'The bench was taken down, and left a BroadcastChannel "scales of north" (scale-service.ts:3).',
  );
  await (await open()).run(() => hearScales('north')());
  await takeDown();
});

it('has no page', async () => {
  const failure = await open({ page: { width: 400 } }).catch((error: unknown) => error);
  expect((failure as SimulacraError).code).toBe('SIM-NO-PAGE');
});
