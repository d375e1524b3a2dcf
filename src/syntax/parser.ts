import { createRequire } from 'node:module';
import { join } from 'node:path';
import type * as Oxc from 'oxc-parser';
import { refuse } from './errors';

let parser: typeof Oxc | undefined;

/** The project's own parser. @throws SIM-PARSER where it has none */
export const readParser = (): typeof Oxc => (parser ??= requirePackage<typeof Oxc>('oxc-parser'));

/** A package of the project's own. @throws SIM-PARSER where it has none of that name */
export function requirePackage<T>(name: string): T {
  try {
    return createRequire(join(process.cwd(), 'package.json'))(name) as T;
  } catch (cause) {
    return refuse('SIM-PARSER', { needs: name, from: process.cwd() }, { cause });
  }
}
