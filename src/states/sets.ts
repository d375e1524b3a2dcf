import { print } from '../core/print';
import { once } from '../core/shared';
import type { Adapter } from '../stage/adapter';
import type { StateData } from '../stage/state';
import { refuse } from './errors';

/** All that is known of the states of one component. */
export interface StateSet {
  readonly component: string;
  readonly adapter: Adapter;
  readonly declaredAt: Error;
  readonly states: readonly StateData[];
}

const sets = once('states', () => new WeakMap<object, StateSet>());

export const keepStates = (made: object, set: StateSet): void => void sets.set(made, set);

/** What was declared together. @throws SIM-STATES-GIVEN for what states() has not returned */
export function readStates(given: unknown, asked: string): StateSet {
  const isObject = typeof given === 'object' && given !== null;
  const found = isObject ? sets.get(given) : undefined;
  if (found) return found;
  const names = isObject ? Object.keys(given).slice(0, 8) : [];
  return refuse('SIM-STATES-GIVEN', { asked, given: print(given, 40), names });
}
