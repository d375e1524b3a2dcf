/** Prints any value on one line, short enough to stand inside a sentence. */
export function print(value: unknown, room = 80): string {
  const text = printDeep(value, 0, new Set());
  return text.length <= room ? text : `${text.slice(0, Math.max(1, room - 1))}…`;
}

function printDeep(value: unknown, depth: number, above: Set<object>): string {
  switch (typeof value) {
    case 'string':
      return JSON.stringify(value);
    case 'function':
      return `ƒ ${value.name}`.trimEnd();
    case 'bigint':
      return `${value}n`;
    case 'object':
      return value === null ? 'null' : printObject(value, depth, above);
    default:
      return String(value);
  }
}

function printObject(value: object, depth: number, above: Set<object>): string {
  if (above.has(value)) return '(itself)';
  if (value instanceof Error) return `${value.name}(${JSON.stringify(value.message)})`;
  if (value instanceof Date || value instanceof RegExp) return String(value);
  const tag = (value as { nodeName?: unknown }).nodeName;
  if (typeof tag === 'string') return `<${tag.toLowerCase()}>`;
  if ('$$typeof' in value) return '<…>';
  const inside = new Set(above).add(value);
  const keys = Object.keys(value);
  if (Array.isArray(value)) {
    if (depth > 1) return `[${value.length}]`;
    const items = value.slice(0, 6).map((item) => printDeep(item, depth + 1, inside));
    return `[${[...items, ...(value.length > 6 ? [`… ${value.length - 6} more`] : [])].join(', ')}]`;
  }
  const kind = value.constructor?.name;
  const name = kind && kind !== 'Object' ? `${kind} ` : '';
  if (depth > 1) return `${name}{…}`;
  const fields = keys
    .slice(0, 6)
    .map((key) => `${key}: ${printDeep((value as Record<string, unknown>)[key], depth + 1, inside)}`);
  if (keys.length > 6) fields.push('…');
  return fields.length === 0 ? `${name}{}` : `${name}{ ${fields.join(', ')} }`;
}

/** `1 hive`, `3 hives`: a count with its noun. */
export const count = (n: number, noun: string, many = `${noun}s`): string => `${n} ${n === 1 ? noun : many}`;

/** `a`, `a and b`, `a, b and c`: a list as a sentence has it, cut after `most`. */
export function list(items: readonly string[], most = 8, joiner = 'and'): string {
  const shown = items.slice(0, most);
  if (items.length > most) return `${shown.join(', ')} ${joiner} ${items.length - most} more`;
  if (shown.length < 2) return shown.join('');
  return `${shown.slice(0, -1).join(', ')} ${joiner} ${shown.at(-1)}`;
}
