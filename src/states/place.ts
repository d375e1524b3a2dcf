import { framesOf } from '../core/errors/frames';
import { isError } from '../core/is-error';
import { siteIn, type Place } from '../core/origin';
import { escaped } from '../core/print';
import { readText } from '../seam/kinds';

/* Where a state is declared: found in the text of its file, from the call of states() on. */

/** An error that stands for the line a state is declared at; the call of states() where that is unknown. */
export function declarationOf(name: string, declaredAt: Error): Error {
  const site = siteIn(declaredAt);
  const text = site && readText(site.file);
  const line = site && text !== undefined ? lineOfState(text, name, site) : undefined;
  if (!site || line === undefined) return declaredAt;
  const at: Place = { ...site, ...line };
  const error = new Error(name);
  error.stack = `Error: ${name}\n    at ${name} (${at.file}:${at.line}:${at.column})`;
  return error;
}

/** Points a failure of a state at the line it is declared on, where it points at the call of states(). */
export function locateAtState(failure: unknown, name: string, declaredAt: Error): unknown {
  if (!isError(failure)) return failure;
  const [call] = framesOf(declaredAt);
  const own = framesOf(failure).findIndex((frame) => frame === call);
  if (call === undefined || own !== 0) return failure;
  const [line] = framesOf(declarationOf(name, declaredAt));
  failure.stack = failure.stack?.replace(call, () => line ?? call);
  return failure;
}

/** The line a state is declared on, in the text of its file; undefined where it is not found. */
export function lineOfStateIn(text: string, name: string): number | undefined {
  for (const { index } of text.matchAll(/\bstates\s*(?:<[^(]*>)?\(/g)) {
    const before = text.slice(0, index).split('\n');
    const found = lineOfState(text, name, { line: before.length, column: before.at(-1)!.length + 1 });
    if (found) return found.line;
  }
  return undefined;
}

/**
 * The line on which a key of the last object in the call of states() stands: within one pair of parentheses and
 * one of braces.
 */
function lineOfState(
  text: string,
  name: string,
  { line, column }: Pick<Place, 'line' | 'column'>,
): { readonly line: number; readonly column: number } | undefined {
  const before = text.split('\n').slice(0, line - 1);
  const call = text.indexOf('(', before.join('\n').length + column);
  if (call < 0) return undefined;
  const key = new RegExp(`^(?:${escaped(name)}|'${escaped(name)}'|"${escaped(name)}")\\s*:`);
  let open = '';
  for (let at = call; at < text.length; at++) {
    at = skipWords(text, at);
    const letter = text[at]!;
    if ('([{'.includes(letter)) open += letter;
    else if (')]}'.includes(letter)) {
      open = open.slice(0, -1);
      if (open === '') return undefined;
    } else if (
      open === '({' &&
      /[{,\s]/.test(text[at - 1]!) &&
      key.test(text.slice(at, at + name.length + 8))
    ) {
      const above = text.slice(0, at).split('\n');
      return { line: above.length, column: above.at(-1)!.length + 1 };
    } else if (/["'`]/.test(letter)) at = endOfText(text, at);
  }
  return undefined;
}

/** Past a comment that begins here. */
function skipWords(text: string, at: number): number {
  const end = text.startsWith('//', at)
    ? text.indexOf('\n', at)
    : text.startsWith('/*', at)
      ? text.indexOf('*/', at) + 2
      : at;
  return end < at ? text.length - 1 : end;
}

/** Where a text that begins here ends. */
function endOfText(text: string, at: number): number {
  const quote = text[at]!;
  for (let end = at + 1; end < text.length; end++) {
    if (text[end] === '\\') end++;
    else if (text[end] === quote) return end;
  }
  return text.length;
}
