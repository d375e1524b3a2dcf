import type { Environment } from '../../core/environment';
import { explain } from '../errors';
import type { SchemaAnswer } from '../from-json-schema';
import type { Documented } from './documents';
import { findDrifts, validatorOf } from './fitting';
import { makeValue } from './generate';

const documents = new WeakMap<object, Documented>();

/** A schema as the document that its references lead into. */
function documentOf(schema: object): Documented {
  const known = documents.get(schema);
  if (known) return known;
  if (Array.isArray(schema) || typeof schema !== 'object')
    throw explain('SIM-CONTRACT-DOCUMENT', { why: 'a schema is an object', at: '' });
  const document = schema as Readonly<Record<string, unknown>>;
  const isOld = /draft-0[4-7]/.test(String(document['$schema']));
  const { $schema: _, $id: __, ...rest } = document;
  const made = {
    document: rest,
    version: isOld ? '3.0' : '3.1',
    find: () => undefined,
    routes: [],
    base: '',
  };
  documents.set(schema, made);
  return made;
}

/** Who is answered. */
interface Asked {
  readonly route: string;
  readonly environment: Environment;
}

/**
 * The value of an answer that has to fit a schema: what was given, or one made from it. What does not fit is
 * told to the test.
 *
 * @throws SIM-CONTRACT-DOCUMENT, SIM-PACKAGE
 */
export async function fitToSchema(
  { schema, answer }: SchemaAnswer,
  value: unknown,
  { route, environment }: Asked,
): Promise<unknown> {
  const documented = documentOf(schema);
  const { document } = documented;
  if (answer === undefined) {
    const [, path = ''] = route.split(/[ ?]/);
    const last = path.split('/').findLast((part) => /^[\w-]+$/.test(part)) ?? 'value';
    const owner = last.replace(/s$/, '');
    return makeValue(document, document, { owner, field: 'value', path: [] });
  }
  const read: unknown = value instanceof Response ? await readJson(value) : value;
  const validate = (await validatorOf(documented))('');
  // A value as the component receives it.
  const sent = read === undefined ? read : (JSON.parse(JSON.stringify(read)) as unknown);
  const drifts = findDrifts(documented, validate, document, sent);
  if (drifts.length > 0) environment.fail(explain('SIM-CONTRACT-DRIFT', { route, drifts }));
  return value;
}

const readJson = (response: Response): Promise<unknown> =>
  response
    .clone()
    .json()
    .catch(() => undefined);
