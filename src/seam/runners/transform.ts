import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { rewrite, type Rewritten } from '../rewrite/rewrite';
import { chain, type Transformed } from './maps';
import { isOwnFile, namesFrom } from './rewrite-file';

/*
 * A transformer for Jest around another one: rewrites the file as it was written, has the other one
 * turn it into what runs, and makes one map of both.
 */

interface Options {
  readonly supportsStaticESM?: boolean;
  readonly config: { readonly rootDir: string };
  /** For a transformer that has to take a file apart first: rewrites a part of it. */
  readonly seam?: (code: string, file: string) => Rewritten | undefined;
}
interface Transformer {
  readonly canInstrument?: boolean;
  process?(code: string, file: string, options: Options): Transformed;
  processAsync?(code: string, file: string, options: Options): Promise<Transformed>;
  getCacheKey?(code: string, file: string, options: Options): string;
  getCacheKeyAsync?(code: string, file: string, options: Options): Promise<string>;
}
interface Around {
  readonly transformer: string;
  readonly options: object;
}

let own: string | undefined;
const keyOf = (...parts: readonly string[]) => {
  own ??= readFileSync(__filename, 'utf8');
  return createHash('sha1')
    .update([own, ...parts].join('\0'))
    .digest('hex');
};

export function createTransformer({ transformer, options: inside }: Around) {
  let inner: Transformer | undefined;
  const loadInner = ({ config: { rootDir } }: Options): Transformer => {
    if (inner) return inner;
    const path = transformer.replace('<rootDir>', rootDir);
    const loaded = createRequire(join(rootDir, 'package.json'))(path) as Record<string, unknown>;
    const made = (loaded['default'] ?? loaded) as Transformer & {
      createTransformer?(options: object): Transformer;
    };
    return (inner = made.createTransformer?.(inside) ?? made);
  };
  const forInner = (options: Options): Options => ({
    ...options,
    ...{ transformerConfig: inside },
    seam: (code, file) => rewriteFor(code, file, options),
  });
  return {
    get canInstrument() {
      return inner?.canInstrument ?? false;
    },
    process(code: string, file: string, options: Options): Transformed {
      const rewritten = rewriteOwn(code, file, options);
      const result = loadInner(options).process!(rewritten?.code ?? code, file, forInner(options));
      return rewritten ? chain(result, rewritten, file) : result;
    },
    async processAsync(code: string, file: string, options: Options): Promise<Transformed> {
      const { processAsync, process } = loadInner(options);
      const rewritten = rewriteOwn(code, file, options);
      const work = (processAsync ?? process)!.bind(inner);
      const result = await work(rewritten?.code ?? code, file, forInner(options));
      return rewritten ? chain(result, rewritten, file) : result;
    },
    getCacheKey(code: string, file: string, options: Options): string {
      const key = loadInner(options).getCacheKey?.(code, file, forInner(options));
      const handedOn = options.supportsStaticESM ? namesHandedOn(code, file) : '';
      return keyOf(key ?? JSON.stringify(inside), code, file, String(options.supportsStaticESM), handedOn);
    },
  };
}

// The output contains the names of `export *`, which come from other files.
const namesHandedOn = (code: string, file: string): string =>
  [...code.matchAll(/\bexport\s*\*\s*from\s*['"]([^'"]+)['"]/g)]
    .map(([, specifier]) => namesFrom(file)(specifier!)?.join())
    .join('\0');

const ours = __dirname;

const isScript = (file: string) => /\.[cm]?[jt]sx?$/.test(file);

// A file that is not a script is split by its own transformer, which asks us to rewrite its script.
const rewriteOwn = (code: string, file: string, options: Options) =>
  isScript(file) ? rewriteFor(code, file, options) : undefined;

function rewriteFor(
  code: string,
  file: string,
  { supportsStaticESM = false }: Options,
): Rewritten | undefined {
  if (!isOwnFile(file, ours)) return undefined;
  return rewrite(code, file, {
    form: supportsStaticESM ? 'module' : 'commonjs',
    runtime: supportsStaticESM ? pathToFileURL(join(ours, 'seam.js')).href : join(ours, 'seam.cjs'),
    namesOf: namesFrom(file),
  });
}
