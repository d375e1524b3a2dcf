import { native } from '../core/host';
import { supplyGlobal, type Page } from '../core/replace';
import { refuseCarriers } from './carriers';
import { fetchDouble } from './fetch';
import { requestClass, responseClass } from './globals';

/**
 * Replaces the page's network globals, once and permanently. The page's window may have no Fetch classes, or
 * some that do not work together, so all of them come from the process. Each is created on first read,
 * because Node then loads its Fetch classes, which takes longer than many tests.
 */
export function installNetwork(page: Page): void {
  supplyGlobal(page, 'Request', requestClass);
  supplyGlobal(page, 'Response', responseClass);
  supplyGlobal(page, 'Headers', () => native('Headers'));
  supplyGlobal(page, 'fetch', () => fetchDouble);
  refuseCarriers(page);
}
