import { basename } from 'node:path';
import { fromStandard, transpile, type Transformed, type TransformOptions } from './transformer';
import { typescript } from './typescript';

const isScript = /\.[cm]?[jt]sx?$/;
const isStyle = /\.(css|s[ac]ss|less|styl)$/;

/** What a file that is no code is to a script that imports it: its name, or the names of its classes. */
function processAsset(file: string): Transformed {
  if (!isStyle.test(file)) return { code: `module.exports = ${JSON.stringify(basename(file))};`, map: null };
  const isModule = /\.module\.\w+$/.test(file);
  const code = isModule
    ? "module.exports = new Proxy({}, { get: (_, name) => (name === '__esModule' ? false : name) });"
    : 'module.exports = {};';
  return { code, map: null };
}

/**
 * Compiles a file for Jest: the project's scripts (TypeScript, JSX, ES modules), packages that ship ES
 * modules, and files that are not code.
 *
 * @param jsxFrom where JSX has its functions from: `react`, `vue`
 */
export function processScript(
  code: string,
  file: string,
  options: TransformOptions,
  jsxFrom: string,
): Transformed {
  if (!isScript.test(file)) return processAsset(file);
  if (/node_modules/.test(file)) return fromStandard(code, file, options);
  const ts = typescript(file);
  return transpile(ts, code, file, options, {
    options: { jsx: ts.JsxEmit.ReactJSX, jsxImportSource: jsxFrom },
  });
}
