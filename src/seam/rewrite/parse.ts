import { readParser } from '../../syntax/parser';
import type { Node } from '../../syntax/syntax';

/** True for a file that may hold something to rewrite; the text alone rules out most others. */
const mayImport = /\b(import|require|export)\b/;

/** A file that was parsed; undefined where there is nothing to rewrite, or nothing that can be read. */
export type Parsed = ReturnType<typeof parse>;

export function parse(code: string, file: string) {
  if (!mayImport.test(code)) return undefined;
  const parsed = readParser().parseSync(file, code, { preserveParens: false });
  if (parsed.errors.length > 0) return undefined;
  return {
    ...{ code, file, program: parsed.program as unknown as Node },
    /** What it imports and exports; the parser hands that out when it is asked for. */
    get module() {
      return parsed.module;
    },
  };
}
