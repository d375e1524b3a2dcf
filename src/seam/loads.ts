import { ownerOfCall } from '../core/ownership';
import { isAddress } from './address';
import { modules } from './modules';

/**
 * Loads a module when a file asks for it: open work of the subject that asks, until it is there. Nothing is
 * loaded from an address.
 */
export function watchLoad(specifier: string, load: () => Promise<unknown>): Promise<unknown> {
  if (isAddress(specifier) && modules.refuseAddress) return Promise.reject(modules.refuseAddress(specifier));
  const end = ownerOfCall()?.work.begin('import', specifier);
  const loading = load();
  if (end) loading.then(end, end);
  return loading;
}
