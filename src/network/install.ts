import { native } from '../core/host';
import { supplyGlobal, type Page } from '../core/replace';
import { refuseCarriers } from './carriers';
import { fetchDouble } from './fetch';
import { requestClass, responseClass } from './globals';

/**
 * Puts the network's globals in place of the page's, once and permanently. The page's window may have none
 * of the Fetch classes, or some of its own that do not fit together, so all of them are the process's. Each
 * is made when it is first read: Node loads its Fetch classes then, which takes longer than many a test.
 */
export function installNetwork(page: Page): void {
  supplyGlobal(page, 'Request', requestClass);
  supplyGlobal(page, 'Response', responseClass);
  supplyGlobal(page, 'Headers', () => native('Headers'));
  supplyGlobal(page, 'fetch', () => fetchDouble);
  refuseCarriers(page);
}
