import { loadSchema } from './contract/schema';
import { isContract } from './from-schema';
import { loadPatterns, needsPatterns } from './patterns';

/**
 * Loads what some routes need to be read: the URL Pattern standard, a schema.
 *
 * @returns undefined where they need nothing
 * @throws SIM-SCHEMA, SIM-GRAPHQL-PACKAGE
 */
export function prepareRoutes(routes: Readonly<Record<string, unknown>>): Promise<void> | undefined {
  const contracts = Object.values(routes).filter(isContract);
  const needs = needsPatterns(Object.keys(routes));
  if (!needs && contracts.length === 0) return undefined;
  return (async () => {
    if (needs) await loadPatterns();
    for (const contract of contracts) await loadSchema(contract);
  })();
}
