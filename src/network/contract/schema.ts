import type * as GraphQL from 'graphql';
import { once } from '../../core/shared';
import { explain } from '../errors';
import type { Contract } from '../from-schema';
import { readTrouble } from '../graphql/troubles';

type Package = typeof GraphQL;

/** A schema that can be asked, with the package that reads it. */
export interface Loaded {
  readonly graphql: Package;
  readonly schema: GraphQL.GraphQLSchema;
}

const schemas = once('schemas', () => new Map<unknown, Promise<Loaded>>());

/** Reads the schema of a contract, once. @throws SIM-GRAPHQL-PACKAGE, SIM-SCHEMA */
export function loadSchema({ schema }: Contract): Promise<Loaded> {
  const known = schemas.get(schema);
  if (known) return known;
  const loading = load(schema);
  schemas.set(schema, loading);
  return loading;
}

async function load(given: string | object): Promise<Loaded> {
  const graphql = await import('graphql').catch(() => undefined);
  if (!graphql) throw explain('SIM-GRAPHQL-PACKAGE', { route: 'a schema' });
  try {
    return { graphql, schema: read(graphql, given) };
  } catch (cause) {
    const text = typeof given === 'string' ? given : undefined;
    throw explain('SIM-SCHEMA', readTrouble(cause as Error, text), { cause });
  }
}

function read(graphql: Package, given: string | object): GraphQL.GraphQLSchema {
  if (typeof given === 'string') return graphql.buildSchema(given);
  if (graphql.isSchema(given)) return given;
  const { data = given } = given as { data?: object };
  return graphql.buildClientSchema(data as GraphQL.IntrospectionQuery);
}
