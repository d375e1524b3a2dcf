import { markOf } from '../core/mark';
/** An answer that knows all that a server answers. */
export interface DocumentContract {
  readonly simulacra: 'document';
  /** The OpenAPI document: JSON or YAML as text, or what it holds. */
  readonly document: string | object;
}

/**
 * Answers every operation of an OpenAPI document (3.0 or 3.1): with its examples, else with values that fit its
 * schemas and are the same on every run. What other routes answer by hand, and what is sent, is checked against it.
 *
 * @param document JSON or YAML as text, or what it holds
 * @example
 * const document = {
 *   openapi: '3.1.0',
 *   paths: {
 *     '/api/hives/{hiveId}': {
 *       get: { responses: { 200: { content: { 'application/json': { schema: { $ref: '#/components/schemas/Hive' } } } } } },
 *     },
 *   },
 *   components: { schemas: { Hive: { type: 'object', properties: { id: { type: 'string' }, name: { type: 'string' } } } } },
 * };
 * const bench = await open({ network: { 'ANY /api/*': fromOpenApi(document) } });
 * const response = await bench.run(() => fetch('/api/hives/h1'));
 * expect(await response.json()).toEqual({ id: 'h1', name: 'Hive 1' });
 */
export function fromOpenApi(document: string | object): DocumentContract {
  return { simulacra: 'document', document };
}

/** True for what `fromOpenApi()` returns. */
export const isDocumentContract = (value: unknown): value is DocumentContract => markOf(value) === 'document';
