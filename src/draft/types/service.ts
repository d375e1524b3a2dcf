import { existsSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import type * as Ts from 'typescript';
import { findTypescript } from '../../transform/typescript';

export type TypeScript = typeof Ts;

/** The types of a project, by its own TypeScript; single-file components are read by their scripts. */
export class Types {
  readonly #service: Ts.LanguageService;
  readonly #roots = new Set<string>();
  readonly #versions = new Map<string, number>();
  readonly #texts = new Map<string, string>();

  private constructor(
    readonly ts: TypeScript,
    readonly options: Ts.CompilerOptions,
    ambient: readonly string[],
    root: string,
  ) {
    for (const file of ambient) this.#roots.add(file);
    const host: Ts.LanguageServiceHost = {
      getCompilationSettings: () => options,
      getScriptFileNames: () => [...this.#roots],
      getScriptVersion: (file) => `${this.#versions.get(file) ?? 0}`,
      getScriptSnapshot: (file) => {
        const text = this.#read(file);
        return text === undefined ? undefined : ts.ScriptSnapshot.fromString(text);
      },
      getCurrentDirectory: () => root,
      getDefaultLibFileName: (given) => ts.getDefaultLibFilePath(given),
      fileExists: (file) => this.#texts.has(file) || isThere(file),
      readFile: (file) => this.#read(file),
      readDirectory: ts.sys.readDirectory,
      directoryExists: ts.sys.directoryExists,
      getDirectories: ts.sys.getDirectories,
      realpath: (file) => (ofComponent.test(file) ? file : ts.sys.realpath!(file)),
    };
    this.#service = ts.createLanguageService(host, ts.createDocumentRegistry());
  }

  /** The types of the project that a file is in; undefined where it has no TypeScript. */
  static of(root: string, file: string): Types | undefined {
    const ts = findTypescript(join(root, 'package.json'));
    if (!ts) return undefined;
    const config = findConfig(ts, file);
    const base = config?.options ?? {};
    const ambient = (config?.fileNames ?? []).filter((name) => /\.d\.[cm]?ts$/.test(name));
    const options: Ts.CompilerOptions = {
      target: ts.ScriptTarget.ES2022,
      module: ts.ModuleKind.ESNext,
      moduleResolution: ts.ModuleResolutionKind.Bundler,
      jsx: ts.JsxEmit.ReactJSX,
      lib: ['lib.es2023.d.ts', 'lib.dom.d.ts', 'lib.dom.iterable.d.ts'],
      ...base,
      // Without it, optional and required members look the same.
      ...{ strict: true, allowJs: true, checkJs: false, noEmit: true, skipLibCheck: true, composite: false },
      ...{ incremental: false, allowArbitraryExtensions: true, resolveJsonModule: true },
    };
    delete options.tsBuildInfoFile;
    return new Types(ts, options, ambient, root);
  }

  /** A text that stands for a file which is not there, or not yet. */
  place(file: string, text: string): void {
    this.#texts.set(file, text);
    this.#versions.set(file, (this.#versions.get(file) ?? 0) + 1);
    this.#roots.add(file);
  }

  take(file: string): void {
    this.#texts.delete(file);
    this.#roots.delete(file);
  }

  /** What a file says, and the checker of the types in it. */
  source(file: string): { readonly checker: Ts.TypeChecker; readonly file: Ts.SourceFile } | undefined {
    const name = nameOf(file);
    this.#roots.add(name);
    const program = this.#service.getProgram();
    const source = program?.getSourceFile(name);
    return program && source ? { checker: program.getTypeChecker(), file: source } : undefined;
  }

  /** The file that has the types of what another file imports. */
  entryOf(specifier: string, from: string): string | undefined {
    const { resolvedModule } = this.ts.resolveModuleName(specifier, from, this.options, this.ts.sys);
    return resolvedModule?.resolvedFileName;
  }

  /** What is wrong with a file, in words. */
  problems(file: string): readonly { readonly line: number; readonly why: string }[] {
    this.#roots.add(file);
    const found = [
      ...this.#service.getSyntacticDiagnostics(file),
      ...this.#service.getSemanticDiagnostics(file),
    ];
    return found.map(({ file: source, start = 0, messageText }) => ({
      line: source ? source.getLineAndCharacterOfPosition(start).line + 1 : 1,
      why: this.ts.flattenDiagnosticMessageText(messageText, '\n'),
    }));
  }

  #read(file: string): string | undefined {
    const placed = this.#texts.get(file);
    if (placed !== undefined) return placed;
    const component = ofComponent.exec(file)?.[1];
    if (component !== undefined && isThere(component)) return scriptOf(readFileSync(component, 'utf8'));
    return isThere(file) ? readFileSync(file, 'utf8') : undefined;
  }
}

/** A single-file component as a module of TypeScript. */
const ofComponent = /^(.*\.vue)\.tsx?$/;
const nameOf = (file: string): string => (file.endsWith('.vue') ? `${file}.ts` : file);

function isThere(file: string): boolean {
  const component = ofComponent.exec(file)?.[1];
  try {
    return statSync(component ?? file).isFile();
  } catch {
    return false;
  }
}

/** The scripts of a single-file component, each line where it stands. */
function scriptOf(text: string): string {
  const blank = (part: string) => part.replace(/[^\n]/g, ' ');
  let script = '';
  let at = 0;
  const tag = /<script\b[^>]*>([\s\S]*?)<\/script>/g;
  for (let found = tag.exec(text); found; found = tag.exec(text)) {
    const inside = found.index + found[0].indexOf('>') + 1;
    script += blank(text.slice(at, inside)) + found[1]!;
    at = inside + found[1]!.length;
  }
  script += blank(text.slice(at));
  return /export\s+default\b/.test(script) ? script : `${script}\nexport default {} as any;\nexport {};`;
}

/** The configuration that a file belongs to: the nearest, or one that it refers to. */
function findConfig(ts: TypeScript, file: string): Ts.ParsedCommandLine | undefined {
  for (let folder = dirname(file); ; folder = dirname(folder)) {
    const place = join(folder, 'tsconfig.json');
    if (existsSync(place)) {
      const config = readConfig(ts, place);
      const referred = (config?.projectReferences ?? []).map(({ path }) =>
        readConfig(ts, path.endsWith('.json') ? path : join(path, 'tsconfig.json')),
      );
      const owns = (one: Ts.ParsedCommandLine | undefined) =>
        one?.fileNames.some((name) => resolve(name) === file);
      if (config && (referred.length === 0 || owns(config))) return config;
      return referred.find(owns) ?? referred.find((one) => one && one.fileNames.length > 0) ?? config;
    }
    if (dirname(folder) === folder) return undefined;
  }
}

function readConfig(ts: TypeScript, place: string): Ts.ParsedCommandLine | undefined {
  const host = { ...ts.sys, onUnRecoverableConfigFileDiagnostic: () => undefined };
  return ts.getParsedCommandLineOfConfigFile(place, {}, host, undefined, undefined, [
    { extension: '.vue', isMixedContent: true, scriptKind: ts.ScriptKind.Deferred },
  ]);
}
