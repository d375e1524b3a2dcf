import { markOf } from '../core/mark';
/** What a type's fields, or a scalar, are answered with: values, or functions of the object and the arguments. */
export type TypeAnswer =
  Readonly<Record<string, unknown>> | string | number | boolean | ((...args: never[]) => unknown);

/** How operations are answered from a schema. */
export interface SchemaOptions {
  /**
   * Answers by type: `{ Plant: { name: 'Borage', amount: (plant, { unit }) => 4 }, DateTime: '2031-05-04T08:00:00Z' }`.
   * A scalar has one answer, an object one for each field that matters.
   */
  readonly types?: Readonly<Record<string, TypeAnswer>>;
  /** How many items a list has: 2 unless said otherwise. */
  readonly lists?: number;
}

/** An answer that knows what there is to answer. */
export interface Contract {
  readonly simulacra: 'contract';
  /** The schema as it was given: its language, the result of an introspection, or the object that `graphql` makes. */
  readonly schema: string | object;
  readonly options: SchemaOptions;
}

/**
 * Answers every operation from a schema, at once, with values that fit its types and are the same on every run.
 * What an operation's own route gives goes before, field by field, and has to fit the schema.
 *
 * @param schema in the schema language, or the result of an introspection, or a `GraphQLSchema`
 * @example
 * const schema = 'type Query { plants: [Plant!]! } type Plant { id: ID! name: String! }';
 * const bench = await open({
 *   network: { 'POST /graphql': fromSchema(schema), 'QUERY InFlower': { plants: [{ name: 'Borage' }] } },
 * });
 * const body = JSON.stringify({ query: 'query InFlower { plants { id name } }' });
 * const response = await bench.run(() => fetch('/graphql', { method: 'POST', body }));
 * expect(await response.json()).toEqual({ data: { plants: [{ id: 'plant-1', name: 'Borage' }] } });
 */
export function fromSchema(schema: string | object, options: SchemaOptions = {}): Contract {
  return { simulacra: 'contract', schema, options };
}

/** True for what `fromSchema()` returns. */
export const isContract = (value: unknown): value is Contract => markOf(value) === 'contract';
