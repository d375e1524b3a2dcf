import { open } from 'simulacra';
import { opened } from './cases';

describe('open, in a page', opened);

it('has a page that can be changed', async () => {
  const bench = await open({ page: { storage: { units: 'pounds' }, online: false } });
  expect(localStorage.getItem('units')).toBe('pounds');
  const back = new Promise<boolean>((done) =>
    window.addEventListener('online', () => done(navigator.onLine), { once: true }),
  );
  await bench.page.set({ online: true });
  expect(await back).toBe(true);
});
