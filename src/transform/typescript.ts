import { createRequire } from 'node:module';
import type TypeScript from 'typescript';
import { refuse } from './errors';
import { versionIn } from './version';

/** Where the compiler's functions are: from version 7 on, `typescript` itself has none. */
const names = ['typescript', '@typescript/typescript6'];

/** The project's own TypeScript, as functions; undefined where it has none, or only as a program. */
export function findTypescript(from: string): typeof TypeScript | undefined {
  const require = createRequire(from);
  for (const name of names) {
    try {
      const found = require(name) as Partial<typeof TypeScript>;
      if (found.transpileModule) return found as typeof TypeScript;
    } catch {
      // The next one may be there.
    }
  }
  return undefined;
}

/** The project's own TypeScript. @throws SIM-TYPESCRIPT */
export function typescript(from: string): typeof TypeScript {
  return (
    findTypescript(from) ?? refuse('SIM-TYPESCRIPT', { file: from, version: versionIn(from, 'typescript') })
  );
}
