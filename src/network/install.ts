import { native } from '../core/host';
import { supplyGlobal, type Page } from '../core/replace';
import { fetchDouble } from './fetch';
import { requestClass, responseClass } from './globals';
import { XMLHttpRequest } from './wire/request';
import { XMLHttpRequestEventTarget, XMLHttpRequestUpload } from './wire/upload';
import { WebSocket } from './wire/socket';
import { EventSource } from './wire/events';
import { sendBeacon } from './wire/beacon';

/**
 * Replaces everything that could send a request from the page, once and permanently. The page's window may
 * have no Fetch classes, or some that do not work together, so those come from the process. Each is made on
 * first read: Node then loads its Fetch classes, which takes longer than many tests.
 */
export function installNetwork(page: Page): void {
  supplyGlobal(page, 'Request', requestClass);
  supplyGlobal(page, 'Response', responseClass);
  supplyGlobal(page, 'Headers', () => native('Headers'));
  supplyGlobal(page, 'fetch', () => fetchDouble);
  if (page['XMLHttpRequest']) {
    supplyGlobal(page, 'XMLHttpRequest', () => XMLHttpRequest, false);
    supplyGlobal(page, 'XMLHttpRequestEventTarget', () => XMLHttpRequestEventTarget, false);
    supplyGlobal(page, 'XMLHttpRequestUpload', () => XMLHttpRequestUpload, false);
  }
  supplyGlobal(page, 'WebSocket', () => WebSocket, false);
  supplyGlobal(page, 'EventSource', () => EventSource, false);
  const navigator = page['navigator'] as object | undefined;
  if (!navigator) return;
  const value = (url: unknown, body: unknown) => sendBeacon(url, body);
  Object.defineProperty(navigator, 'sendBeacon', { configurable: true, writable: true, value });
}
