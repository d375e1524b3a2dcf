import { createRequire } from 'node:module';
import { join } from 'node:path';
import type * as Oxc from 'oxc-parser';
import { refuse } from '../errors';

let parser: typeof Oxc | undefined;

/** The project's own parser. @throws SIM-SEAM-PARSER where it has none */
export function readParser(): typeof Oxc {
  try {
    return (parser ??= createRequire(join(process.cwd(), 'package.json'))('oxc-parser') as typeof Oxc);
  } catch (cause) {
    return refuse('SIM-SEAM-PARSER', { from: process.cwd() }, { cause });
  }
}
