import type * as GraphQL from 'graphql';
import type { Environment } from '../../core/environment';
import { isError } from '../../core/is-error';
import { nearest } from '../../core/near';
import { explain } from '../errors';
import type { SchemaOptions } from '../from-schema';
import { makeResult, type Result } from '../graphql/results';
import { readTrouble } from '../graphql/troubles';
import type { Operation } from '../operations';
import { chosen, dateOf, decimalOf, idOf, momentOf, textOf, wholeOf, type Place } from './plausible';
import type { Loaded } from './schema';
import { findMisfits } from './strict';

type Source = Readonly<Record<string, unknown>>;

/** An operation that is answered from a schema. */
export interface Execution {
  readonly loaded: Loaded;
  readonly options: SchemaOptions;
  readonly environment: Environment;
  readonly route: string;
  readonly operation: Operation;
}

/** The result of an operation: what the test gives, field by field, and the rest as the schema has it. */
export async function execute(execution: Execution, given: unknown): Promise<Result> {
  const { loaded, environment, operation, route } = execution;
  const { graphql, schema } = loaded;
  if (isError(given)) return makeResult(given);
  let document: GraphQL.DocumentNode;
  try {
    document = graphql.parse(operation.query ?? '');
  } catch (error) {
    return refuse([error as GraphQL.GraphQLError]);
  }
  const problems = graphql.validate(schema, document);
  if (problems.length > 0) return refuse(problems);
  const drifts = new Map<string, Drift>();
  const result = await graphql.execute({
    ...{ schema, document, rootValue: given ?? {} },
    variableValues: operation.variables,
    operationName: operation.name || null,
    ...resolvers(execution, drifts, aliasesIn(graphql, document)),
  });
  // What the test has a field fail with is meant.
  const wrong = (result.errors ?? []).filter(({ originalError }) => !intended.has(originalError as object));
  for (const { message, path } of wrong)
    if (path) drifts.set(printPath(path), { path: printPath(path), why: message, nearest: undefined });
    else return refuse([{ message } as GraphQL.GraphQLError]);
  if (drifts.size > 0)
    environment.fail(explain('SIM-CONTRACT-DRIFT', { route, drifts: [...drifts.values()] }));
  return JSON.parse(JSON.stringify(result)) as Result;

  function refuse(errors: readonly GraphQL.GraphQLError[]): Result {
    environment.fail(explain('SIM-GRAPHQL-DOCUMENT', { route, ...readTrouble(errors[0]!, operation.query) }));
    return { data: undefined, errors: errors.map(({ message }) => ({ message })) };
  }
}

/** Where an answer is other than the schema. */
export interface Drift {
  /** `plants[0].name` */
  readonly path: string;
  readonly why: string;
  readonly nearest: string | undefined;
}

const intended = new WeakSet<object>();

const printPath = (path: readonly (string | number)[]): string =>
  path.map((step, at) => (typeof step === 'number' ? `[${step}]` : `${at > 0 ? '.' : ''}${step}`)).join('');

function aliasesIn({ visit }: Loaded['graphql'], document: GraphQL.DocumentNode): ReadonlySet<string> {
  const aliases = new Set<string>(['__typename']);
  visit(document, { Field: ({ alias }) => void (alias && aliases.add(alias.value)) });
  return aliases;
}

function resolvers(execution: Execution, drifts: Map<string, Drift>, aliases: ReadonlySet<string>) {
  const { options } = execution;
  const { graphql, schema } = execution.loaded;
  const checked = new WeakSet<object>();
  const checkKeys = (source: Source, type: GraphQL.GraphQLObjectType, above: string) => {
    if (checked.has(source)) return;
    checked.add(source);
    const fields = Object.keys(type.getFields());
    for (const key of Object.keys(source)) {
      if (fields.includes(key) || aliases.has(key)) continue;
      const path = above === '' ? key : `${above}.${key}`;
      drifts.set(path, { path, why: `${type.name} has no field "${key}"`, nearest: nearest(key, fields) });
    }
  };
  const fieldResolver: GraphQL.GraphQLFieldResolver<Source, unknown> = (source, args, _, info) => {
    const path = stepsOf(info.path);
    const { parentType, fieldName } = info;
    checkKeys(source, parentType, printPath(path.slice(0, -1)));
    const own = source[String(info.path.key)] ?? source[fieldName];
    const typed = options.types?.[parentType.name];
    const byType = typeof typed === 'object' ? (typed as Source)[fieldName] : undefined;
    const answer = own !== undefined || fieldName in source ? own : byType;
    const value =
      typeof answer === 'function' ? (answer as (...all: unknown[]) => unknown)(source, args) : answer;
    if (isError(value)) {
      intended.add(value);
      throw value;
    }
    // What does not fit may throw later on, and what can be made to fit does not.
    for (const misfit of findMisfits(graphql, info.returnType, value, printPath(path)))
      drifts.set(misfit.path, misfit);
    return value === undefined
      ? make(info.returnType, { owner: parentType.name, field: fieldName, path })
      : value;
  };
  const make = (type: GraphQL.GraphQLOutputType, place: Place): unknown => {
    if (graphql.isNonNullType(type)) return make(type.ofType, place);
    if (graphql.isListType(type)) {
      const { lists = 2 } = options;
      return Array.from({ length: lists }, (_, at) =>
        make(type.ofType, { ...place, path: [...place.path, at] }),
      );
    }
    if (graphql.isObjectType(type)) return { __typename: type.name };
    if (graphql.isAbstractType(type)) {
      const types = schema.getPossibleTypes(type);
      return { __typename: types[chosen(place, types.length)]!.name };
    }
    if (graphql.isEnumType(type)) {
      const values = type.getValues();
      return values[chosen(place, values.length)]!.value;
    }
    const given = options.types?.[type.name];
    if (given !== undefined && typeof given !== 'object')
      return typeof given === 'function' ? (given as (place: Place) => unknown)(place) : given;
    return makeScalar(type.name, place);
  };
  // An item that the test gives without a type is of the first one that has its fields.
  const typeResolver: GraphQL.GraphQLTypeResolver<Source, unknown> = (source, _, __, type) => {
    if (typeof source['__typename'] === 'string') return source['__typename'];
    const types = schema.getPossibleTypes(type);
    const has = (one: GraphQL.GraphQLObjectType) =>
      Object.keys(source).every((key) => key in one.getFields());
    return (types.find(has) ?? types[0])?.name;
  };
  return { fieldResolver, typeResolver };
}

function stepsOf(path: GraphQL.ResponsePath): (string | number)[] {
  const steps: (string | number)[] = [];
  for (let at: GraphQL.ResponsePath | undefined = path; at; at = at.prev) steps.unshift(at.key);
  return steps;
}

function makeScalar(type: string, place: Place): unknown {
  switch (type) {
    case 'Int':
      return wholeOf(place);
    case 'Float':
      return decimalOf(place);
    case 'Boolean':
      return chosen(place, 2) === 1;
    case 'ID':
      return idOf(place);
    case 'String':
      return textOf(place);
    default:
      // A scalar of the schema's own, by what it is called.
      if (/^(date)?time(stamp)?$|^instant$/i.test(type)) return momentOf(place);
      if (/date|day/i.test(type)) return dateOf(place);
      if (/int|long|count/i.test(type)) return wholeOf(place);
      if (/float|decimal|number|money|amount/i.test(type)) return decimalOf(place);
      return textOf({ ...place, field: /^(json|any)$/i.test(type) ? place.field : type });
  }
}
