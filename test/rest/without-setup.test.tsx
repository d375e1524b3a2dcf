import { useEffect } from 'react';
import { takeDown, type SimulacraError } from 'simulacra';
import { isolate, stub } from 'simulacra/react';

/* Nothing of `simulacra/jest` is loaded here. */

let ended = 0;
function HiveCard() {
  useEffect(() => () => void ended++, []);
  return <h2>Anemone</h2>;
}
let card: Awaited<ReturnType<typeof isolate<typeof HiveCard>>> | undefined;

it('a test leaves its subject up', async () => {
  card = await isolate(HiveCard);
  expect(ended).toBe(0);
});

it('and the next one finds it taken down', async () => {
  expect(ended).toBe(1);
  const failure = await card!.update({}).catch((reason: unknown) => reason);
  expect((failure as Partial<SimulacraError>).code).toBe('SIM-SUBJECT-GONE');
});

it('a call by hand beside it does no harm', async () => {
  await isolate(HiveCard, { stub: [stub('YardMap')] });
  await expect(takeDown()).rejects.toThrow('SIM-STUB-UNUSED');
  await takeDown();
});
