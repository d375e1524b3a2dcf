import { factsOfThrown } from '../origin';
import { shared } from '../shared';
import { SimulacraError, type Report } from './error';
import { framesOf } from './frames';
import type { Circumstances } from './registry';

/** Told of each failure while a draft is tried. */
type Watcher = (failure: SimulacraError) => void;

/** Words a failure, with what its message says beside its own matter. */
export function wordFailure(
  code: string,
  fields: object,
  report: Report,
  circumstances: Circumstances,
): SimulacraError {
  const { chronicle } = circumstances;
  const error = new SimulacraError(code, fields, report, {
    ...('cause' in circumstances && {
      cause: circumstances.cause,
      thrown: factsOfThrown(circumstances.cause),
    }),
    happened: chronicle?.upToNow?.(),
    chronicle: chronicle && shorten(chronicle.recent?.() ?? chronicle.toString()),
  });
  const lines = framesOf(circumstances.calledAt ?? error);
  if (lines.length > 0) error.stack = [`${error.name}: ${error.message}`, ...lines].join('\n');
  (shared.singletons['onWorded'] as Watcher | undefined)?.(error);
  return error;
}

// Prints repeated lines once, with their number.
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
