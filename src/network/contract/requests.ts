import { fitsType, resolve, type Documented, type DocumentedOperation } from './documents';
import type { Drift } from './execute';
import { findDrifts, validatorOf } from './fitting';

type Json = Readonly<Record<string, unknown>>;

interface Sent {
  readonly request: Request;
  readonly body: unknown;
}

/** What a request sends that the document does not allow, and lacks that it asks for. */
export async function checkRequest(
  documented: Documented,
  operation: DocumentedOperation,
  { request, body }: Sent,
): Promise<Drift[]> {
  const { document } = documented;
  const query = new URL(request.url).searchParams;
  const problems: Drift[] = [];
  for (const { pointer, given } of parametersOf(document, operation)) {
    const {
      name,
      in: where,
      required,
      schema,
    } = given as { name: string; in: string; required?: boolean; schema?: Json };
    const values =
      where === 'query'
        ? query.getAll(name)
        : where === 'path'
          ? [operation.params[name]!]
          : where === 'header'
            ? [request.headers.get(name)].flatMap((one) => one ?? [])
            : undefined;
    if (!values) continue;
    const path = `the ${where} parameter "${name}"`;
    if (values.length === 0) {
      if (required) problems.push({ path, why: 'it is missing', nearest: undefined });
      continue;
    }
    if (!schema) continue;
    const validate = (await validatorOf(documented))(`${pointer}/schema`);
    const value = coerce(resolve(document, schema), values);
    problems.push(...findDrifts(documented, validate, schema, value).map((one) => ({ ...one, path })));
  }
  return [...problems, ...(await checkBody(documented, operation, { request, body }))];
}

async function checkBody(
  documented: Documented,
  operation: DocumentedOperation,
  { request, body }: Sent,
): Promise<Drift[]> {
  const given = operation.operation['requestBody'] as Json | undefined;
  if (!given) return [];
  const { content = {}, required } = resolve(documented.document, given) as {
    content?: Json;
    required?: boolean;
  };
  if (body === undefined || body === null)
    return required ? [{ path: 'the body', why: 'it is missing', nearest: undefined }] : [];
  const type = (request.headers.get('content-type') ?? '').split(';')[0]!.trim();
  const names = Object.keys(content);
  const name = names.find((one) => fitsType(one, type));
  if (name === undefined)
    return [
      {
        path: 'the content type',
        why: `${type || 'none'} is not taken (${names.join(', ')})`,
        nearest: undefined,
      },
    ];
  const { schema } = content[name] as Json;
  if (schema === undefined || !/\bjson\b/.test(type)) return [];
  const own = '$ref' in given ? String(given['$ref']).slice(1) : `${operation.pointer}/requestBody`;
  const pointer = `${own}/content/${name.replace(/\//g, '~1')}/schema`;
  return findDrifts(documented, (await validatorOf(documented))(pointer), schema, body);
}

interface Parameter {
  readonly pointer: string;
  readonly given: Json;
}

function parametersOf(document: Json, { item, operation, pointer }: DocumentedOperation): Parameter[] {
  const read = (list: unknown, above: string): Parameter[] =>
    (Array.isArray(list) ? (list as Json[]) : []).map((one, at) => ({
      given: resolve(document, one),
      pointer: '$ref' in one ? String(one['$ref']).slice(1) : `${above}/parameters/${at}`,
    }));
  const above = pointer.slice(0, pointer.lastIndexOf('/'));
  return [...read(item['parameters'], above), ...read(operation['parameters'], pointer)];
}

/** A text as the value that its schema speaks of. */
function coerce({ type, items }: Json, values: readonly string[]): unknown {
  const [first = ''] = values;
  const types = [type].flat();
  if (types.includes('array')) {
    const each = values.length > 1 ? values : first.split(',');
    return each.map((one) => coerce((items ?? {}) as Json, [one]));
  }
  if (types.includes('integer') || types.includes('number'))
    return first.trim() === '' || Number.isNaN(Number(first)) ? first : Number(first);
  if (types.includes('boolean')) return first === 'true' ? true : first === 'false' ? false : first;
  return first;
}
