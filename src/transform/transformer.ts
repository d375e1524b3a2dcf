import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type TypeScript from 'typescript';

/** What Jest asks of a transformer, as far as it is needed here. @see https://jestjs.io/docs/code-transformation */
export interface TransformOptions {
  readonly supportsStaticESM?: boolean;
  readonly config?: { readonly rootDir?: string };
}

export interface Transformed {
  readonly code: string;
  readonly map: string | null;
}

/** The project's own TypeScript. */
export const typescript = (from: string): typeof TypeScript =>
  createRequire(from)('typescript') as typeof TypeScript;

/** A key that changes with everything a result is made of. */
export const keyOf = (...parts: readonly string[]): string =>
  createHash('sha1').update(parts.join('\0')).digest('hex');

let own: string | undefined;

/** What this transformer itself is: another one gives another result. */
export const self = (): string => (own ??= keyOf(readFileSync(__filename, 'utf8')));

/** Turns TypeScript or a standard module into what Jest runs. */
export function transpile(
  ts: typeof TypeScript,
  code: string,
  file: string,
  { supportsStaticESM = false }: TransformOptions,
  more: {
    options?: TypeScript.CompilerOptions;
    before?: TypeScript.TransformerFactory<TypeScript.SourceFile>;
  } = {},
): Transformed {
  const { outputText, sourceMapText = null } = ts.transpileModule(code, {
    fileName: file,
    compilerOptions: {
      target: ts.ScriptTarget.ES2022,
      module: supportsStaticESM ? ts.ModuleKind.ESNext : ts.ModuleKind.CommonJS,
      esModuleInterop: true,
      allowJs: true,
      sourceMap: true,
      removeComments: false,
      ...more.options,
    },
    ...(more.before && { transformers: { before: [more.before] } }),
  });
  return { code: outputText.replace(/\n\/\/# sourceMappingURL=.*\s*$/, '\n'), map: sourceMapText };
}

/** True for what is a standard module, and must be turned into one of the runner's. */
export const isStandardModule = (code: string): boolean => /^\s*(import|export)\b/m.test(code);
