import type * as GraphQL from 'graphql';
import { resolve, type Documented } from './documents';

type Json = Readonly<Record<string, unknown>>;

/** What the types of a contract are called, so that no two have the same name. */
class Names {
  readonly #of = new Map<string, string>();
  readonly #taken = new Set<string>();

  /** The name of a thing, the same each time. @param key distinguishes it from others */
  of(key: string, wanted: string): string {
    const known = this.#of.get(key);
    if (known) return known;
    const words = wanted.replace(
      /[^\p{L}\p{N}_$]+(.)?/gu,
      (_, next: string | undefined) => next?.toUpperCase() ?? '',
    );
    const plain = /^[\p{L}_$]/u.test(words)
      ? words.replace(/^./u, (first) => first.toUpperCase())
      : `The${words}`;
    let name = plain;
    for (let number = 2; this.#taken.has(name); number++) name = `${plain}${number}`;
    this.#taken.add(name);
    this.#of.set(key, name);
    return name;
  }
}

const literal = (value: unknown): string =>
  typeof value === 'string' && !/['\\\n]/.test(value) ? `'${value}'` : (JSON.stringify(value) ?? 'undefined');
const keyed = (key: string): string => (/^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(key) ? key : literal(key));
const listed = (type: string): string => (/[|&]|=>/.test(type) ? `(${type})[]` : `${type}[]`);
const doc = (text: unknown, indent: string): string =>
  typeof text === 'string' && text.trim() !== ''
    ? `${indent}/** ${text
        .trim()
        .replace(/\*\//g, '*\u2215')
        .replace(/\s*\n\s*/g, ' ')} */\n`
    : '';

/** The types of what an OpenAPI document answers, by route, as TypeScript. @throws SIM-CONTRACT-DOCUMENT */
export function printDocumentTypes({ document, find, routes }: Documented): {
  types: string;
  answers: string;
} {
  const names = new Names();
  const schemas = ((document['components'] as Json | undefined)?.['schemas'] ?? {}) as Json;
  const types = Object.entries(schemas).map(([key, schema]) => {
    const name = names.of(`#/components/schemas/${key}`, key);
    return `${doc((schema as Json)['description'], '')}export type ${name} = ${printSchema(document, schema, names, '', 0)};\n`;
  });
  const answers = routes.map((route) => {
    const [method = '', path = ''] = route.split(' ');
    const found = find(method, path);
    return found ? `  ${literal(route)}: ${printAnswer(document, found.operation, names)};\n` : '';
  });
  return { types: types.join('\n'), answers: answers.join('') };
}

/** What an operation answers when all goes well. */
function printAnswer(document: Json, operation: Json, names: Names): string {
  const responses = Object.entries((operation['responses'] ?? {}) as Json);
  const good = responses.filter(([status]) => /^2/.test(status) || status === 'default');
  const wanted = good.filter(([status]) => status !== 'default');
  const kinds = (wanted.length > 0 ? wanted : good).map(([, response]) => {
    const contents = Object.entries((resolve(document, response)['content'] ?? {}) as Json);
    if (contents.length === 0) return 'undefined';
    const [type, content] = contents.find(([name]) => /\bjson\b/.test(name)) ?? contents[0]!;
    const { schema } = resolve(document, content) as { schema?: unknown };
    if (!/\bjson\b/.test(type)) return /^text\//.test(type) ? 'string' : 'Blob';
    return schema === undefined ? 'unknown' : printSchema(document, schema, names, '  ', 0);
  });
  return [...new Set(kinds)].join(' | ') || 'undefined';
}

const mostDeep = 40;

function printSchema(document: Json, given: unknown, names: Names, indent: string, depth: number): string {
  if (given === true || depth > mostDeep) return 'unknown';
  if (given === false) return 'never';
  const { $ref } = (given ?? {}) as { $ref?: string };
  if ($ref?.startsWith('#/components/schemas/') && resolve(document, given))
    return names.of($ref, $ref.split('/').at(-1)!);
  const read = resolve(document, given);
  const inside = (schema: unknown, more = '') =>
    printSchema(document, schema, names, indent + more, depth + 1);
  const either = (types: readonly string[]) => [...new Set(types)].join(' | ');
  const orNull = read['nullable'] === true ? ' | null' : '';
  if ('const' in read) return literal(read['const']);
  if (Array.isArray(read['enum'])) return either(read['enum'].map(literal)) + orNull;
  for (const [key, sign] of [
    ['oneOf', '|'],
    ['anyOf', '|'],
    ['allOf', '&'],
  ] as const)
    if (Array.isArray(read[key])) {
      const parts = (read[key] as unknown[]).map((part) => inside(part));
      const own = 'properties' in read ? [printObject(read, inside, indent)] : [];
      const all = [...new Set([...parts, ...own])];
      return (
        all
          .map((part) => (all.length > 1 && /[|&]/.test(part) && sign === '&' ? `(${part})` : part))
          .join(` ${sign} `) + orNull
      );
    }
  const types = [read['type']].flat().filter(Boolean) as string[];
  if (types.length === 0) types.push('properties' in read ? 'object' : 'items' in read ? 'array' : 'unknown');
  return either(types.map((type) => printType(type, read, inside, indent))) + orNull;
}

type Inside = (schema: unknown, more?: string) => string;

function printType(type: string, read: Json, inside: Inside, indent: string): string {
  switch (type) {
    case 'string':
      return read['format'] === 'binary' ? 'Blob' : 'string';
    case 'integer':
    case 'number':
      return 'number';
    case 'boolean':
    case 'null':
      return type;
    case 'array':
      return listed('items' in read ? inside(read['items']) : 'unknown');
    case 'object':
      return printObject(read, inside, indent);
    default:
      return 'unknown';
  }
}

function printObject(read: Json, inside: Inside, indent: string): string {
  const required = new Set(Array.isArray(read['required']) ? (read['required'] as unknown[]) : []);
  const fields = Object.entries((read['properties'] ?? {}) as Json).filter(
    ([, schema]) => (schema as Json | undefined)?.['writeOnly'] !== true,
  );
  const { additionalProperties } = read;
  const rest =
    additionalProperties === undefined || additionalProperties === false
      ? undefined
      : additionalProperties === true
        ? 'unknown'
        : inside(additionalProperties, '  ');
  if (fields.length === 0) return rest === undefined ? 'object' : `Record<string, ${rest}>`;
  const lines = fields.map(
    ([key, schema]) =>
      `${doc((schema as Json | undefined)?.['description'], `${indent}  `)}${indent}  ${keyed(key)}${required.has(key) ? '' : '?'}: ${inside(schema, '  ')};\n`,
  );
  const open = rest === undefined ? '' : `${indent}  [key: string]: unknown;\n`;
  return `{\n${lines.join('')}${open}${indent}}`;
}

const scalars: Readonly<Record<string, string>> = {
  ID: 'string',
  String: 'string',
  Int: 'number',
  Float: 'number',
  Boolean: 'boolean',
};

/** The types of what a schema of GraphQL answers, as TypeScript. */
export function printSchemaTypes(
  graphql: typeof GraphQL,
  schema: GraphQL.GraphQLSchema,
): { types: string; answers: string } {
  const names = new Names();
  const nameOf = (type: GraphQL.GraphQLNamedType) => names.of(type.name, type.name);
  const print = (type: GraphQL.GraphQLOutputType): string => {
    if (graphql.isNonNullType(type)) return bare(type.ofType);
    return `${bare(type)} | null`;
  };
  const bare = (type: GraphQL.GraphQLNullableType & GraphQL.GraphQLOutputType): string => {
    if (graphql.isListType(type)) return listed(print(type.ofType));
    return graphql.isScalarType(type)
      ? (scalars[type.name] ?? 'unknown')
      : nameOf(type as GraphQL.GraphQLNamedType);
  };
  const wanted = Object.values(schema.getTypeMap()).filter(
    (type) => !type.name.startsWith('__') && (graphql.isCompositeType(type) || graphql.isEnumType(type)),
  );
  const types = wanted.map((type) => {
    const head = `${doc(type.description, '')}export type ${nameOf(type)} = `;
    if (graphql.isEnumType(type))
      return `${head}${type
        .getValues()
        .map(({ name }) => literal(name))
        .join(' | ')};\n`;
    if (graphql.isAbstractType(type))
      return `${head}${schema.getPossibleTypes(type).map(nameOf).join(' | ') || 'never'};\n`;
    const fields = Object.values((type as GraphQL.GraphQLObjectType).getFields()).map(
      (field) => `${doc(field.description, '  ')}  ${field.name}: ${print(field.type)};\n`,
    );
    return `${head}{\n  __typename: ${literal(type.name)};\n${fields.join('')}};\n`;
  });
  const roots = {
    QUERY: schema.getQueryType(),
    MUTATION: schema.getMutationType(),
    SUBSCRIPTION: schema.getSubscriptionType(),
  };
  const answers = Object.entries(roots).map(([kind, root]) =>
    root ? `  [operation: \`${kind} \${string}\`]: Partly<${nameOf(root)}>;\n` : '',
  );
  return { types: types.join('\n'), answers: answers.join('') };
}
