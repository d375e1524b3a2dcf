import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join, resolve } from 'node:path';
import type * as Sfc from 'vue/compiler-sfc';
import { keyOf, type TransformOptions } from './transformer';

/* What a single-file component is made of: its own blocks, and other files. */

export interface Parts {
  readonly compiler: Compiler;
  readonly descriptor: Sfc.SFCDescriptor;
  readonly script: Sfc.SFCScriptBlock | undefined;
  readonly id: string;
  /** The files that it is made of beside its own. */
  readonly files: readonly string[];
}

type Compiler = typeof Sfc;

// Jest asks for the key of a file right before the file itself.
let compiled: { readonly code: string; readonly file: string; readonly parts: Parts } | undefined;

/** Takes a file apart and compiles its script; each result is handed out once. */
export function partsOf(code: string, file: string, options: TransformOptions): Parts {
  const before = compiled;
  compiled = undefined;
  return before?.code === code && before.file === file ? before.parts : compile(code, file, options);
}

function compile(code: string, file: string, options: TransformOptions): Parts {
  const compiler = createRequire(file)('vue/compiler-sfc') as Compiler;
  compilers.add(compiler);
  const { descriptor, errors } = compiler.parse(code, { filename: file });
  if (errors[0]) throw errors[0];
  const id = keyOf(file).slice(0, 8);
  const script =
    descriptor.script || descriptor.scriptSetup
      ? compiler.compileScript(descriptor, { id, inlineTemplate: false, genDefaultAs: 'component' })
      : undefined;
  noteRead(script?.deps ?? []);
  const files = filesIn(descriptor, script, file);
  const list = listFor(code, file, options);
  if (list !== undefined) writeList(list, files);
  return { compiler, descriptor, script, id, files };
}

// The compiler caches types that it has read: it names a cached file, but no longer the files behind it. It named all
// of those when it read that file first.
const firstRead = new Map<string, readonly string[]>();

function noteRead(files: readonly string[]): void {
  for (const path of files) if (!firstRead.has(path)) firstRead.set(path, files);
}

function withThoseBehind(files: readonly string[]): readonly string[] {
  const all = new Set(files);
  for (const path of all) for (const behind of firstRead.get(path) ?? []) all.add(behind);
  return [...all];
}

const compilers = new Set<Compiler>();
const seen = new Map<string, string>();

/** Reads a file that types come from. Where one has changed, the compiler has to read all of them again. */
function readTypes(path: string): string {
  const text = contentOf(path);
  const before = seen.get(path);
  seen.set(path, text);
  if (before !== undefined && before !== text) {
    for (const compiler of compilers)
      for (const known of firstRead.keys()) compiler.invalidateTypeCache(known);
    firstRead.clear();
  }
  return text;
}

/**
 * What else a single-file component is made of: the files its macros take types from, and those it names by `src`.
 *
 * Only compiling it shows which files those are, which would take longer than all else on a run where everything
 * is compiled. So their names are kept beside what Jest keeps. They stay right: where one of them changes, the file
 * is compiled again, and its list is made anew.
 */
export function readFor(code: string, file: string, options: TransformOptions): readonly string[] {
  compiled = undefined;
  if (!mayTakeMore(code, file)) return [];
  const list = listFor(code, file, options);
  const known = list === undefined ? undefined : readList(list);
  return (known ?? findFor(code, file, options)).map((path) => `${path}\0${readTypes(path)}`);
}

function findFor(code: string, file: string, options: TransformOptions): readonly string[] {
  try {
    const parts = compile(code, file, options);
    compiled = { code, file, parts };
    return parts.files;
  } catch {
    // Syntax errors are reported when the file is transformed.
    return [];
  }
}

const mayTakeMore = (code: string, file: string): boolean =>
  file.endsWith('.vue') && /\bdefine\w+\s*<|\ssrc\s*=/.test(code);

function filesIn(
  descriptor: Sfc.SFCDescriptor,
  script: Sfc.SFCScriptBlock | undefined,
  file: string,
): readonly string[] {
  const named = [descriptor.template, descriptor.script, ...descriptor.styles].flatMap((block) =>
    block?.src?.startsWith('.') ? [resolve(dirname(file), block.src)] : [],
  );
  return [...withThoseBehind(script?.deps ?? []), ...named];
}

/** A file that is gone gives another key as well. */
function contentOf(path: string): string {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return '';
  }
}

const listFor = (code: string, file: string, { config }: TransformOptions): string | undefined =>
  config?.cacheDirectory === undefined || !mayTakeMore(code, file)
    ? undefined
    : join(config.cacheDirectory, 'simulacra-vue', `${keyOf(file, code)}.json`);

function readList(list: string): readonly string[] | undefined {
  try {
    const files: unknown = JSON.parse(readFileSync(list, 'utf8'));
    return Array.isArray(files) ? (files as string[]) : undefined;
  } catch {
    return undefined;
  }
}

function writeList(list: string, files: readonly string[]): void {
  const text = JSON.stringify(files);
  if (contentOf(list) === text) return;
  try {
    mkdirSync(dirname(list), { recursive: true });
    // Several workers may write it.
    writeFileSync(`${list}.${process.pid}`, text);
    renameSync(`${list}.${process.pid}`, list);
  } catch {
    // Where nothing can be kept, it is found out each time.
  }
}
