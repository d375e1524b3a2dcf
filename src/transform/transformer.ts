import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type TypeScript from 'typescript';
import { metaOf, readsMeta, replaceMeta } from './meta';
import { typescript } from './typescript';
import { versionIn } from './version';

/** What Jest asks of a transformer, as far as it is needed here. @see https://jestjs.io/docs/code-transformation */
export interface TransformOptions {
  readonly supportsStaticESM?: boolean;
  readonly config?: { readonly cacheDirectory?: string };
  /** Rewrites a script so that what it imports can be swapped, where somebody asks for that. */
  readonly seam?: (code: string, file: string) => Rewritten | undefined;
}

interface Rewritten {
  readonly code: string;
  makeMap(): { toString(): string };
}

export interface Transformed {
  readonly code: string;
  /** An object, because coverage tools do not accept a text. */
  readonly map: object | null;
}

/** A key that changes with everything a result is made of. */
export const keyOf = (...parts: readonly string[]): string =>
  createHash('sha1').update(parts.join('\0')).digest('hex');

let own: string | undefined;

/** What this transformer itself is: another one gives another result. */
const self = (): string => (own ??= keyOf(readFileSync(__filename, 'utf8')));

/**
 * What identifies the result for a file; another version of what compiles it gives another one.
 *
 * @param more what else it is made of
 */
export const keyOfFile = (
  code: string,
  file: string,
  { supportsStaticESM }: TransformOptions,
  ...more: readonly string[]
): string =>
  keyOf(self(), versionIn(file, 'typescript') ?? '', code, file, String(supportsStaticESM), ...more);

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
      ...more.options,
    },
    transformers: {
      before: [
        ...(more.before ? [more.before] : []),
        ...(!supportsStaticESM && readsMeta(code) ? [replaceMeta(ts)] : []),
      ],
    },
  });
  const map = sourceMapText === null ? null : (JSON.parse(sourceMapText) as object);
  return { code: outputText.replace(/\n\/\/# sourceMappingURL=.*\s*$/, '\n'), map };
}

/** True for what is a standard module, and must be turned into one of the runner's. */
const isStandardModule = (code: string): boolean =>
  /(?:^|[;}])\s*(?:import\s*[\w$*{'"]|export\s*[\w*{])/m.test(code);

/**
 * Compiles a package's ES module to CommonJS. Such files may be large. If esbuild is installed, as it is with
 * Angular and Vite, it is used because it is a dozen times faster.
 */
export function fromStandard(code: string, file: string, options: TransformOptions): Transformed {
  if (!isStandardModule(code) || options.supportsStaticESM) return { code, map: null };
  const built = esbuild(file)?.transformSync(code, {
    format: 'cjs',
    target: 'node20',
    loader: 'js',
    supported: { 'dynamic-import': false },
    ...(readsMeta(code) && { define: metaOf(file) }),
  });
  // A remaining source map comment would be taken for a map of the compiled file.
  if (built) return { code: built.code.replace(/\n\/\/# sourceMappingURL=.*\s*$/, '\n'), map: null };
  return transpile(typescript(file), code, file.replace(/\.mjs$/, '.js'), options);
}

interface Esbuild {
  transformSync(code: string, options: object): { readonly code: string };
}

function esbuild(from: string): Esbuild | undefined {
  try {
    return createRequire(from)('esbuild') as Esbuild;
  } catch {
    return undefined;
  }
}
