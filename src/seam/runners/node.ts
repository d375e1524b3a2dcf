import Module, { register } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { rewrite } from '../rewrite/rewrite';
import { isOwnFile } from './rewrite-file';

/* For Node's own runner: `node --import simulacra/seam/node --test`. Files are rewritten as they are loaded. */

register(new URL('./seam-node-hooks.js', import.meta.url));

const ours = dirname(fileURLToPath(import.meta.url));
const prototype = Module.prototype as unknown as {
  _compile(code: string, file: string, ...rest: unknown[]): unknown;
};
const compile = prototype._compile;

// The hooks see standard modules only; a CommonJS one is handed to this, whoever asks for it.
// The other arguments say how to read the module: Node marks a standard module with them.
prototype._compile = function (code, file, ...rest) {
  const runtime = join(ours, 'seam.cjs');
  const isStandard = rest[0] === 'module';
  const rewritten =
    isOwnFile(file, ours) && !isStandard ? rewrite(code, file, { form: 'commonjs', runtime }) : undefined;
  return compile.call(this, rewritten?.code ?? code, file, ...rest);
};
