import { nextTurn } from './host';
import { allUp } from './shared';

/** Brings every subject that is up to rest; where none is, lets what is due run. */
export async function restOfAll(): Promise<void> {
  const up = allUp();
  for (const environment of up) await environment.atRest();
  if (up.length === 0) await nextTurn();
}
