import { resolve } from './documents';
import {
  chosen,
  dateOf,
  decimalOf,
  idOf,
  momentOf,
  numberOf,
  textOf,
  wholeOf,
  type Place,
} from './plausible';
import { textMatching } from './patterned';

type Json = Readonly<Record<string, unknown>>;

const deepest = 6;

/** A value that fits a schema of a document: its example where it has one, else a plausible one. */
export function makeValue(document: Json, schema: unknown, place: Place, depth = 0): unknown {
  const owner = nameOf(schema) ?? place.owner;
  const read = resolve(document, schema);
  const example = exampleOf(document, read);
  if (example !== undefined) return numbered(example, place);
  if ('const' in read) return read['const'];
  if (Array.isArray(read['enum'])) return read['enum'][chosen(place, read['enum'].length)];
  const [variant] = [...listOf(read['oneOf']), ...listOf(read['anyOf'])];
  if (variant !== undefined) return makeValue(document, variant, { ...place, owner }, depth);
  const parts = listOf(read['allOf']);
  if (parts.length > 0) {
    const own = 'properties' in read ? [makeObject(document, read, { ...place, owner }, depth)] : [];
    return Object.assign(
      {},
      ...parts.map((part) => makeValue(document, part, { ...place, owner }, depth)),
      ...own,
    ) as unknown;
  }
  return makeTyped(document, read, { ...place, owner }, depth);
}

// Two items of a list are not the same one.
function numbered(example: unknown, place: Place): unknown {
  const number = numberOf(place);
  if (number === 1 || !/^(_?id|uuid|key)$/i.test(place.field)) return example;
  if (typeof example === 'number') return example + number - 1;
  const [, stem, digits] = /^(.*?)(\d+)$/.exec(String(example)) ?? [];
  return digits === undefined
    ? example
    : `${stem}${String(Number(digits) + number - 1).padStart(digits.length, '0')}`;
}

/** The example that a schema or a content has. */
export function exampleOf(document: Json, read: Json): unknown {
  if ('example' in read) return read['example'];
  const { examples } = read;
  if (Array.isArray(examples)) return examples[0];
  const [first] = Object.values((examples ?? {}) as Json);
  return first === undefined ? undefined : resolve(document, first)['value'];
}

const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
const nameOf = (schema: unknown): string | undefined => {
  const { $ref, title } = (schema ?? {}) as { $ref?: string; title?: string };
  return $ref?.split('/').at(-1) ?? title;
};

function makeTyped(document: Json, read: Json, place: Place, depth: number): unknown {
  const types = [read['type']].flat();
  const type =
    types.find((one) => one !== 'null') ??
    ('properties' in read ? 'object' : 'items' in read ? 'array' : undefined);
  switch (type) {
    case 'object':
      return makeObject(document, read, place, depth);
    case 'array': {
      const least = Number(read['minItems'] ?? 0);
      const length = depth >= deepest ? least : Math.max(least, Math.min(2, Number(read['maxItems'] ?? 2)));
      return Array.from({ length }, (_, at) =>
        makeValue(document, read['items'] ?? {}, { ...place, path: [...place.path, at] }, depth + 1),
      );
    }
    case 'integer':
      return within(read, wholeOf(place), 1);
    case 'number':
      return within(read, decimalOf(place), 0.1);
    case 'boolean':
      return chosen(place, 2) === 1;
    case 'string':
      return makeText(read, place);
    default:
      return null;
  }
}

function makeObject(document: Json, read: Json, place: Place, depth: number): object {
  const required = new Set(listOf(read['required']));
  const entries = Object.entries((read['properties'] ?? {}) as Json).filter(
    ([name, schema]) =>
      (depth < deepest || required.has(name)) &&
      !(resolve(document, schema) as { writeOnly?: boolean }).writeOnly,
  );
  return Object.fromEntries(
    entries.map(([field, schema]) => {
      const at = { owner: place.owner, field, path: [...place.path, field] };
      return [field, makeValue(document, schema, at, depth + 1)];
    }),
  );
}

function within(read: Json, value: number, step: number): number {
  const least = bound(read, 'minimum', 'exclusiveMinimum', step);
  const most = bound(read, 'maximum', 'exclusiveMaximum', -step);
  const size = Number(read['multipleOf'] ?? 0);
  const fitting = Math.min(most ?? Infinity, Math.max(least ?? -Infinity, value));
  return size > 0 ? Math.ceil(fitting / size) * size : fitting;
}

function bound(read: Json, name: string, exclusive: string, step: number): number | undefined {
  const [value, strict] = [read[name], read[exclusive]];
  if (typeof strict === 'number') return strict + step;
  return typeof value === 'number' ? value + (strict === true ? step : 0) : undefined;
}

const formats: Readonly<Record<string, (place: Place) => string>> = {
  date: dateOf,
  'date-time': momentOf,
  time: (place) => momentOf(place).slice(11),
  duration: () => 'P1D',
  email: (place) => textOf({ ...place, field: 'email' }),
  uri: (place) => textOf({ ...place, field: 'url' }),
  url: (place) => textOf({ ...place, field: 'url' }),
  'uri-reference': (place) => `/${idOf(place)}`,
  hostname: () => 'brackenfold.example',
  ipv4: () => '192.0.2.1',
  ipv6: () => '2001:db8::1',
  byte: () => 'YmVl',
  uuid: (place) => {
    const digits = (at: number) =>
      chosen({ ...place, field: `${place.field} ${at}` }, 0x10000)
        .toString(16)
        .padStart(4, '0');
    return `${digits(1)}${digits(2)}-${digits(3)}-4${digits(4).slice(1)}-8${digits(5).slice(1)}-${digits(6)}${digits(7)}${digits(8)}`;
  },
};

function makeText(read: Json, place: Place): string {
  const made = formats[String(read['format'])]?.(place) ?? textOf(place);
  const { pattern } = read;
  if (typeof pattern === 'string' && !matches(pattern, made))
    return textMatching(pattern, numberOf(place)) ?? made;
  const least = Number(read['minLength'] ?? 0);
  const most = Number(read['maxLength'] ?? Infinity);
  return made.padEnd(least, '.').slice(0, most);
}

function matches(pattern: string, text: string): boolean {
  try {
    return new RegExp(pattern, 'u').test(text);
  } catch {
    return true;
  }
}
