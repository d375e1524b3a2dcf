import { explain, isExplained } from '../core/errors';
import { print } from '../core/print';
import type { ChronicleLog } from '../core/chronicle';
import type { BareRead } from './door';

interface Circumstances {
  readonly subject: string;
  readonly componentStack: string;
  readonly bareReads: readonly BareRead[];
  readonly provided: readonly string[];
  readonly chronicle: ChronicleLog;
}

/** Words what was thrown out of the subject while rendering, by what most likely caused it. */
export function explainThrown(error: unknown, around: Circumstances): Error {
  if (isExplained(error)) return error;
  const { subject, bareReads, provided, chronicle } = around;
  const names = componentNames(around.componentStack);
  const thrower = names[0] ?? subject;
  const threw = error instanceof Error ? `${error.name}: ${error.message.split('\n')[0]}` : print(error);
  const told = { cause: error, chronicle };
  const reads = bareReads.filter(({ reader }) => reader === thrower || reader === subject);
  const library = libraryHook(error);
  if (library && (reads.length > 0 || /provider|context|wrapped|inside|within|<[A-Z]/i.test(threw))) {
    const contexts = [...new Set(reads.map(({ context }) => context))].filter((name) => name !== 'Context');
    return explain('SIM-WRAP-MISSING', { ...library, reader: thrower, contexts, threw }, told);
  }
  const read = reads.at(-1);
  if (read) return explain('SIM-PROVIDE-MISSING', { ...read, threw, provided: [...provided] }, told);
  const stack = names
    .slice(0, 8)
    .map((name) => `  in ${name}`)
    .join('\n');
  return explain('SIM-RENDER-THREW', { subject, thrower, threw, stack }, told);
}

// Component stacks list from the inside out, hosts in lower case; ours are no news.
const componentNames = (stack: string): string[] =>
  stack
    .split('\n')
    .map((line) => /^\s*(?:at|in) ([\w$.]+)/.exec(line)?.[1] ?? '')
    .filter((name) => /^[A-Z]/.test(name) && !/^Simulacra/.test(name));

// The outermost hook of a package on the way to the throw is the one the user called. Where source
// maps are applied a frame may bear the name of the function it calls; the file tells then.
function libraryHook(error: unknown): { hook: string; package: string } | undefined {
  const stack = error instanceof Error ? (error.stack ?? '') : '';
  let found: { hook: string; package: string } | undefined;
  for (const line of stack.split('\n')) {
    const [, called, name, file] =
      /at (?:\S*\.)?(use[A-Z]\w*) .*node_modules[\\/]((?:@[^\\/]+[\\/])?[^\\/]+).*?([^\\/]+?)\.\w+:\d+:\d+/.exec(
        line,
      ) ?? [];
    if (!called || !name || name === 'react' || /^react-dom/.test(name)) continue;
    found = { hook: /^use[A-Z]\w*$/.test(file ?? '') ? file! : called, package: name };
  }
  return found;
}
