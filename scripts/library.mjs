// Builds the library itself. What the entries have in common is in files they share, so that a test file
// that uses several of them reads it once. In CommonJS, which test runners evaluate anew for every test
// file, what not every test needs is read when it is first used.
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import { transform } from 'esbuild';
import { rollup } from 'rollup';

/** The parts that are read when they are first used, and the sources each is made of. */
const late = {
  wording:
    /^(?:(?:stage|page|network|seam|states|arrivals)\/errors(?:\/\w+)?|core\/errors\/(?:index|word|doubles|steps)|core\/(?:near|print|origin)|seam\/exports|network\/near-route|page\/(?:explain|nearby|lacking|likeness|describe|perceived)|stage\/(?:thrown|outline))\.ts$/,
  types: /^(?:stage\/package-provider|core\/typescript)\.ts$/,
  features: /^page\/features\/\w+\.ts$/,
  gestures: /^(?:page\/gestures\/\w+|stage\/gestures)\.ts$/,
  looking:
    /^(?:page\/(?:aria|names|query|roles|hidden|looking|labels|flat-tree|spacing|styles|generated|states|descriptions|summary|features\/top-layer)|stage\/(?:look|parts|verdicts))\.ts$/,
  answering:
    /^(?:core\/(?:settle-answer|score|observable)|network\/(?:reply|reply-bodies|respond|arrive|routes|route-index|patterns|print-address))\.ts$/,
  graphql: /^network\/(?:graphql|contract)\/\w+\.ts$/,
  wire: /^network\/(?:wire\/\w+|carried)\.ts$/,
  arrivals: /^arrivals\/(?!errors)[\w-]+\.ts$/,
  states: /^(?:states\/(?!errors|sets)\w+|jest\/(?:looks|branches))\.ts$/,
  time: /^(?:stage\/(?:time|waiting)|core\/(?:spans|virtual-clock)|page\/globals\/(?:zone|scheduled))\.ts$/,
  settings: /^(?:page\/settings\/(?:settings|language)|stage\/(?:page|accessible))\.ts$/,
  stage:
    /^(?:stage\/(?!install|subject)[\w-]+|page\/(?:history|settings\/kept)|network\/network|seam\/(?:place|thunk|kinds|uses))\.ts$/,
};
/** What is read at once, beside the entries themselves. */
const early = {
  seams: /^seam\/(?:open|open-standard|link|view)\.ts$/,
  core: /^(?:core|page|network|stage|seam|states|arrivals)\/.*\.ts$/,
};
const groups = Object.entries({ ...late, ...early });
const entryFile = /^(?:index|\w+\/index|jest\/(?!looks|branches)\w+)\.ts$/;

function partOf(id) {
  const source = id.replaceAll('\\', '/').split('/src/').at(-1);
  const [name] = groups.find(([, sources]) => sources.test(source)) ?? [];
  return entryFile.test(source) ? undefined : name;
}

const sources = {
  name: 'sources',
  resolveId(id, from) {
    if (from && !id.startsWith('.')) return undefined;
    const path = from ? resolve(dirname(from), id) : resolve(id);
    return [path, `${path}.ts`, `${path}/index.ts`].find((file) => file.endsWith('.ts') && existsSync(file));
  },
  async load(id) {
    const written = await readFile(id, 'utf8');
    return (await transform(written, { loader: 'ts', target: 'es2022', sourcefile: id })).code;
  },
};

// A test runner reads these files again for every test file. The names in the entries stay, so that what
// frameworks tell of their components can be read.
const small = {
  name: 'small',
  async renderChunk(written, { fileName }) {
    const { code } = await transform(written, {
      minifyWhitespace: true,
      minifySyntax: true,
      minifyIdentifiers: fileName.startsWith('parts/'),
      legalComments: 'none',
      target: 'es2022',
    });
    return { code, map: null };
  },
};

