import type * as Ts from 'typescript';
import type { Sampling } from './sample';
import type { Types } from './service';

/** How values are made of the types in a file; undefined for a file that is not there. */
export function samplingIn(
  types: Types,
  file: string,
  framework: Sampling['framework'],
  asAnswer = false,
): (Sampling & { readonly source: Ts.SourceFile }) | undefined {
  const { checker, file: source } = types.source(file) ?? {};
  if (!checker || !source) return undefined;
  return { ts: types.ts, checker, framework, isJson: asAnswer, isFull: asAnswer, at: source, source };
}
