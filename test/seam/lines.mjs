// Rewrites the lines it is given, each as a file of its own, and prints them as JSON.
import { rewrite } from './rewriter.mjs';

const options = { form: 'commonjs', runtime: 'runtime' };
const out = process.argv.slice(2).map((code) => rewrite(code, 'file.tsx', options)?.code ?? code);
console.log(JSON.stringify({ out }));