// A runner's own require() refuses what is asked for between two tests, and may begin anew with a second
// copy of all: a part is evaluated by the core that asks for it, at any moment, beside the files that were
// read with this very core.
const loader = `
const partsRead = { core: exports };
const filesOfParts = { ${Object.keys(late).map((name) => `'${name}': () => require('./${name}.cjs')`)} };
const onUse = (name) => new Proxy({}, { get: (_, key) => (partsRead[name] ?? readPart(name))[key] });
function readPart(name) {
  const evaluate = evaluatorOf(name);
  if (!evaluate) return (partsRead[name] = filesOfParts[name]());
  const part = {};
  evaluate(part, (file) => partsRead[file.slice(2, -4)] ?? require(file));
  return (partsRead[name] = part);
}
function evaluatorOf(name) {
  try {
    const file = __dirname + '/' + name + '.cjs';
    const code = globalThis.process.getBuiltinModule('node:fs').readFileSync(file, 'utf8');
    return Function('exports', 'require', code + '\\n//# sourceURL=' + file);
  } catch {
    return undefined;
  }
}
exports.onUse = onUse;
exports.partsRead = partsRead;
`;
const askedFor = /= require\('\.\/(?:parts\/)?([\w-]+)\.cjs'\)/g;
// What is imported when it is needed.
const asked = /return require\('\.\/(?:parts\/)?([\w-]+)\.cjs'\)/g;
const coreAskedFor = /^var ([\w$]+) = require\('\.\/(?:parts\/)?core\.cjs'\);\n/m;
const readLate = {
  name: 'read-late',
  renderChunk(code, { name }) {
    if (name in late) refuseOthers(name, code);
    const [line, core] = coreAskedFor.exec(code) ?? [withCore(name, code), 'core'];
    const ask = name === 'core' ? 'onUse' : `${core}.onUse`;
    const done = code
      .replace(line, '')
      .replace(asked, (all, part) => (part in late ? `return ${ask}('${part}')` : all))
      .replace(askedFor, (all, part) => (part in late ? `= ${ask}('${part}')` : all));
    const prelude = name === 'core' ? loader : line;
    return { code: done.replace("'use strict';", () => `'use strict';${prelude}`), map: null };
  },
};
// A part that needs nothing of the core itself finds the other parts by it all the same.
const withCore = (name, code) =>
  name in late && code.search(askedFor) >= 0 ? "var core = require('./core.cjs');\n" : '';
// What is read late finds only what is told of in the core.
function refuseOthers(name, code) {
  for (const [, part] of code.matchAll(askedFor))
    if (!(part in late) && part !== 'core') throw new Error(`${name} needs ${part}`);
}

/** Writes the entries, and what they share, in both formats. */
export async function buildLibrary(entries, external, dir) {
  const bundle = await rollup({
    input: entries,
    external,
    plugins: [sources],
    // The parts need each other, and none before all are there.
    onLog: (level, log, tell) => log.code !== 'CIRCULAR_CHUNK' && tell(level, log),
    treeshake: {
      moduleSideEffects: (id, isOutside) =>
        isOutside || entryFile.test(id.split('/src/').at(-1)) || /bridge\.ts$/.test(id),
    },
  });
  const write = (format, ending, options) =>
    bundle.write({
      dir,
      format,
      hoistTransitiveImports: false,
      entryFileNames: `[name].${ending}`,
      chunkFileNames: `parts/[name].${ending}`,
      paths: { 'urlpattern-polyfill/urlpattern': `./url-pattern.${ending}` },
      ...options,
    });
  await write('esm', 'js', { plugins: [small] });
  await write('cjs', 'cjs', {
    // In a CommonJS runner a native import() would leave the runner's own module registry.
    dynamicImportInCjs: false,
    // What is imported as a whole is read as it is, not by way of a copy.
    interop: 'esModule',
    externalLiveBindings: false,
    manualChunks: partOf,
    onlyExplicitManualChunks: true,
    plugins: [readLate, small],
  });
  await bundle.close();
}
