// Rewrites packages as a whole, in both forms, and uses them. Prints what came of it as JSON.
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { transformSync } from 'esbuild';
import { rewrite } from './rewriter.mjs';

let looked = 0;

/** Writes the sources of a package anew, as its author wrote them, rewritten. @returns how many files */
function rewriteSources(source, target) {
  rmSync(target, { recursive: true, force: true });
  let files = 0;
  for (const name of readdirSync(source, { recursive: true })) {
    const file = join(source, name);
    if (!/\.tsx?$/.test(file) || /\.(d|spec|stories)\.tsx?$/.test(name)) continue;
    const code = readFileSync(file, 'utf8');
    const options = { form: 'commonjs', runtime: resolve('dist/seam.cjs') };
    const rewritten = rewrite(code, file, options)?.code ?? code;
    const out = join(target, name.replace(/\.tsx?$/, '.js'));
    mkdirSync(dirname(out), { recursive: true });
    const loader = file.endsWith('x') ? 'tsx' : 'ts';
    writeFileSync(out, transformSync(rewritten, { format: 'cjs', loader, jsx: 'automatic' }).code);
    files++;
  }
  writeFileSync(join(target, 'package.json'), '{ "type": "commonjs" }');
  return files;
}

/** Loads the sources of a package rewritten, and tells what they export that the package itself does not. */
function loadSources(name) {
  const files = rewriteSources(`node_modules/${name}/src`, target(name));
  // What only a type is exported as is there by its name, and nothing.
  const namesIn = (module) => Object.keys(module).filter((key) => module[key] !== undefined);
  const exports = namesIn(require(join(target(name), 'index.js')));
  const own = namesIn(require(name));
  const differing = [
    ...exports.filter((key) => !own.includes(key)),
    ...own.filter((key) => !exports.includes(key)),
  ];
  return { files, exports: exports.length, differing };
}

/** Writes a package's standard modules anew, rewritten. */
function rewriteAll(source, target, form) {
  rmSync(target, { recursive: true, force: true });
  const runtime = form === 'module' ? pathToFileURL(resolve('dist/seam.js')).href : resolve('dist/seam.cjs');
  for (const name of readdirSync(source, { recursive: true })) {
    const file = join(source, name);
    if (!/\.js$/.test(file)) continue;
    const code = readFileSync(file, 'utf8').replace(/\/\/# sourceMappingURL.*/, '');
    const rewritten = rewrite(code, file, { form, runtime, namesOf: namesFrom(file) })?.code ?? code;
    looked += rewritten.split('$seam.link').length - 1;
    const out = join(target, name);
    mkdirSync(dirname(out), { recursive: true });
    writeFileSync(out, form === 'module' ? rewritten : transformSync(rewritten, { format: 'cjs' }).code);
  }
  writeFileSync(join(target, 'package.json'), JSON.stringify({ type: form }));
}

// As a door finds them: by the text of the file that is meant.
const namesFrom = (importer) => (specifier) => {
  const file = join(dirname(importer), specifier);
  if (!existsSync(file)) return undefined;
  return [...readFileSync(file, 'utf8').matchAll(/^ {2}(\w+),?$/gm)].map(([, name]) => name);
};

async function useQueries({ QueryClient, QueryObserver, MutationObserver, hashKey }) {
  const client = new QueryClient();
  const queryFn = ({ queryKey: [, yard] }) => Promise.resolve([`Anemone of ${yard}`]);
  const observer = new QueryObserver(client, { queryKey: ['hives', 'north'], queryFn });
  const told = [];
  const stop = observer.subscribe(({ status }) => told.push(status));
  await client.fetchQuery({ queryKey: ['hives', 'south'], queryFn });
  const mutation = new MutationObserver(client, { mutationFn: (varroa) => Promise.resolve(varroa * 2) });
  const doubled = await mutation.mutate(4);
  stop();
  const south = client.getQueryData(['hives', 'south']);
  client.clear();
  return { told: told.at(-1), south, doubled, key: hashKey([{ b: 1, a: 2 }]) };
}

async function useStreams({
  of,
  interval,
  map,
  mergeMap,
  take,
  toArray,
  retry,
  defer,
  throwError,
  lastValueFrom,
}) {
  let tries = 0;
  const flaky = defer(() => (++tries < 3 ? throwError(() => new Error('swarming')) : of('settled')));
  const weights = of(1, 2, 3).pipe(
    mergeMap((kilograms) =>
      interval(1).pipe(
        take(2),
        map((turn) => kilograms * 10 + turn),
      ),
    ),
    toArray(),
  );
  return {
    weights: (await lastValueFrom(weights)).sort(),
    settled: await lastValueFrom(flaky.pipe(retry(3))),
  };
}

const require = createRequire(import.meta.url);
const queries = 'node_modules/@tanstack/query-core/build/modern';
const target = (name) => resolve('.cache/whole', name);
rewriteAll(queries, target('queries'), 'module');
rewriteAll(queries, target('queries-common'), 'commonjs');
rewriteAll('node_modules/rxjs/dist/esm', target('streams'), 'commonjs');
const seen = {
  queries: await useQueries(await import(pathToFileURL(join(target('queries'), 'index.js')).href)),
  queriesCommon: await useQueries(require(join(target('queries-common'), 'index.js'))),
  streams: await useStreams(require(join(target('streams'), 'index.js'))),
  sources: ['ra-core', '@tanstack/react-query', 'rxjs'].map(loadSources),
};
console.log(JSON.stringify({ ...seen, looked }));
process.exit(0);
