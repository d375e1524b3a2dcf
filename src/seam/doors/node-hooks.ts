import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { rewrite } from '../rewrite/rewrite';
import { exportNamesOf, findFile, isOwnFile } from './rewrite-file';

interface Loaded {
  readonly format: string;
  readonly source?: string | Uint8Array | null;
  readonly shortCircuit?: boolean;
}

const ours = dirname(fileURLToPath(import.meta.url));
const runtime = new URL('./seam.js', import.meta.url).href;

/** Rewrites a standard module of the project. @see https://nodejs.org/api/module.html#hooks */
export async function load(
  url: string,
  context: object,
  nextLoad: (url: string, context: object) => Promise<Loaded>,
): Promise<Loaded> {
  const loaded = await nextLoad(url, context);
  if (loaded.format !== 'module' || !loaded.source || !url.startsWith('file:')) return loaded;
  const file = fileURLToPath(url.replace(/[?#].*$/, ''));
  if (!isOwnFile(file, ours)) return loaded;
  const code = typeof loaded.source === 'string' ? loaded.source : Buffer.from(loaded.source).toString();
  const namesOf = (specifier: string) => exportNamesOf(findFile(specifier, file));
  // By now it is JavaScript, whatever it was written in.
  const rewritten = rewrite(code, file.replace(/\.[cm]?tsx?$/, '.js'), { form: 'module', runtime, namesOf });
  return rewritten ? { ...loaded, source: rewritten.code } : loaded;
}
