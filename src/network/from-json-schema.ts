import { markOf } from '../core/mark';
/** An answer that has to fit a schema. */
export interface SchemaAnswer {
  readonly simulacra: 'fitting';
  readonly schema: object;
  /** What is answered; undefined for a value that is made from the schema. */
  readonly answer: unknown;
}

/**
 * Answers a route by a JSON Schema: with a value that fits it and is the same on every run, or with an answer of
 * yours, which is checked against it.
 *
 * @param schema a JSON Schema, as an object
 * @param answer any answer
 * @see https://json-schema.org/draft/2020-12/json-schema-core
 * @example
 * const schema = { type: 'array', items: { title: 'Hive', type: 'object', properties: { name: { type: 'string' } } } };
 * const bench = await open({ network: { 'GET /api/hives': fromJsonSchema(schema) } });
 * const response = await bench.run(() => fetch('/api/hives'));
 * expect(await response.json()).toEqual([{ name: 'Hive 1' }, { name: 'Hive 2' }]);
 */
export function fromJsonSchema(schema: object, answer?: unknown): SchemaAnswer {
  return { simulacra: 'fitting', schema, answer };
}

/** True for what `fromJsonSchema()` returns. */
export const isSchemaAnswer = (value: unknown): value is SchemaAnswer => markOf(value) === 'fitting';
