import { isError } from './is-error';
/** Prints any value on one line, short enough to stand inside a sentence. */
export function print(value: unknown, room = 80): string {
  const text = printDeep(value, 0, []);
  return text.length <= room ? text : `${text.slice(0, Math.max(1, room - 1))}…`;
}

const mostInside = 6;
const mostLetters = 200;

function printDeep(value: unknown, depth: number, above: readonly object[]): string {
  switch (typeof value) {
    case 'string':
      return JSON.stringify(value.length > mostLetters ? `${value.slice(0, mostLetters)}…` : value);
    case 'function':
      return `ƒ ${read(value, 'name')}`.trimEnd();
    case 'bigint':
      return `${value}n`;
    case 'object':
      return value === null ? 'null' : printSafely(value, depth, above);
    default:
      return String(value);
  }
}

// Reading from a proxy or an accessor may throw.
function printSafely(value: object, depth: number, above: readonly object[]): string {
  try {
    return printObject(value, depth, above);
  } catch {
    return '(cannot be read)';
  }
}

function read(value: object, key: PropertyKey): unknown {
  try {
    return (value as Record<PropertyKey, unknown>)[key];
  } catch {
    return '(cannot be read)';
  }
}

function printObject(value: object, depth: number, above: readonly object[]): string {
  if (above.includes(value)) return '(itself)';
  if (isError(value)) return `${value.name}(${JSON.stringify(value.message)})`;
  if (value instanceof Date || value instanceof RegExp) return String(value);
  const tag = (value as { nodeName?: unknown }).nodeName;
  if (typeof tag === 'string') return `<${tag.toLowerCase()}>`;
  if ('$$typeof' in value || '__v_isVNode' in value) return printElement(value);
  const inside = [...above, value];
  const one = (item: unknown) => printDeep(item, depth + 1, inside);
  if (Array.isArray(value)) {
    if (depth > 1) return `[${value.length}]`;
    return `[${some(value.slice(0, mostInside).map(one), value.length)}]`;
  }
  // By its tag, so that objects of another realm (a page in a runner) are recognized too.
  const kind = Object.prototype.toString.call(value).slice(8, -1);
  if (kind === 'Map' || kind === 'Set') return printCollection(value as Collection, kind, depth, one);
  if (kind === 'File' || kind === 'Blob') return printFile(value, kind);
  if (kind === 'FormData') return printForm(value as Iterable<[string, unknown]>, one);
  if (kind === 'ArrayBuffer') return `ArrayBuffer(${String(read(value, 'byteLength'))})`;
  if (kind === 'URLSearchParams') return `URLSearchParams ${JSON.stringify(String(value))}`;
  const called = (read(value, 'constructor') as { name?: unknown } | undefined)?.name;
  const name = typeof called === 'string' && called !== 'Object' && called ? `${called} ` : '';
  if (depth > 1) return `${name}{…}`;
  return printFields(value, name, one);
}

// An element that JSX or `h()` made, by its tag or component.
function printElement(value: object): string {
  // A context or a memo, which has no props.
  if (!('props' in value)) return String(read(value, '$$typeof')).replace(/^Symbol\((.*)\)$/, '$1');
  const type = read(value, 'type');
  if (typeof type === 'string') return `<${type}>`;
  const { displayName, name, __name } = (type ?? {}) as Record<string, unknown>;
  const called = displayName ?? name ?? __name;
  return typeof called === 'string' && called ? `<${called}>` : '<…>';
}

type Collection = ReadonlyMap<unknown, unknown> | ReadonlySet<unknown>;

function printCollection(
  value: Collection,
  kind: 'Map' | 'Set',
  depth: number,
  one: (item: unknown) => string,
): string {
  if (depth > 1) return `${kind}(${value.size})`;
  const items: string[] = [];
  for (const item of value) {
    if (items.length === mostInside) break;
    items.push(kind === 'Map' ? (item as [unknown, unknown]).map(one).join(' => ') : one(item));
  }
  return `${kind}(${value.size}) { ${some(items, value.size)} }`.replace('{  }', '{}');
}

function printFile(value: object, kind: 'File' | 'Blob'): string {
  const { name, type, size } = value as { name?: string; type: string; size: number };
  const facts = [type, count(size, 'byte')].filter(Boolean).join(', ');
  return `${kind}${name === undefined ? '' : ` ${JSON.stringify(name)}`} (${facts})`;
}

function printForm(form: Iterable<[string, unknown]>, one: (item: unknown) => string): string {
  const entries = [...form].map(([name, value]) => `${name}: ${one(value)}`);
  return `FormData { ${some(entries.slice(0, mostInside), entries.length)} }`.replace('{  }', '{}');
}

function printFields(value: object, name: string, one: (item: unknown) => string): string {
  const fields: string[] = [];
  // Without listing all keys, since an object may have very many.
  for (const key in value) {
    if (!Object.hasOwn(value, key)) continue;
    if (fields.length === mostInside) {
      fields.push('…');
      break;
    }
    fields.push(`${key}: ${one(read(value, key))}`);
  }
  return fields.length === 0 ? `${name}{}` : `${name}{ ${fields.join(', ')} }`;
}

const some = (shown: readonly string[], of: number): string =>
  [...shown, ...(of > shown.length ? [`… ${of - shown.length} more`] : [])].join(', ');

/** `1 hive`, `3 hives`: a count with its noun. */
export const count = (n: number, noun: string, many = `${noun}s`): string => `${n} ${n === 1 ? noun : many}`;

/** `a`, `a and b`, `a, b and c`: a list as a sentence has it, cut after `most`. */
export function list(items: readonly string[], most = 8, joiner = 'and'): string {
  const shown = items.slice(0, most);
  if (items.length > most) return `${shown.join(', ')} ${joiner} ${items.length - most} more`;
  if (shown.length < 2) return shown.join('');
  return `${shown.slice(0, -1).join(', ')} ${joiner} ${shown.at(-1)}`;
}

/** What was thrown, as a sentence has it: the class and message of an error, anything else printed. */
export const printThrown = (thrown: unknown): string =>
  isError(thrown) ? `${thrown.name}: ${thrown.message}` : print(thrown);

/** What code calls a component by: its variable, or its name as a text where that is no name of a variable. */
export const asCode = (name: string): string =>
  /^[\p{ID_Start}$_][\p{ID_Continue}$.]*$/u.test(name) ? name : `'${name}'`;

/** What an object holds, without its braces: `width: 400, dark: true`. */
export const printInside = (object: object): string => print(object).replace(/^\{ (.*) \}$/, '$1');

/** A component as a message begins with it, with its parents unless it is the subject itself. */
export const inSubject = (component: string, subject: string): string =>
  component === subject ? subject : `${component}, inside ${subject},`;

/** Words as a part of a pattern that finds only them. */
export const escaped = (words: string): string => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
