import remapping from '@jridgewell/remapping';
import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import type { Rewritten } from '../rewrite/rewrite';

/* Maps back to the file as it was written. @see https://tc39.es/ecma426/ */

export interface Transformed {
  readonly code: string;
  readonly map?: object | string | null;
}

const inline = /\n?\/\/[#@] sourceMappingURL=data:[^,\n]*;base64,([\w+/=]+)\s*$/;

/** The map a file carries in its last line. */
export function inlineMapOf(code: string): object | undefined {
  const written = inline.exec(code)?.[1];
  return written === undefined
    ? undefined
    : (JSON.parse(Buffer.from(written, 'base64').toString()) as object);
}

const withMap = (code: string, map: string) =>
  `${code.replace(inline, '')}\n//# sourceMappingURL=data:application/json;base64,${Buffer.from(map).toString('base64')}`;

/** What came of a rewritten file, with a map that leads past the rewriting. */
export function chain({ code, map }: Transformed, rewritten: Rewritten, file: string): Transformed {
  const written = inlineMapOf(code);
  // Some transformers return an empty text instead of no map.
  const outer = map || written;
  const own = rewritten.makeMap().toString();
  if (!outer) return { code, map: JSON.parse(own) as object };
  const first = typeof outer === 'string' ? (JSON.parse(outer) as object) : outer;
  const whole = join(first, own, file);
  // As an object, because coverage tools do not accept a text.
  return { code: written ? withMap(code, whole) : code, map: JSON.parse(whole) as object };
}

/** A rewritten file that had been made of another one before, with a map to that one. */
export function carryOn(before: object, rewritten: Rewritten, file: string): string {
  return withMap(rewritten.code, join(JSON.parse(rewritten.makeMap().toString()) as object, before, file));
}

const join = (outer: object, inner: object | string, file: string): string =>
  remapping(outer as never, (_, context) => {
    context.source = file;
    return context.depth === 1 ? (inner as never) : null;
  }).toString();

/** Tells the line a line of a file was made of; the map is read when somebody asks for the first time. */
export function makeLineReader(readMap: () => object | undefined): (line: number, column: number) => number {
  let traced: TraceMap | null | undefined;
  return (line, column) => {
    if (traced === undefined) {
      const map = readMap();
      traced = map ? new TraceMap(map as never) : null;
    }
    return (traced && originalPositionFor(traced, { line, column }).line) ?? line;
  };
}
