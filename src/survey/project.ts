import { hash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { basename, dirname, extname, join, relative, sep } from 'node:path';
import { isBuiltin } from 'node:module';
import type * as Oxc from 'oxc-resolver';
import { requirePackage } from '../syntax/parser';
import { readAliases } from './aliases';
import type { FactsCache } from './cache';
import type { FileFacts } from './facts';
import { isSource, parseLater, readFacts, type Parsed } from './read/file';

/** Where an import leads. */
export type Target =
  | { readonly kind: 'file'; readonly file: string }
  | {
      readonly kind: 'package';
      readonly name: string;
      readonly entry?: string;
      /** Why it is not there. */
      readonly why?: string;
    }
  /** Styles, pictures, data: nothing that has parts of its own. */
  | { readonly kind: 'asset' }
  | { readonly kind: 'nowhere' };

const notThere = 'no package of that name is installed, and no alias leads to a file';

/** How many files are parsed ahead of what is read. */
const atOnce = 64;
// A file that is longer is made by a machine.
const most = 5_000_000;
/** Declarations, tests and declared states are no part of what is surveyed. */
const extensions = ['.tsx', '.ts', '.jsx', '.js', '.mts', '.mjs', '.cts', '.cjs', '.vue', '.json'];
const ofTests = /\.(d|test|spec|states|stories|config)\.[cm]?[jt]sx?$/;
const passedBy = /^(node_modules|dist|build|coverage|out|__tests__|\..*)$/;
const asset =
  /\.(css|s[ac]ss|less|styl|svg|png|jpe?g|gif|webp|avif|ico|woff2?|ttf|json5?|ya?ml|md|txt|graphql|gql|html|wasm|mp[34])$/;
interface Unread {
  readonly key: string;
  readonly text: string;
}

/** The source files of a project: what each says, and where its imports lead. */
export class Project {
  readonly #facts = new Map<string, FileFacts>();
  readonly #targets = new Map<string, Map<string, Target>>();
  readonly #names = new Map<string, string>();
  readonly #lists = new Map<string, readonly string[]>();
  readonly #listed = new Set<string>();
  readonly #resolver: Oxc.ResolverFactory;
  readonly #ofTypes: Oxc.ResolverFactory;

  constructor(
    readonly root: string,
    /** The folder that names of files begin from. */
    readonly from: string,
    readonly cache: FactsCache,
  ) {
    const { ResolverFactory } = requirePackage<typeof Oxc>('oxc-resolver');
    const options = {
      tsconfig: 'auto',
      alias: readAliases(root),
      extensions,
      extensionAlias: {
        '.js': ['.ts', '.tsx', '.js', '.jsx'],
        '.jsx': ['.tsx', '.jsx'],
        '.mjs': ['.mts', '.mjs'],
        '.cjs': ['.cts', '.cjs'],
      },
      conditionNames: ['browser', 'import', 'module', 'development', 'default', 'require'],
      mainFields: ['browser', 'module', 'main'],
    } satisfies Oxc.NapiResolveOptions;
    this.#resolver = new ResolverFactory(options);
    // A package that has nothing but types. Asked for with the others, types would come first where they are named first.
    this.#ofTypes = this.#resolver.cloneWithOptions({
      ...options,
      conditionNames: [...options.conditionNames, 'types'],
      mainFields: [...options.mainFields, 'types'],
    });
  }

  /** A path as people write it: from where they are, with slashes. */
  nameOf(file: string): string {
    let name = this.#names.get(file);
    if (name === undefined) this.#names.set(file, (name = pathWithin(this.from, file).split(sep).join('/')));
    return name;
  }

  /** Reads many files; a timer may fire between them, so that somebody can see how far it is. */
  async readAll(files: readonly string[], progress: (done: number) => void): Promise<void> {
    for (let at = 0; at < files.length; at += atOnce) {
      // What was parsed is read while others are parsed.
      await Promise.all(files.slice(at, at + atOnce).map((file) => this.#readLater(file)));
      progress(Math.min(at + atOnce, files.length));
      await new Promise((resolve) => setImmediate(resolve));
    }
  }

  async #readLater(file: string): Promise<void> {
    if (this.#facts.has(file)) return;
    const found = this.#open(file);
    const facts = 'text' in found ? this.#read(file, found, await parseLater(file, found.text)) : found;
    this.#facts.set(file, facts);
  }

  facts(file: string): FileFacts {
    const known = this.#facts.get(file);
    if (known) return known;
    const found = this.#open(file);
    const facts = 'text' in found ? this.#read(file, found) : found;
    this.#facts.set(file, facts);
    return facts;
  }

  /** What is known of a file already, or what is to be read. */
  #open(file: string): FileFacts | Unread {
    const text = readText(file);
    if (typeof text !== 'string') return text;
    const key = keyOf(file, text);
    return this.cache.take(key) ?? { key, text };
  }

  #read(file: string, { key, text }: Unread, parsed?: Parsed): FileFacts {
    const facts = readFacts(file, text, parsed);
    this.cache.keep(key, facts);
    return facts;
  }

  /** Where an import of a file leads. */
  resolve(file: string, written: string): Target {
    // It leads to the same from all files of a folder.
    const folder = dirname(file);
    const known = this.#targets.get(folder) ?? new Map<string, Target>();
    this.#targets.set(folder, known);
    let target = known.get(written);
    if (!target)
      known.set(written, (target = this.#resolve(file, written.replace(/[?#].*$/, '') || written)));
    return target;
  }

  #resolve(file: string, specifier: string): Target {
    const near = this.#near(file, specifier);
    if (near) return { kind: 'file', file: near };
    if (asset.test(specifier)) return { kind: 'asset' };
    if (/^(node:|data:|https?:|virtual:|\0)/.test(specifier)) return { kind: 'package', name: specifier };
    const path =
      this.#resolver.resolveFileSync(file, specifier).path ??
      this.#ofTypes.resolveFileSync(file, specifier).path;
    if (path && this.#isOwn(path)) return isSource(path) ? { kind: 'file', file: path } : { kind: 'asset' };
    if (!path && /^[./]/.test(specifier)) return { kind: 'nowhere' };
    if (!path && isBuiltin(specifier)) return { kind: 'package', name: specifier };
    return path
      ? { kind: 'package', name: specifier, entry: path }
      : { kind: 'package', name: specifier, why: notThere };
  }

  // Most imports name a file nearby, without its extension, that is known to be there.
  #near(file: string, specifier: string): string | undefined {
    if (!/^\.\.?\//.test(specifier) || extname(specifier) !== '') return undefined;
    const path = join(dirname(file), specifier);
    const extension = extensions.find((one) => this.#listed.has(path + one));
    return extension && path + extension;
  }

  /** The files that import something of another one. */
  importersOf(file: string): readonly string[] {
    return this.list().filter((one) =>
      this.facts(one).imports.some(({ specifier }) => {
        const target = this.resolve(one, specifier);
        return target.kind === 'file' && target.file === file;
      }),
    );
  }

  // The project itself may lie within a folder of that name.
  #isOwn(path: string): boolean {
    const inside = pathWithin(this.root, path);
    return !/(^|[\\/])node_modules[\\/]/.test(inside.startsWith('..') ? path : inside);
  }

  /** All source files below a folder, without what is installed, built or hidden. Links are not followed. */
  list(folder = this.root): readonly string[] {
    const known = this.#lists.get(folder);
    if (known) return known;
    const found: string[] = [];
    const look = (place: string) => {
      for (const entry of readdirSync(place, { withFileTypes: true })) {
        const path = join(place, entry.name);
        if (entry.isDirectory()) {
          if (!passedBy.test(entry.name)) look(path);
        } else if (entry.isFile() && isSource(entry.name) && !ofTests.test(entry.name)) found.push(path);
      }
    };
    look(folder);
    this.#lists.set(folder, found.sort());
    for (const file of found) this.#listed.add(file);
    return found;
  }
}

/** A path from a folder on; most are below it. */
const pathWithin = (folder: string, path: string): string =>
  path.startsWith(folder) && path[folder.length] === sep
    ? path.slice(folder.length + 1)
    : relative(folder, path);

const keyOf = (file: string, text: string): string => hash('sha1', `${basename(file)}\n${text}`, 'base64url');

/** The text of a file, or why there is none. */
function readText(file: string): string | FileFacts {
  const nothing = { imports: [], exports: [], units: [] };
  try {
    const text = readFileSync(file, 'utf8');
    if (text.length <= most) return text;
    return { ...nothing, unread: { why: `it has ${Math.round(text.length / 1e6)} MB`, line: 1 } };
  } catch (failure) {
    return { ...nothing, unread: { why: (failure as Error).message, line: 1 } };
  }
}

/** `@angular/common` of `@angular/common/http`. */
export const packageOf = (specifier: string): string =>
  specifier
    .split('/')
    .slice(0, specifier.startsWith('@') ? 2 : 1)
    .join('/');

/** The folder of the project that a place is in: the nearest with a package.json, or the place itself. */
export function findRoot(place: string): string {
  for (let folder = place; ; folder = dirname(folder)) {
    if (existsSync(join(folder, 'package.json'))) return folder;
    if (dirname(folder) === folder) return place;
  }
}
