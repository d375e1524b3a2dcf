import { realm } from '../core/host';

/** How to make the runner that this code runs in rewrite modules. */
export function runnerHere(): { readonly runner: string; readonly line: string } {
  const { process } = realm as { process?: { env?: Record<string, string | undefined>; versions?: object } };
  if (process?.env?.['JEST_WORKER_ID'] !== undefined)
    return {
      runner: 'jest.config.cjs',
      line: "module.exports = require('simulacra/seam/jest')({ …your configuration… });",
    };
  if (process?.versions)
    return { runner: 'the command line', line: 'node --import simulacra/seam/node --test' };
  return {
    runner: 'vite.config.ts',
    line: "import { seams } from 'simulacra/seam/vite';   plugins: [seams()]",
  };
}
