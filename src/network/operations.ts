/** What GraphQL calls the kinds of operations. @see https://spec.graphql.org */
export const operationKinds = ['QUERY', 'MUTATION', 'SUBSCRIPTION'] as const;
export type OperationKind = (typeof operationKinds)[number];

/** One operation of a request. @see https://graphql.github.io/graphql-over-http */
export interface Operation {
  readonly kind: OperationKind;
  /** Empty for one without a name. */
  readonly name: string;
  readonly variables: Readonly<Record<string, unknown>>;
  /** The document; undefined where only its hash was sent. */
  readonly query: string | undefined;
}

export const isOperationKind = (method: string): method is OperationKind =>
  (operationKinds as readonly string[]).includes(method);

/** What a request sends. */
export interface Operations {
  readonly operations: readonly Operation[];
  readonly isBatch: boolean;
}

/** The operations that a request sends, and whether they are a batch; undefined for a request of another kind. */
export function readOperations(url: URL, body: unknown): Operations | undefined {
  if (Array.isArray(body)) {
    const operations = body.map(readOperation);
    return operations.length > 0 && operations.every((one) => one !== undefined)
      ? { operations: operations as Operation[], isBatch: true }
      : undefined;
  }
  const operation = readOperation(body) ?? readOperation(fieldsIn(url));
  return operation && { operations: [operation], isBatch: false };
}

function fieldsIn({ searchParams }: URL): object {
  const parsed = (name: string): unknown => {
    try {
      return JSON.parse(searchParams.get(name) ?? 'null') as unknown;
    } catch {
      return undefined;
    }
  };
  const text = (name: string) => searchParams.get(name) ?? undefined;
  return {
    query: text('query'),
    operationName: text('operationName'),
    variables: parsed('variables'),
    extensions: parsed('extensions'),
  };
}

/** One operation, as it is sent. */
export function readOperation(sent: unknown): Operation | undefined {
  if (typeof sent !== 'object' || sent === null) return undefined;
  const { query, operationName, variables, extensions, documentId } = sent as Record<string, unknown>;
  const isHashed = Boolean(documentId ?? (extensions as { persistedQuery?: unknown } | null)?.persistedQuery);
  const text = typeof query === 'string' && query !== '' ? query : undefined;
  if (text === undefined ? !(isHashed && typeof operationName === 'string') : !isDocument(text))
    return undefined;
  const given = typeof operationName === 'string' ? operationName : undefined;
  const [, kind = 'query', name = ''] = headOf(text ?? '', given) ?? [];
  return {
    kind: kind.toUpperCase() as OperationKind,
    name: given ?? name,
    variables: (variables ?? {}) as Record<string, unknown>,
    query: text,
  };
}

const isDocument = (text: string): boolean =>
  /^(?:[\s,\uFEFF]|#[^\n]*(?:\n|$))*(?:\{|query\b|mutation\b|subscription\b|fragment\b)/.test(text);

function headOf(text: string, name: string | undefined): readonly string[] | undefined {
  const heads = [...text.matchAll(/(?:^|[\s}])(query|mutation|subscription)\b\s*(\w*)/g)];
  return heads.find((head) => head[2] === name) ?? heads[0];
}

/** An operation as an address, by which routes are found: its name, with its variables as the query. */
export function addressOfOperation({ name, variables }: Operation): URL {
  const url = new URL(`http://localhost/${encodeURIComponent(name)}`);
  for (const [key, value] of Object.entries(variables))
    url.searchParams.append(key, typeof value === 'string' ? value : (JSON.stringify(value) ?? ''));
  return url;
}
