import 'simulacra/jest';
import { useEffect } from 'react';
import { SimulacraError, takeDown } from 'simulacra';
import { isolate } from 'simulacra/react';

it('says from which line a request was sent that no route answers', async () => {
  const Weather = () => {
    useEffect(() => void fetch('/api/weather').catch(() => undefined), []);
    return <p>Weather</p>;
  };
  await isolate(Weather);
  const failure: unknown = await takeDown().catch((error: unknown) => error);
  const requests =
    failure instanceof SimulacraError && failure.code === 'SIM-REQUEST-UNMATCHED'
      ? failure.fields.requests
      : [];
  expect(requests.map(({ at }) => at)).toEqual([
    { file: __filename, line: 8, column: expect.any(Number) as number },
  ]);
});
