import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { rewrite } from '../rewrite/rewrite';
import { carryOn, inlineMapOf, makeLineReader } from './maps';
import { isOwnFile, namesFrom } from './rewrite-file';

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
  // By now the source is JavaScript, whatever it was written in.
  const before = inlineMapOf(code);
  const lineOf = makeLineReader(() => before);
  const script = file.replace(/\.[cm]?tsx?$/, '.js');
  const rewritten = rewrite(code, script, { form: 'module', runtime, namesOf: namesFrom(file), lineOf });
  if (!rewritten) return loaded;
  return { ...loaded, source: before ? carryOn(before, rewritten, file) : rewritten.code };
}
