import type { ErrorObject, ValidateFunction } from 'ajv';
import { nearest } from '../../core/near';
import { explain } from '../errors';
import { resolve, type Documented } from './documents';
import type { Drift } from './execute';

type Json = Readonly<Record<string, unknown>>;
interface Validator {
  compile(schema: object): ValidateFunction;
  addSchema(schema: object, key: string): unknown;
}

const validators = new WeakMap<Documented, Promise<(pointer: string) => ValidateFunction>>();

/** Checks values against the schemas of a document; each schema is compiled when it is first needed. */
export function validatorOf(documented: Documented): Promise<(pointer: string) => ValidateFunction> {
  const known = validators.get(documented);
  if (known) return known;
  const made = makeValidator(documented);
  validators.set(documented, made);
  return made;
}

async function makeValidator({
  document,
  version,
}: Documented): Promise<(pointer: string) => ValidateFunction> {
  const missing = (name: string) => () => {
    throw explain('SIM-PACKAGE', { name, why: 'checking answers against an OpenAPI document' });
  };
  const options = { strict: false, allErrors: true, validateSchema: false, logger: false } as const;
  const loaded =
    version === '3.1'
      ? await import('ajv/dist/2020.js').catch(missing('ajv'))
      : await import('ajv').catch(missing('ajv'));
  const { default: addFormats } = await import('ajv-formats').catch(missing('ajv-formats'));
  const Ajv = inner(loaded) as new (given: object) => Validator;
  const ajv = new Ajv(options);
  (inner(addFormats) as (ajv: Validator) => void)(ajv);
  ajv.addSchema(document, 'document');
  const compiled = new Map<string, ValidateFunction>();
  return (pointer) => {
    const known = compiled.get(pointer);
    if (known) return known;
    try {
      const made = ajv.compile({ $ref: `document#${pointer}` });
      compiled.set(pointer, made);
      return made;
    } catch (cause) {
      throw explain('SIM-CONTRACT-DOCUMENT', { why: (cause as Error).message, at: pointer }, { cause });
    }
  };
}

// A CommonJS package is its own default export, or has one, by who loads it.
const inner = (loaded: unknown): unknown => {
  const { default: made } = loaded as { default?: unknown };
  return made === undefined || made === loaded ? loaded : inner(made);
};

/** Where a value is other than a schema of the document. */
export function findDrifts(
  documented: Documented,
  validate: ValidateFunction,
  schema: unknown,
  value: unknown,
): Drift[] {
  const drifts: Drift[] = [];
  const unknown = unknownFields(documented.document, schema, value, '');
  if (!validate(value))
    drifts.push(...(validate.errors ?? []).filter(isTelling).map((error) => wordError(error, value)));
  return [...drifts, ...unknown].slice(0, 20);
}

// That a choice failed says less than why each of its parts did.
const isTelling = ({ keyword }: ErrorObject) => !/^(if|oneOf|anyOf)$/.test(keyword);

const pathOf = (pointer: string): string =>
  pointer
    .split('/')
    .slice(1)
    .map((part) => part.replace(/~1/g, '/').replace(/~0/g, '~'))
    .map((part, at) => (/^\d+$/.test(part) ? `[${part}]` : `${at > 0 ? '.' : ''}${part}`))
    .join('') || 'the whole';

function wordError({ instancePath, keyword, message = '', params }: ErrorObject, value: unknown): Drift {
  const above = instancePath;
  if (keyword === 'required') {
    const { missingProperty } = params as { missingProperty: string };
    const has = Object.keys((valueAt(value, above) ?? {}) as object);
    const path = pathOf(`${above}/${missingProperty}`);
    return { path, why: 'it is missing', nearest: nearest(missingProperty, has) };
  }
  const { allowedValues, additionalProperty } = params as {
    allowedValues?: unknown[];
    additionalProperty?: string;
  };
  if (additionalProperty)
    return {
      path: pathOf(`${above}/${additionalProperty}`),
      why: 'no such field is promised',
      nearest: undefined,
    };
  const choice = allowedValues ? ` (${allowedValues.map(String).join(', ')})` : '';
  return {
    path: pathOf(above),
    why: `${JSON.stringify(valueAt(value, above))} ${message}${choice}`,
    nearest: undefined,
  };
}

const valueAt = (value: unknown, pointer: string): unknown =>
  pointer
    .split('/')
    .slice(1)
    .reduce<unknown>(
      (at, part) => (at as Json | undefined)?.[part.replace(/~1/g, '/').replace(/~0/g, '~')],
      value,
    );

/** Fields that the document does not speak of. A schema allows them; a double that has them is likely to be old. */
function unknownFields(document: Json, schema: unknown, value: unknown, path: string): Drift[] {
  if (typeof value !== 'object' || value === null) return [];
  const parts = partsOf(document, schema, 0);
  if (Array.isArray(value)) {
    const items = parts.map((part) => part['items']).find(Boolean);
    return items ? value.flatMap((item, at) => unknownFields(document, items, item, `${path}[${at}]`)) : [];
  }
  const isOpen = parts.some(
    (part) => part['additionalProperties'] !== undefined || part['patternProperties'] !== undefined,
  );
  const properties: Json = Object.assign({}, ...parts.map((part) => part['properties'] ?? {}));
  const known = Object.keys(properties);
  return Object.entries(value).flatMap(([key, inside]) => {
    const at = path === '' ? key : `${path}.${key}`;
    if (Object.hasOwn(properties, key)) return unknownFields(document, properties[key], inside, at);
    if (isOpen || known.length === 0) return [];
    return [{ path: at, why: 'no such field is promised', nearest: nearest(key, known) }];
  });
}

function partsOf(document: Json, schema: unknown, depth: number): Json[] {
  if (depth > 20) return [];
  const read = resolve(document, schema);
  const choices = ['allOf', 'oneOf', 'anyOf'].flatMap((name) =>
    Array.isArray(read[name]) ? (read[name] as unknown[]) : [],
  );
  return [read, ...choices.flatMap((choice) => partsOf(document, choice, depth + 1))];
}
