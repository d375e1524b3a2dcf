import type * as Ts from 'typescript';
import { builtin } from '../core/files';
import { typescriptBy } from '../core/typescript';

/** A component of a package that has to be around what calls its hooks, as the package's types have it. */
export interface PackageProvider {
  readonly name: string;
  /** What it is imported from: `@apollo/client/react`. */
  readonly from: string;
  /** The props that it cannot do without, beside `children`. */
  readonly requires: readonly RequiredProp[];
}

export interface RequiredProp {
  readonly name: string;
  /** As TypeScript prints it: `ApolloClient`. */
  readonly type: string;
}

type TypeScript = typeof Ts;
interface NodeModules {
  createRequire(from: string): (name: string) => unknown;
}

/**
 * Looks a component up in the types of a package.
 *
 * @param folder the folder whose `node_modules` has the package
 * @returns undefined where the package has no such export, or there is no TypeScript to ask
 */
export function readProvider(name: string, library: string, folder: string): PackageProvider | undefined {
  const modules = builtin('node:module') as NodeModules | undefined;
  if (!modules || folder === '' || !/^[A-Z]\w*$/.test(name)) return undefined;
  const ts = typescriptBy(modules.createRequire(`${folder}package.json`)) as TypeScript | undefined;
  if (!ts) return undefined;
  const find = (from: string): PackageProvider | undefined => {
    const requires = requiredOf(ts, name, from, folder);
    return requires && { name, from, requires };
  };
  const found = find(library);
  if (found) return found;
  const entry = entryWith(ts, name, entriesOf(ts, library, folder), folder);
  return entry === undefined ? undefined : find(entry);
}

/** What else a package can be imported by: `@apollo/client/react`. */
function entriesOf(ts: TypeScript, library: string, folder: string): readonly string[] {
  const text = ts.sys.readFile(`${folder}node_modules/${library}/package.json`) ?? '{}';
  const { exports } = JSON.parse(text) as { exports?: unknown };
  const keys = typeof exports === 'object' && exports !== null ? Object.keys(exports) : [];
  return keys.filter((key) => /^\.\/[\w/-]+$/.test(key)).map((key) => library + key.slice(1));
}

function entryWith(
  ts: TypeScript,
  name: string,
  entries: readonly string[],
  folder: string,
): string | undefined {
  const options = optionsOf(ts);
  const files = new Map<string, string>();
  for (const entry of entries) {
    const { resolvedModule } = ts.resolveModuleName(entry, `${folder}simulacra-asks.ts`, options, ts.sys);
    if (resolvedModule) files.set(resolvedModule.resolvedFileName, entry);
  }
  const program = ts.createProgram([...files.keys()], { ...options, noLib: true });
  const checker = program.getTypeChecker();
  for (const [file, entry] of files) {
    const source = program.getSourceFile(file);
    const module = source && checker.getSymbolAtLocation(source);
    if (module && checker.getExportsOfModule(module).some((one) => one.name === name)) return entry;
  }
  return undefined;
}

const optionsOf = (ts: TypeScript): Ts.CompilerOptions => ({
  ...{ target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext, jsx: ts.JsxEmit.ReactJSX },
  ...{ moduleResolution: ts.ModuleResolutionKind.Bundler, types: [], strict: true, skipLibCheck: true },
});

/** The required props of a component; undefined where nothing is exported by that name. */
function requiredOf(
  ts: TypeScript,
  name: string,
  from: string,
  folder: string,
): readonly RequiredProp[] | undefined {
  const asked = `${folder}simulacra-asks.ts`;
  const text = `import type { ${name} as It } from '${from}';
type Of<T> = T extends abstract new (...args: any) => { $props: infer P } ? P
  : T extends abstract new (...args: any) => { props: infer P } ? P
  : T extends (props: infer P, ...rest: any) => any ? P : never;
export type Props = Of<typeof It>;`;
  const options = optionsOf(ts);
  const host = ts.createCompilerHost(options);
  const { getSourceFile, fileExists, readFile } = host;
  host.getSourceFile = (file, ...rest) =>
    file === asked ? ts.createSourceFile(file, text, rest[0]) : getSourceFile(file, ...rest);
  host.fileExists = (file) => file === asked || fileExists(file);
  host.readFile = (file) => (file === asked ? text : readFile(file));
  const program = ts.createProgram([asked], options, host);
  const source = program.getSourceFile(asked)!;
  if (program.getSemanticDiagnostics(source).length > 0) return undefined;
  const checker = program.getTypeChecker();
  const written = source.statements.at(-1) as Ts.TypeAliasDeclaration;
  return checker
    .getTypeAtLocation(written.name)
    .getProperties()
    .filter((prop) => (prop.flags & ts.SymbolFlags.Optional) === 0 && prop.name !== 'children')
    .map((prop) => ({
      name: prop.name,
      type: checker.typeToString(checker.getTypeOfSymbolAtLocation(prop, written)),
    }));
}
