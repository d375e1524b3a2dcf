import { ownerOfCall } from '../core/ownership';
import { isAddress } from './address';
import { modules, type Loaded } from './modules';

/**
 * Loads a module on behalf of a file. Until it is there, this is open work of the subject. Loading from a URL
 * is refused.
 */
export function watchLoad(
  specifier: string,
  load: () => Promise<unknown>,
  loaded?: Loaded,
): Promise<unknown> {
  if (isAddress(specifier) && modules.refuseAddress) return Promise.reject(modules.refuseAddress(specifier));
  const end = ownerOfCall()?.work.begin('import', specifier);
  const loading = load();
  if (loaded)
    loading.then(
      (exports) => (loaded.exports = exports),
      () => undefined,
    );
  if (end) loading.then(end, end);
  return loading;
}
