import { isExplained } from '../core/errors/called-from';
import { explain } from './errors';
import { print } from '../core/print';
import type { ChronicleLog } from '../core/chronicle';

/** A value that was asked for where nobody provides it. */
export interface BareRead {
  /** What it was asked by: a context, an injection key. */
  readonly token: string;
  /** What was got instead, printed. */
  readonly value: string;
  readonly reader: string;
}

interface Circumstances {
  readonly subject: string;
  /** The components from the one that threw outwards. */
  readonly names: readonly string[];
  readonly bareReads: readonly BareRead[];
  readonly provided: readonly string[];
  readonly chronicle: ChronicleLog;
  /** What the framework calls the thing that is provided. */
  readonly thing: 'context' | 'injection';
  /** When it was thrown: "while rendering" unless said otherwise. */
  readonly phase?: string;
  /** What to put around the subject for a package, as code. */
  wrapperOf(library: string): string;
}

/** Words what was thrown out of the subject, by what most likely caused it. */
export function explainThrown(error: unknown, around: Circumstances): Error {
  if (isExplained(error)) return error;
  // What broke is a request that no route answers, or another failure that is worded already.
  const { cause: inner } = (error ?? {}) as { cause?: unknown };
  if (isExplained(inner)) return inner;
  const { subject, bareReads, provided, chronicle, names, thing, phase } = around;
  const thrower = names[0] ?? subject;
  const threw = error instanceof Error ? `${error.name}: ${error.message.split('\n')[0]}` : print(error);
  const told = { cause: error, chronicle };
  const reads = bareReads.filter(({ reader }) => reader === thrower || reader === subject);
  const library = libraryHook(error);
  if (library && (reads.length > 0 || /provider|context|wrapped|inside|within|active|<[A-Z]/i.test(threw))) {
    const contexts = [...new Set(reads.map(({ token }) => token))].filter((name) => name !== 'Context');
    const wrapper = around.wrapperOf(library.package);
    return explain('SIM-WRAP-MISSING', { ...library, reader: thrower, contexts, threw, wrapper }, told);
  }
  const read = reads.at(-1);
  if (read)
    return explain(
      'SIM-PROVIDE-MISSING',
      { ...read, threw, provided: [...provided], thing, wrapper: around.wrapperOf(read.token) },
      told,
    );
  const stack = names
    .slice(0, 8)
    .map((name) => `  in ${name}`)
    .join('\n');
  return explain('SIM-RENDER-THREW', { subject, thrower, threw, stack, ...(phase && { phase }) }, told);
}

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
