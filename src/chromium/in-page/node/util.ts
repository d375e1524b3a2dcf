/* What Jest asks of Node's `util`, for a page. */
import { format as formatPretty } from 'pretty-format';

export const inspect = (value: unknown): string => formatPretty(value, { min: true, maxDepth: 4 });

/** A text out of a pattern and values. @see https://nodejs.org/api/util.html#utilformatformat-args */
export function format(first?: unknown, ...rest: unknown[]): string {
  const values = [...rest];
  const print = (value: unknown) => (typeof value === 'string' ? value : inspect(value));
  if (typeof first !== 'string')
    return [...(first === undefined && rest.length === 0 ? [] : [first]), ...rest].map(print).join(' ');
  const text = first.replace(/%[sdifjoOc%]/g, (sign) => {
    if (sign === '%%') return '%';
    if (values.length === 0) return sign;
    const value = values.shift();
    if (sign === '%s') return typeof value === 'object' && value !== null ? inspect(value) : String(value);
    if (sign === '%d') return typeof value === 'bigint' ? `${value}n` : String(Number(value));
    if (sign === '%i') return String(parseInt(String(value), 10));
    if (sign === '%f') return String(parseFloat(String(value)));
    if (sign === '%j') return JSON.stringify(value) ?? 'undefined';
    return sign === '%c' ? '' : inspect(value);
  });
  return [text, ...values.map(print)].join(' ');
}

export const types = {
  isPromise: (value: unknown): boolean => value instanceof Promise,
  isNativeError: (value: unknown): boolean => value instanceof Error,
  isProxy: (): boolean => false,
};
export const { isPromise, isNativeError, isProxy } = types;
export const promisify = (work: unknown): unknown => work;
export const stripVTControlCharacters = (text: string): string => text;
export default { inspect, format, types, promisify };
