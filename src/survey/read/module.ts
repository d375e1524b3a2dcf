import type { EcmaScriptModule } from 'oxc-parser';
import type { Export, Import } from '../facts';
import { importsByName, type Imported } from './unit';

interface Module {
  readonly imports: Import[];
  readonly exports: Export[];
  readonly imported: ReadonlyMap<string, Imported>;
}

/** What the parser says of a module beside its tree. */
export type ModuleRecord = Pick<EcmaScriptModule, 'staticImports' | 'staticExports'>;

/** Reads what a file imports and exports, without types. */
export function readModule(record: ModuleRecord, lineAt: (offset: number) => number, stem: string): Module {
  const imports: Import[] = [];
  for (const { start, moduleRequest, entries } of record.staticImports) {
    const names = entries
      .filter(({ isType }) => !isType)
      .map(({ localName, importName }) => ({
        local: localName.value,
        name: importName.name ?? (importName.kind === 'Default' ? 'default' : '*'),
      }));
    // What is imported for its types alone is not loaded.
    if (entries.length === 0 || names.length > 0)
      imports.push({ specifier: moduleRequest.value, line: lineAt(start), names });
  }
  const exports: Export[] = [];
  const loaded = new Set(imports.map(({ specifier }) => specifier));
  for (const { start, entries } of record.staticExports) {
    const values = entries.filter(({ isType }) => !isType);
    exports.push(...values.map((entry) => readExport(entry, stem)));
    // What is handed on is loaded as well.
    const from = values[0]?.moduleRequest?.value;
    if (from === undefined || loaded.has(from)) continue;
    loaded.add(from);
    imports.push({ specifier: from, line: lineAt(start), names: [] });
  }
  return { imports, exports, imported: importsByName(imports) };
}

type Exported = ModuleRecord['staticExports'][number]['entries'][number];

function readExport({ moduleRequest, importName, exportName, localName }: Exported, stem: string): Export {
  const name = exportName.name ?? (exportName.kind === 'Default' ? 'default' : '*');
  if (!moduleRequest) return { name, local: localName.name ?? stem };
  const specifier = moduleRequest.value;
  if (importName.kind === 'AllButDefault') return { name, specifier };
  return { name, local: importName.name ?? '*', specifier };
}
