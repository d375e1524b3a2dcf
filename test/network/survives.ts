import { open, type Routes } from 'simulacra';

const late = Symbol('it hung');
const soon = <T>(work: Promise<T>): Promise<T | typeof late> => {
  let timer: NodeJS.Timeout | undefined;
  const waited = new Promise<typeof late>((resolve) => (timer = setTimeout(() => resolve(late), 5000)));
  return Promise.race([work, waited]).finally(() => clearTimeout(timer));
};

/** Asks routes for something. Whatever they are: an answer, a broken connection or a coded error, and soon. */
export async function survives(network: object, path = '/api/hives', init: RequestInit = {}): Promise<void> {
  const told: unknown[] = [];
  const note = (error: unknown) => void told.push(error);
  const work = (async () => {
    const bench = await open({ network: network as Routes });
    await bench
      .run(() =>
        fetch(new URL(path, 'http://localhost/'), init).then(
          (response) => response.text(),
          () => undefined,
        ),
      )
      .catch(note);
    await bench.takeDown().catch(note);
  })().catch(note);
  expect(await soon(work)).not.toBe(late);
  for (const error of told) expect((error as { code?: string }).code ?? error).toMatch(/^SIM-/);
  expect(({} as { polluted?: number }).polluted).toBeUndefined();
}
