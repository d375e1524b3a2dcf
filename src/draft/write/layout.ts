import { basename } from 'node:path';
import { fillPlaceholders, type Value } from '../value';
import { nameField, quote } from './words';

/* Values as source text, broken into lines where they are long. */

export interface Style {
  readonly width: number;
  readonly indent: string;
}

/** @param before how much stands on the line already @param after how much has to follow on the last line */
export function layOut(value: Value, { width, indent }: Style, depth = 0, before = 0, after = 1): string {
  const flat = writeLine(value);
  const long = fillPlaceholders(flat, (file) => `./${basename(file)}`).length;
  if (before + long + after <= width && !flat.includes('\n')) return flat;
  const inner = indent.repeat(depth + 1);
  const style = { width, indent };
  switch (value.kind) {
    case 'list': {
      if (value.items.length === 0) return '[]';
      const lines = value.items.map((item) => `${inner}${layOut(item, style, depth + 1, inner.length)},`);
      return `[\n${lines.join('\n')}\n${indent.repeat(depth)}]`;
    }
    case 'object': {
      if (value.fields.length === 0) return '{}';
      const lines = value.fields.map(([key, one]) => {
        if (isShorthand(key, one)) return `${inner}${key},`;
        const name = `${inner}${nameField(key)}: `;
        return `${name}${layOut(one, style, depth + 1, name.length)},`;
      });
      return `{\n${lines.join('\n')}\n${indent.repeat(depth)}}`;
    }
    case 'around': {
      // A path is written when it is known where the file is to be: about as long as the name.
      const start = before + fillPlaceholders(value.before, (file) => `./${basename(file)}`).length;
      return `${value.before}${layOut(value.value, style, depth, start, after + value.after.length)}${value.after}`;
    }
    default:
      return flat;
  }
}

const isShorthand = (key: string, value: Value): boolean => value.kind === 'code' && value.code === key;

export function writeLine(value: Value): string {
  switch (value.kind) {
    case 'text':
      return quote(value.text);
    case 'number':
      return String(value.number);
    case 'list':
      return `[${value.items.map(writeLine).join(', ')}]`;
    case 'object':
      return value.fields.length === 0
        ? '{}'
        : `{ ${value.fields.map(([key, one]) => (isShorthand(key, one) ? key : `${nameField(key)}: ${writeLine(one)}`)).join(', ')} }`;
    case 'around':
      return `${value.before}${writeLine(value.value)}${value.after}`;
    case 'code':
      return value.code;
  }
}
