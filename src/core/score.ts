import { explain } from './errors';
import { calledFrom } from './errors/called-from';
import { print } from './print';
import { printSpan, readSpan } from './spans';

/** One emission: when, and what. */
export interface Note {
  /** Milliseconds from the beginning. */
  readonly at: number;
  readonly value: unknown;
}

/** How it ends. */
export interface End {
  readonly at: number;
  readonly failed: boolean;
  readonly reason: unknown;
}

/**
 * What was emitted when, in one line:
 *
 *     score = entry *( ";" entry )
 *     entry = span " " ( value / "end" / "fail" [ " " reason ] )
 *     span  = what time.advance() takes as a text: 300ms, 1s, 1min 30s
 *     value = JSON, or a word that stands for itself
 */
export function printScore(notes: readonly Note[], end: End | undefined): string {
  const entries = notes.map(({ at, value }) => `${printSpan(at)} ${printValue(value)}`);
  if (end) {
    const reason = end.reason === undefined ? '' : ` ${messageOf(end.reason)}`;
    entries.push(`${printSpan(end.at)} ${end.failed ? `fail${reason}` : 'end'}`);
  }
  return entries.join('; ');
}

const messageOf = (reason: unknown): string =>
  reason instanceof Error ? reason.message : typeof reason === 'string' ? reason : print(reason);

const isWord = (text: string): boolean =>
  /^[\p{L}_][\p{L}\p{N}_ -]*$/u.test(text) &&
  !/^(end|fail\b|true|false|null)/.test(text) &&
  text.trim() === text;

function printValue(value: unknown): string {
  if (typeof value === 'string') return isWord(value) ? value : JSON.stringify(value);
  try {
    const text = JSON.stringify(value);
    // What JSON would lose or change is printed.
    return text === undefined || typeof value === 'bigint' ? print(value) : text;
  } catch {
    return print(value);
  }
}

/** Reads a score. @throws SIM-SCORE */
export function readScore(
  score: string,
  below: (...args: never[]) => unknown,
): { notes: Note[]; end: End | undefined } {
  const notes: Note[] = [];
  let end: End | undefined;
  let last = 0;
  for (const entry of split(String(score))) {
    const [, span = '', told = ''] =
      /^((?:[\d.]+\s*(?:ms|s|sec|min|m|h|d)\s+)+)(.*)$/s.exec(`${entry.trim()} `) ?? [];
    const at = readSpan(span.trim());
    const text = told.trim();
    const why =
      at === undefined || text === ''
        ? 'it has to begin with when, followed by what'
        : at < last
          ? 'it is earlier than the one before'
          : end
            ? 'nothing comes after the end'
            : undefined;
    if (why)
      throw explain('SIM-SCORE', { entry: entry.trim(), why }, { calledAt: calledFrom('play', below) });
    last = at!;
    if (text === 'end') end = { at: last, failed: false, reason: undefined };
    else if (/^fail\b/.test(text))
      end = { at: last, failed: true, reason: text.slice(4).trim() || undefined };
    else notes.push({ at: last, value: readValue(text) });
  }
  return { notes, end };
}

function readValue(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return text;
  }
}

/** Splits at semicolons and line ends that are not inside of a JSON string. */
const split = (score: string): string[] =>
  (score.match(/(?:"(?:[^"\\]|\\.)*"|[^;\n"])+/g) ?? []).filter((entry) => entry.trim() !== '');
