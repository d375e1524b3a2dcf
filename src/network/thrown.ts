import { isExplained } from '../core/errors/called-from';
import { printThrown } from '../core/print';
import { explain } from './errors';
import type { Route } from './routes';

/** Words what the answer of a route threw. An assertion in it belongs to the test, so that keeps its own message. */
export function wordRouteThrew(error: unknown, { key }: Route): Error {
  if (isExplained(error)) return error;
  if (typeof error === 'object' && error !== null && 'matcherResult' in error) return error as never;
  const threw = printThrown(error);
  return explain('SIM-ROUTE-THREW', { route: key, threw }, { cause: error });
}
