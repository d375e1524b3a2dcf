import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list, print } from '../core/print';

/** Failures of swapping what modules export. */
export const registry = {
  'SIM-SEAM-MISSING': (f: { asked: string; runner: string; line: string }): Report => ({
    head: `${f.asked} was used in a file that was not rewritten, so no module's exports can be swapped from here.`,
    there: ['What a module imports is looked up anew only where the file was rewritten as it was loaded.'],
    next: [`One line is missing in ${f.runner}:`, f.line],
  }),
  'SIM-SEAM-PARSER': (f: { from: string }): Report => ({
    head: `Rewriting modules needs the package "oxc-parser", which cannot be loaded from ${f.from}.`,
    there: ['Only projects that swap modules need it, so it does not come along by itself.'],
    next: ['Install it:   npm install --save-dev oxc-parser'],
  }),
  'SIM-SEAM-PRESET': (f: { preset: string; from: string; places: string[] }): Report => ({
    head: `The preset "${f.preset}" of the Jest configuration cannot be loaded from ${f.from}.`,
    there: [`Looked for: ${list(f.places)}. Its transformers would be lost without a word.`],
    next: ['Install the preset, correct its name, or give the configuration its   rootDir: __dirname'],
  }),
  'SIM-SEAM-UNLOADED': (f: { specifier: string; importer: string }): Report => ({
    head: `${fileOf(f.importer)} used something of "${f.specifier}" before that module was loaded.`,
    there: [
      'Either the two import each other and need one another while they are loaded, or the module was swapped in part, and something that was not named is used.',
    ],
    next: ['Use it in a function that is called later, or name it in the swap as well.'],
  }),
  'SIM-SWAP-MODULE': (f: { value: unknown }): Report => ({
    head: `swap() was given ${print(f.value)} where a module has to be named.`,
    nearest: `swap(() => import('${typeof f.value === 'string' ? f.value : '…'}'), { … })`,
    next: [
      'Write the import inside of a function without parameters; it is not called, so nothing is loaded.',
    ],
  }),
  'SIM-SWAP-EXPORTS': (f: { value: unknown; specifier: string }): Report => ({
    head: `swap() was given ${print(f.value)} for the exports of "${f.specifier}".`,
    there: ['It takes an object: the name of each export, and what it is or answers instead.'],
    nearest: `swap(() => import('${f.specifier}'), { … })`,
    next: ["To leave nothing of the module:   swap(load, {}, { rest: 'refused' })"],
  }),
  'SIM-SWAP-REFUSED': (f: {
    specifier: string;
    name: string;
    importer: string;
    given: string[];
  }): Report => ({
    head: `${fileOf(f.importer)} used "${f.name}" of "${f.specifier}", which this test has refused.`,
    there: [f.given.length ? `The swap names ${list(f.given)}.` : 'The swap names none of its exports.'],
    next: [
      `Name it:   swap(() => import('${f.specifier}'), { ${f.name}: … })`,
      "or leave the rest real by taking   rest: 'refused'   out.",
    ],
  }),
  'SIM-SWAP-TAKEN': (f: {
    name: string;
    by: string;
    line?: number | undefined;
    /** The module the file loads when it needs it, rather than imports. */
    loads?: string;
    earlier: boolean;
    isSwapped: boolean;
    /** How the test names the subject's module. */
    specifier?: string | undefined;
  }): Report => ({
    head: `${fileOf(f.by)}${f.line ? `, line ${f.line},` : ''} ${
      f.loads
        ? `loaded "${f.loads}" before this test swapped it, and did not load it again`
        : `took ${f.name === '*' ? 'all exports of a module' : `"${f.name}"`} while it was loaded`
    }${f.loads && !f.earlier ? '.' : `, and ${f.earlier ? 'an earlier test had something else in its place' : 'it was not swapped then'}.`}`,
    there: [
      f.loads
        ? 'A lazy component, a route or a deferred block keeps what it has loaded: a swap cannot change it any more.'
        : 'What a module takes while it is loaded it keeps: a swap cannot change it any more.',
    ],
    next: f.loads
      ? [
          'Make the swap once, outside of the tests, and give the same one to each of them,',
          'or put the test into a file of its own: each file loads its modules anew.',
        ]
      : f.earlier
        ? [
            f.isSwapped
              ? 'Make the swap once, outside of the tests, and give the same one to each of them,'
              : 'Give this test the swap of the earlier one,',
            'or put the tests into files of their own: each file loads its modules anew.',
          ]
        : [
            `Have the subject loaded after the swap:   isolate(() => import('${f.specifier ?? '…'}'), …)`,
            'and import it nowhere else in the test; or put the test into a file of its own.',
          ],
  }),
  'SIM-SWAP-UNUSED': (f: {
    specifier: string;
    name: string | undefined;
    importers: string[];
    imported: string[];
    nearest?: string | undefined;
  }): Report => ({
    head: f.importers.length
      ? `The swap of "${f.specifier}" names "${f.name}", which no module that was loaded imports.`
      : `The swap of "${f.specifier}" was never used: no module that was loaded imports it.`,
    there: f.importers.length
      ? [`${list(f.importers.map(fileOf))} imports ${list(f.imported)} from there.`]
      : ['What a package imports is its own affair; only files of the project itself are rewritten.'],
    nearest: f.nearest && `{ ${f.nearest}: … }`,
    next: ['Correct it, or take it out: a swap that changes nothing says nothing.'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);

/** The name of a file out of its path or address. */
const fileOf = (path: string): string => path.split(/[\\/]/).at(-1) ?? path;
