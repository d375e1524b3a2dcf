// Rewrites some hundred files of installed packages, and compares every reference to an import with
// what another scope analysis finds. Prints what it saw as JSON.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { analyze } from '@typescript-eslint/scope-manager';
import { parse } from '@typescript-eslint/parser';
import { parseSync } from 'oxc-parser';
import { findReferences, rewrite } from './rewriter.mjs';

const packages = [
  '@mui/material',
  '@tanstack/query-core/src',
  '@tanstack/react-query/src',
  '@tanstack/vue-query/src',
  'react-router/dist/development',
  'rxjs/src/internal',
  'vue-router/dist',
  '@angular/router/fesm2022',
  'ra-core/src',
  'ra-ui-materialui/src',
  'reka-ui/src',
];
const skipped =
  /__cjs|testing|__mocks__|stories|\.d\.[cm]?ts$|\.(test|spec|test-d)\.|__tests__|\.min\.|node_modules/;
const files = packages
  .flatMap((name) => {
    const root = join('node_modules', name);
    return readdirSync(root, { recursive: true }).map((file) => join(root, file));
  })
  .filter((file) => /\.([cm]?[jt]s|tsx)$/.test(file) && !skipped.test(file.slice('node_modules'.length)))
  // Of a file in two forms, only the standard one.
  .filter((file) => !file.endsWith('.js') || !existsSync(file.replace(/\.js$/, '.mjs')))
  // The other analysis takes long: a third of them is seen, or all.
  .filter((_, at) => process.env.EVERY_FILE || at % 3 === 0);

function rangesOf(node, type) {
  if (typeof node !== 'object' || node === null) return [];
  const own = node.type === type ? [node.range] : [];
  return [...own, ...Object.values(node).flatMap((child) => rangesOf(child, type))];
}

/** The places another analysis finds, of everything that is imported, and not only for its type. */
function expected(code, file) {
  const ast = parse(code, {
    range: true,
    sourceType: 'module',
    ecmaFeatures: { jsx: !/\.[cm]?ts$/.test(file) },
    filePath: file,
  });
  const scopes = analyze(ast, { sourceType: 'module', jsxPragma: null, jsxFragmentName: null });
  const module = scopes.globalScope.childScopes[0];
  const queries = /\.tsx?$/.test(file) ? rangesOf(ast, 'TSTypeQuery') : [];
  const names = new Set();
  const places = [];
  for (const variable of module?.variables ?? []) {
    if (!variable.defs.some(({ type }) => type === 'ImportBinding')) continue;
    names.add(variable.name);
    for (const reference of variable.references) {
      const [start] = reference.identifier.range;
      // The other analysis calls the name in `typeof name`, as a type, a value: nothing is read there.
      const isType = queries.some(([from, to]) => from <= start && start < to);
      if (reference.isValueReference && reference.isRead() && !isType)
        places.push(`${variable.name}@${start}`);
    }
  }
  return { names, places: [...new Set(places)].sort() };
}

const seen = { files: 0, references: 0, differences: [], broken: [], unread: [] };
for (const file of files) {
  const code = readFileSync(file, 'utf8');
  const parsed = parseSync(file, code, { preserveParens: false });
  if (parsed.errors.length > 0) {
    seen.unread.push(file);
    continue;
  }
  const { names, places } = expected(code, file);
  if (names.size === 0) continue;
  const { references } = findReferences(parsed.program, names, false);
  const found = references.filter(({ use }) => use !== 'typed').map(({ name, start }) => `${name}@${start}`);
  const ours = [...new Set(found)].sort();
  seen.files++;
  seen.references += places.length;
  const more = ours.filter((place) => !places.includes(place));
  const fewer = places.filter((place) => !ours.includes(place));
  if (more.length + fewer.length > 0) seen.differences.push({ file, more, fewer });
  for (const form of ['commonjs', 'module']) {
    const rewritten = rewrite(code, file, { form, runtime: 'simulacra/seam' });
    const again = rewritten ? parseSync(file, rewritten.code) : { errors: [] };
    const lines = (text) => text.split('\n').length;
    if (again.errors.length > 0 || (rewritten && lines(rewritten.code) !== lines(code)))
      seen.broken.push({ file, form, error: again.errors[0]?.message ?? 'lines have moved' });
  }
}
console.log(JSON.stringify(seen));
