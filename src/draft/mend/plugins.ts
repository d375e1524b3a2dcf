import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { packageOf } from '../../survey/project';
import type { Draft } from '../model';
import { textsOf, type Known } from '../plan';
import type { FailureSeen } from '../run/observed';
import { code, type Needed } from '../value';
import { type Mended, addWrapper, writes } from './mended';

/** A plugin that gives every component what this one reads of `this`: the project's own, or a package's. */
export function addPlugin(
  known: Known,
  { given, framework }: Draft,
  failure: FailureSeen,
): Mended | undefined {
  if (framework !== 'vue') return undefined;
  const asked = new Set([...namesThrown(failure), ...namesAsked(known)]);
  if (asked.size === 0) return undefined;
  for (const plugin of [...ownPlugins(known, asked), ...packagePlugins(known, asked)]) {
    if (given.wrap.some((one) => writes(one) === plugin.local)) continue;
    return addWrapper(given, code(plugin.local ?? plugin.name, plugin), `the plugin of ${plugin.of}`);
  }
  return undefined;
}

type Plugin = Needed & { readonly of: string };

/** `$yard` where `this.$yard.name` threw, in the files that it was thrown through. */
function namesThrown({ thrown, stack = '' }: FailureSeen): readonly string[] {
  const property = thrown?.property ?? /\(reading '(\w+)'\)/.exec(thrown?.message ?? stack)?.[1];
  if (property === undefined) return [];
  const files = [...stack.matchAll(/\(?((?:\/|[A-Z]:\\)[^():]+\.\w+):\d+:\d+\)?/g)].map(([, file]) => file!);
  const read = new RegExp(`(\\$[a-z]\\w+)\\??\\.${property}\\b`, 'g');
  return [...new Set(files.slice(0, 8))]
    .filter((file) => existsSync(file))
    .flatMap((file) => [...readFileSync(file, 'utf8').matchAll(read)].map(([, name]) => name!));
}

/** `$yard` of `this.$yard`, in the files that the component is made of. */
const namesAsked = (known: Known): readonly string[] =>
  textsOf(known).flatMap((source) => [...source.matchAll(/\$[a-z]\w+/gi)].map(([name]) => name));

const isGiven = (source: string, asked: ReadonlySet<string>): string | undefined =>
  /\binstall\b/.test(source)
    ? [...source.matchAll(/globalProperties\.(\$\w+)\s*=/g)]
        .map(([, name]) => name!)
        .find((name) => asked.has(name))
    : undefined;

const localOf = (name: string) => `${name.charAt(1).toUpperCase()}${name.slice(2)}`;

const ownPlugins = ({ survey: { project } }: Known, asked: ReadonlySet<string>): readonly Plugin[] =>
  project.list().flatMap((file) => {
    const source = readFileSync(file, 'utf8');
    const name = isGiven(source, asked);
    return name && /export default/.test(source)
      ? [{ name: 'default', local: localOf(name), from: file, of: name }]
      : [];
  });

/** Entries of the packages that the project's own files import. */
function packagePlugins({ survey: { project } }: Known, asked: ReadonlySet<string>): readonly Plugin[] {
  const entries = new Map<string, string>();
  const known = new Set<string>();
  for (const file of project.list())
    for (const { specifier } of project.facts(file).imports) {
      const target = project.resolve(file, specifier);
      if (target.kind !== 'package' || target.entry === undefined) continue;
      entries.set(specifier, target.entry);
      if (known.has(packageOf(specifier))) continue;
      known.add(packageOf(specifier));
      for (const other of siblingsOf(packageOf(specifier), target.entry)) {
        const found = project.resolve(file, other);
        if (found.kind === 'package' && found.entry !== undefined) entries.set(other, found.entry);
      }
    }
  return [...entries].flatMap(([specifier, entry]) => {
    const source = readFileSync(entry, 'utf8');
    const name = isGiven(source, asked);
    return name && /export default|as default\b/.test(source)
      ? [{ name: 'default', local: localOf(name), from: specifier, of: name }]
      : [];
  });
}

/** Other entries of a package: those that it lists, and its folders where it lends all of them. */
function siblingsOf(name: string, entry: string): readonly string[] {
  for (let folder = dirname(entry); folder !== dirname(folder); folder = dirname(folder)) {
    const { name: called, exports = {} } = readManifest(join(folder, 'package.json'));
    if (called !== name) continue;
    const listed = typeof exports === 'object' ? Object.keys(exports) : [];
    const folders = listed.includes('./*') ? foldersIn(folder) : [];
    return [...listed.filter((one) => one.startsWith('.') && !one.includes('*')), ...folders]
      .slice(0, mostEntries)
      .map((one) => `${name}${one.slice(1)}`);
  }
  return [];
}

const mostEntries = 100;

const foldersIn = (folder: string): readonly string[] =>
  readdirSync(folder, { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map((entry) => `./${entry.name}`);

interface Manifest {
  readonly name?: string;
  readonly exports?: object | string;
}

function readManifest(file: string): Manifest {
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Manifest) : {};
}
