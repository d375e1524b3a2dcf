import type { Given } from '../model';
import { object, type Field, type Value } from '../value';

export const quoteTitle = (title: string): string =>
  title.includes("'") ? `"${title.replaceAll('"', '\\"')}"` : `'${title}'`;

/** An option that is a list; nothing where it is empty. */
export const listField = (name: string, items: readonly Value[]): readonly Field[] =>
  items.length > 0 ? [[name, { kind: 'list', items }]] : [];
export const mapField = (
  name: string,
  map: Given['props'],
  written: (key: string, value: Value) => Value,
): readonly Field[] =>
  map.size > 0 ? [[name, object([...map].map(([key, value]): Field => [key, written(key, value)]))]] : [];

/** How a file begins while the draft is tried. */
export const headOf = (probe: string): string[] => [
  '// @ts-nocheck',
  `import { describe, expect, it, watch, watchMarkup } from '${probe.replaceAll('\\', '/')}';`,
];
