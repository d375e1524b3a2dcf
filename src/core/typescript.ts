/** Where the compiler's functions are: from version 7 on, `typescript` itself has none. */
const names = ['typescript', '@typescript/typescript6'];

/** A project's own TypeScript, as functions; undefined where it has none, or only as a program. */
export function typescriptBy(require: (name: string) => unknown): object | undefined {
  for (const name of names) {
    try {
      const found = require(name) as { transpileModule?: unknown };
      if (found.transpileModule) return found;
    } catch {
      // The next one may be there.
    }
  }
  return undefined;
}
