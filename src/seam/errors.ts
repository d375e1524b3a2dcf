import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list, print } from '../core/print';

/** Failures of swapping what modules export. */
export const registry = {
  'SIM-SEAM-MISSING': (f: { asked: string; runner: string; line: string }): Report => ({
    head: `${f.asked} was used in a file that was not rewritten, so no module's exports can be swapped from here.`,
    there: ['Only files that are rewritten while they load can have their imports swapped.'],
    next: [`One line is missing in ${f.runner}:`, f.line],
  }),
  'SIM-SEAM-PRESET': (f: { preset: string; from: string; places: string[] }): Report => ({
    head: `The preset "${f.preset}" of the Jest configuration cannot be loaded from ${f.from}.`,
    there: [`Looked for: ${list(f.places)}. Without it, its transformers would be missing.`],
    next: ['Install the preset, correct its name, or give the configuration its   rootDir: __dirname'],
  }),
  'SIM-SEAM-UNLOADED': (f: { specifier: string; importer: string }): Report => ({
    head: `${fileOf(f.importer)} used something of "${f.specifier}" before that module was loaded.`,
    there: [
      'Either the two modules import each other and need each other while they load, or the module is swapped in part and something else of it is used.',
    ],
    next: ['Use it in a function that is called later, or add it to the swap.'],
  }),
  'SIM-SWAP-MODULE': (f: { value: unknown }): Report => ({
    head: `swap() was given ${print(f.value)} where a module has to be named.`,
    nearest: `swap(() => import('${typeof f.value === 'string' ? f.value : '…'}'), { … })`,
    next: ['Write the import in a function without parameters. It is not called, so nothing is loaded.'],
  }),
  'SIM-SWAP-EXPORTS': (f: { value: unknown; specifier: string }): Report => ({
    head: `swap() was given ${print(f.value)} for the exports of "${f.specifier}".`,
    there: ['It takes an object with the exports by name, each with its replacement or answer.'],
    nearest: `swap(() => import('${f.specifier}'), { … })`,
    next: ["To refuse all of the module:   swap(load, {}, { rest: 'refused' })"],
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
      "or remove   rest: 'refused'   to keep the rest real.",
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
        ? 'A lazy component, a route or a deferred block keeps what it has loaded, so a later swap has no effect on it.'
        : 'A module keeps what it reads while it loads, so a later swap has no effect on it.',
    ],
    next: f.loads
      ? [
          'Create the swap once, outside of the tests, and pass the same one to each test,',
          'or move the test to a file of its own, which loads its modules again.',
        ]
      : f.earlier
        ? [
            f.isSwapped
              ? 'Create the swap once, outside of the tests, and pass the same one to each test,'
              : 'Pass the swap of the earlier test to this test too,',
            'or move the tests to separate files, which load their modules again.',
          ]
        : [
            `Load the subject after the swap:   isolate(() => import('${f.specifier ?? '…'}'), …)`,
            'and do not import it elsewhere in the test; or move the test to a file of its own.',
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
      : ['Only files of the project are rewritten, so imports inside packages are not affected.'],
    nearest: f.nearest && `{ ${f.nearest}: … }`,
    next: ['Correct it, or remove it: this swap has no effect.'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);

/** The name of a file out of its path or address. */
const fileOf = (path: string): string => path.split(/[\\/]/).at(-1) ?? path;
