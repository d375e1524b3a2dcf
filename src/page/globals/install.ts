import { once } from '../../core/shared';
import { watchConsole } from './console';
import { watchDates } from './dates';
import { watchErrors } from './errors';
import type { Page } from '../../core/replace';
import { watchListeners } from './listeners';
import { supplyFeatures } from './features';
import { supplyStandards } from './standards';
import { watchResources } from './resources';
import { watchTimers } from './timers';
import { watchWrites } from './written';
import { quietUnimplemented } from './unimplemented';

const installed = once('installed', () => new WeakSet<object>());

/**
 * Installs what we watch and supply for all subjects, permanently and once per page. This happens while the
 * package loads, so that code under test cannot capture the originals first.
 *
 * @param more what other folders put in place, for each global object
 */
export function install(more: (page: Page) => void): void {
  const process = globalThis as unknown as Page;
  const window = process['window'] as Page | undefined;
  for (const page of new Set([process, window])) {
    if (!page || installed.has(page)) continue;
    installed.add(page);
    // Before we supply what is missing, which notes by itself.
    watchResources(page);
    supplyStandards(page);
    supplyFeatures(page);
    quietUnimplemented(page);
    watchTimers(page);
    watchDates(page);
    watchListeners(page);
    watchWrites(page);
    more(page);
    if (page === window) watchErrors(window as unknown as Window);
  }
  watchConsole(console);
}
