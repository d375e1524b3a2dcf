import type * as modules from 'node:module';
import { siteIn } from '../core/origin';
import { readText } from '../seam/kinds';
import { explain } from '../states/errors';
import type { StateSet } from '../states/sets';

/* Branches of a component that no state reaches, where the runner counts coverage in the code itself. */

interface Position {
  readonly line?: number;
  readonly column?: number;
}
interface Span {
  readonly start?: Position;
}
/** What is counted of one file. as coverage that is counted in the code has it */
interface Counted {
  readonly branchMap: Readonly<
    Record<string, { readonly type: string; readonly loc?: Span; readonly locations: readonly Span[] }>
  >;
  readonly b: Readonly<Record<string, readonly number[]>>;
  readonly fnMap: Readonly<Record<string, { readonly name: string; readonly loc: Span }>>;
  readonly f: Readonly<Record<string, number>>;
  readonly inputSourceMap?: modules.SourceMapPayload;
}

const coverage = () => (globalThis as { __coverage__?: Readonly<Record<string, Counted>> }).__coverage__;

/** What no state reaches of the file beside that of the states; undefined where all is, or nothing is counted. */
export function complainOfBranches({ component, declaredAt }: StateSet): Error | undefined {
  const file = siteIn(declaredAt)?.file ?? '';
  const base = /^(.*)\.states\.[cm]?[jt]sx?$/.exec(file)?.[1];
  const [path, counted] =
    Object.entries(coverage() ?? {}).find(([one]) => isBeside(one, base, component)) ?? [];
  if (!path || !counted) return undefined;
  const lines = [...new Set(unreachedIn(counted, path))].sort((a, b) => a - b);
  if (lines.length === 0) return undefined;
  const text = readText(path)?.split('\n') ?? [];
  const name = path.split(/[\\/]/).at(-1)!;
  const places = lines.map((line) => `${name}:${line}   ${text[line - 1]?.trim() ?? ''}`);
  return explain('SIM-STATE-BRANCH', { component, file: name, places }, { calledAt: declaredAt });
}

const isBeside = (path: string, base: string | undefined, component: string): boolean => {
  const [, own = '', name = ''] = /^(.*?([^\\/]+?))\.(?:component\.)?(?:[cm]?[jt]sx?|vue)$/.exec(path) ?? [];
  return base === undefined ? name === component : own === base;
};

/** The lines, as they are in the user's file, of branches and functions that were never reached. */
function unreachedIn({ branchMap, b, fnMap, f, inputSourceMap }: Counted, path: string): number[] {
  const spans = [
    ...Object.entries(branchMap).flatMap(([id, { loc, locations }]) =>
      locations
        .filter((_, at) => b[id]?.[at] === 0)
        .map((span) => (span.start?.line === undefined ? loc : span)),
    ),
    ...Object.entries(fnMap).flatMap(([id, { loc }]) => (f[id] === 0 ? [loc] : [])),
  ];
  const map = inputSourceMap && readMap(inputSourceMap);
  const file = path.split(/[\\/]/).at(-1)!;
  return spans.flatMap((span) => {
    const { line, column = 0 } = span?.start ?? {};
    if (line === undefined) return [];
    if (!map) return [line];
    const found = map.findEntry(line - 1, column);
    // What a compiler has added stands for nothing in the file.
    return 'originalLine' in found && found.originalSource.endsWith(file) ? [found.originalLine + 1] : [];
  });
}

function readMap(map: modules.SourceMapPayload): modules.SourceMap {
  const { SourceMap } = process.getBuiltinModule('node:module') as typeof modules;
  return new SourceMap(map);
}
