import { installNetwork } from '../network/install';
import { install } from '../page/globals/install';

/** Puts in place what is watched and supplied for every subject, once for each page and permanently. */
export const installOnce = (): void => install(installNetwork);

// As early as this package is loaded, so that code under test cannot keep the originals.
installOnce();
