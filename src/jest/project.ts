import './index';
import { readStates } from '../states/sets';
import { testStates } from './states';

/*
 * For a project whose tests are the files that declare states: `testMatch: ['**\/*.states.*']` and
 * `setupFilesAfterEnv: ['simulacra/jest-states']`. Other files of the project are tests as ever.
 */

declare const require: (path: string) => { readonly default?: unknown };

const { testPath = '' } = (
  globalThis as unknown as { expect: { getState(): { testPath?: string } } }
).expect.getState();
if (/\.states\.[cm]?[jt]sx?$/.test(testPath)) {
  const loaded = require(testPath);
  const given = 'default' in loaded ? loaded.default : loaded;
  readStates(given, `${testPath.split(/[\\/]/).at(-1)}, which the runner takes for declared states,`);
  testStates(given as never);
}
