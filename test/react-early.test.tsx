import 'react-dom/client';
import { takeDown } from 'simulacra';
import { isolate } from 'simulacra/react';

it('says so when react-dom was there first', async () => {
  const failure = await isolate(() => <p>Anemone</p>).catch((error: Error) => error);
  expect(failure).toMatchObject({ code: 'SIM-REACT-EARLY' });
  expect((failure as Error).message).toMatch(
    /loaded before simulacra\/react[^]*setupFilesAfterEnv: \['simulacra\/jest', 'simulacra\/react'\]/,
  );
  expect(document.body.innerHTML).toBe('');
  await takeDown();
});
