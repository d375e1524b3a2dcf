import { isFrame, siteIn } from '../core/origin';
import { escaped } from '../core/print';
import { readText } from '../seam/kinds';

/**
 * Whether the line that threw reads a value that its file got from a hook or an injection. Undefined if the
 * line cannot be read or does not show what it reads.
 */
export function comesOfRead(error: unknown): boolean | undefined {
  const { message = '', stack = '' } = (error ?? {}) as Partial<Error>;
  const destructured = /of '([^']+)' as it is/.exec(message)?.[1];
  if (destructured && isReading(destructured)) return true;
  const top = stack.split('\n').find(isFrame) ?? '';
  // Only the user's own files are read, not those of packages.
  const site = siteIn({ stack: `\n${top}` });
  const text = site && readText(site.file);
  const line = text?.split('\n')[site!.line - 1];
  if (text === undefined || line === undefined) return undefined;
  // A parameter that is taken apart has no name: `<YardContext.Consumer>{({ yard }) => …}`.
  if (destructured?.startsWith('object ')) return givesParameter('\\{').test(text);
  const roots = destructured ? [rootOf(destructured)] : rootsRead(line, message);
  return roots.length > 0
    ? roots.some((root) => isFromRead(root, text) || givesParameter(`${escaped(root)}\\b`).test(text))
    : undefined;
}

/** A function that a consumer calls with what it has read. */
const givesParameter = (begins: string): RegExp => new RegExp(`Consumer>\\s*\\{\\s*\\(?\\s*${begins}`);

const isReading = (code: string): boolean => /\b(?:use[A-Z]?\w*|inject)\s*(?:<[^()]*>)?\(/.test(code);
const rootOf = (path: string): string => /^[\w$]+/.exec(path)?.[0] ?? path;

/** The variables by which the line reads what was not there. */
function rootsRead(line: string, message: string): string[] {
  const called = /^(?:\([^)]*\) )?([\w$]+)[\w$.]* is not (?:a function|iterable|a constructor)/.exec(
    message,
  )?.[1];
  if (called && called !== 'undefined' && called !== 'object') return [called];
  const [, property] = /\(reading '([\w$]+)'\)/.exec(message) ?? [];
  if (!property) return [];
  const path = new RegExp(`([\\w$]+)(?:[!?]?\\.[\\w$]+)*!?\\.\\s*${property.replace(/\$/g, '\\$')}\\b`, 'g');
  // What a class has of a context is not declared.
  return [...line.matchAll(path)].map(([whole, root]) =>
    /^this[!?]?\.context\b/.test(whole) ? 'useContext' : root!,
  );
}

/** Whether a variable holds what a hook or an injection returned, or a part of it. */
function isFromRead(root: string, text: string, seen = new Set<string>()): boolean {
  if (seen.has(root)) return false;
  seen.add(root);
  if (/^(use[A-Z]?\w*|inject)$/.test(root)) return true;
  const name = root.replace(/\$/g, '\\$');
  const declared = new RegExp(
    `(?:\\b(?:const|let|var|readonly|private|protected|public)\\s+)+(?:${name}|[{[][^{}[\\]=]*\\b${name}\\b[^=]*[}\\]])\\s*(?::[^=]+)?=\\s*([^;\\n]+)`,
    'g',
  );
  const values = [...text.matchAll(declared)].map(([, value]) => value!);
  return values.some(
    (value) => isReading(value) || isFromRead(rootOf(value.replace(/^\(?await\s+/, '')), text, seen),
  );
}
