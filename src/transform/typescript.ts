import { createRequire } from 'node:module';
import type TypeScript from 'typescript';
import { typescriptBy } from '../core/typescript';
import { refuse } from './errors';
import { versionIn } from './version';

/** The project's own TypeScript, as functions; undefined where it has none, or only as a program. */
export const findTypescript = (from: string): typeof TypeScript | undefined =>
  typescriptBy(createRequire(from)) as typeof TypeScript | undefined;

/** The project's own TypeScript. @throws SIM-TYPESCRIPT */
export function typescript(from: string): typeof TypeScript {
  return (
    findTypescript(from) ?? refuse('SIM-TYPESCRIPT', { file: from, version: versionIn(from, 'typescript') })
  );
}
