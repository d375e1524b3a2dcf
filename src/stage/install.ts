import { refuseImport } from '../network/carriers';
import { installNetwork } from '../network/install';
import { install } from '../page/globals/install';
import { modules } from '../seam/modules';

/**
 * Installs what we watch and supply for all subjects, permanently and once per page. Each entry calls it
 * while it loads, so that code under test cannot capture the originals first.
 */
export function installOnce(): void {
  modules.refuseAddress = refuseImport;
  install(installNetwork);
}
