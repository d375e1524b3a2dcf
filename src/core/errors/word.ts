import { SimulacraError, type Report } from './error';
import type { Circumstances } from './registry';

/** Words a failure, with what its message tells beside its own matter. */
export function wordFailure(
  code: string,
  fields: object,
  report: Report,
  around: Circumstances,
): SimulacraError {
  const { chronicle } = around;
  const error = new SimulacraError(code, fields, report, {
    ...('cause' in around && { cause: around.cause }),
    chronicle: chronicle && shorten(chronicle.recent?.() ?? chronicle.toString()),
  });
  const lines = framesOf(around.calledAt ?? error);
  if (lines.length > 0) error.stack = [`${error.name}: ${error.message}`, ...lines].join('\n');
  return error;
}

// Where we stand ourselves is no news: the stack begins at the user's line.
export function framesOf({ stack = '' }: { readonly stack?: string | undefined }): string[] {
  const here = new Error().stack?.split('\n')[1] ?? '';
  const [, own] =
    /((?:file:|\/|\w:\\)[^()]*[\\/])(?:core[\\/]errors|parts)[\\/][^()]*:\d+:\d+/.exec(here) ?? [];
  // What the demonstration isolates lies beside us, and is a user's file all the same.
  const isOurs = (frame: string) =>
    own !== undefined && frame.includes(own) && !frame.includes(`${own}demo.`);
  const frames = stack.split('\n').filter((text) => /^\s+at /.test(text));
  const first = frames.findIndex((frame) => !isOurs(frame));
  return first < 0 ? frames : frames.slice(first);
}

// What comes again and again is told once, and how often.
function shorten(chronicle: string): string {
  const lines = chronicle.split('\n');
  const kept: string[] = [];
  const alike = (line = '') => line.replace(/^ *\d+ ms/, '');
  for (let at = 0; at < lines.length; at++) {
    kept.push(lines[at]!);
    let end = at;
    while (alike(lines[end + 1]) === alike(lines[at]) && end + 1 < lines.length) end++;
    if (end - at > 2) {
      kept.push(`          … ${end - at} more times`);
      at = end;
    }
  }
  return kept.join('\n');
}
