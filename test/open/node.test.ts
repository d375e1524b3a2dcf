/** @jest-environment node */
import { open, type SimulacraError } from 'simulacra';
import { opened } from './cases';

describe('open, in Node', opened);

it('has no page', async () => {
  const failure = await open({ page: { width: 400 } }).catch((error: unknown) => error);
  expect((failure as SimulacraError).code).toBe('SIM-NO-PAGE');
});
