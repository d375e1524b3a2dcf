import type * as GraphQL from 'graphql';
import { print } from '../../core/print';
import type { Drift } from './execute';

const fits: Readonly<Record<string, readonly [words: string, (value: unknown) => boolean]>> = {
  String: ['a text', (value) => typeof value === 'string'],
  ID: ['a text or a number', (value) => typeof value === 'string' || typeof value === 'number'],
  Int: ['a whole number', (value) => Number.isInteger(value)],
  Float: ['a number', (value) => typeof value === 'number'],
  Boolean: ['true or false', (value) => typeof value === 'boolean'],
};

const day = /^(\d{4}-\d\d-\d\d)(?:[Tt ]\d\d:\d\d:\d\d(?:\.\d+)?(?:[Zz]|[+-]\d\d:\d\d))?$/;
const isMoment = (value: unknown): boolean => {
  const [, date] = (typeof value === 'string' && day.exec(value)) || [];
  if (date === undefined) return false;
  const moment = new Date(`${date}T00:00:00Z`);
  return !Number.isNaN(moment.getTime()) && moment.toISOString().startsWith(date);
};

/**
 * Where a value is of another type than its field, although it could be made to fit: a server's own values are of
 * their type. A scalar of the schema's own is looked at where the schema says that RFC 3339 specifies it.
 */
export function findMisfits(
  graphql: typeof GraphQL,
  type: GraphQL.GraphQLOutputType,
  value: unknown,
  path: string,
): Drift[] {
  if (graphql.isNonNullType(type)) return findMisfits(graphql, type.ofType, value, path);
  if (value === null || value === undefined || typeof value === 'function' || value instanceof Error)
    return [];
  if (graphql.isListType(type)) {
    if (!Array.isArray(value)) return [];
    return value.flatMap((item, at) => findMisfits(graphql, type.ofType, item, `${path}[${at}]`));
  }
  const misfit = (wanted: string): Drift[] => [
    { path, why: `${type.name} is ${wanted}, and this is ${print(value, 40)}`, nearest: undefined },
  ];
  if (graphql.isCompositeType(type))
    return typeof value === 'object' && !Array.isArray(value) ? [] : misfit('an object');
  if (!graphql.isScalarType(type)) return [];
  const known = fits[type.name];
  if (known) return known[1](value) ? [] : misfit(known[0]);
  const isDated = /rfc-?3339/i.test(type.specifiedByURL ?? '');
  return isDated && !isMoment(value) ? misfit('a date of RFC 3339') : [];
}
