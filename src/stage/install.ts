import { hookTakeDown } from '../core/take-down';
import { refuseImport } from '../network/carriers';
import { installNetwork } from '../network/install';
import { install } from '../page/globals/install';
import { timerModules } from '../page/globals/timer-modules';
import { modules } from '../seam/modules';

/**
 * Installs what we watch and supply for all subjects, permanently and once per page, and has subjects taken down
 * after each test. Each entry calls it while it loads, so that code under test cannot capture the originals first.
 */
export function installOnce(): void {
  modules.refuseAddress = refuseImport;
  for (const [specifier, stand] of Object.entries(timerModules)) modules.always.set(specifier, stand);
  install(installNetwork);
  hookTakeDown(readHook());
}

interface Runner {
  readonly afterEach?: (work: () => unknown) => void;
  readonly expect?: { getState?(): { readonly currentTestName?: string } };
}

/** The runner's hook for all tests of a file; undefined where a test runs already, which can set none. */
function readHook(): Runner['afterEach'] {
  const { afterEach, expect } = globalThis as Runner;
  return typeof afterEach !== 'function' || expect?.getState?.().currentTestName ? undefined : afterEach;
}
