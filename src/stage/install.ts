import { refuseCarrier } from '../network/carriers';
import { installNetwork } from '../network/install';
import { install } from '../page/globals/install';
import { modules } from '../seam/modules';

/**
 * Puts in place what is watched and supplied for every subject, once for each page and permanently. Each
 * entry does it as it is loaded, so that code under test cannot keep the originals.
 */
export function installOnce(): void {
  modules.refuseAddress = (specifier) => refuseCarrier('import()', 'GET', specifier);
  install(installNetwork);
}
