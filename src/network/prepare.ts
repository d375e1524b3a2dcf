import { isDocumentContract } from './from-open-api';
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
  const documents = Object.values(routes).filter(isDocumentContract);
  if (!needs && contracts.length + documents.length === 0) return undefined;
  return (async () => {
    if (needs) await loadPatterns();
    if (contracts.length > 0) {
      const { loadSchema } = await import('./contract/schema');
      for (const contract of contracts) await loadSchema(contract);
    }
    if (documents.length > 0) {
      const { loadDocument } = await import('./contract/documents');
      for (const { document } of documents) await loadDocument(document);
    }
  })();
}
