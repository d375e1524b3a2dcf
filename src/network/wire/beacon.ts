import { parsed } from '../../core/parsed';
import { ask } from '../ask';
import { baseAddress, requestClass } from '../globals';
import { encodeBody } from './bodies';

/** The most that a page may have under way by beacons, in bytes. @see https://w3c.github.io/beacon */
const most = 65_536;

/** Sends a request whose answer nobody waits for. @see https://w3c.github.io/beacon/#sendbeacon-method */
export function sendBeacon(url: unknown, body: unknown): boolean {
  const address = new URL(String(url), baseAddress());
  if (!/^https?:$/.test(address.protocol))
    throw new TypeError('Failed to send a beacon: it needs an address of http or https');
  const encoded = body === null || body === undefined ? undefined : encodeBody(body);
  if (encoded && encoded.size > most) return false;
  const request = new (requestClass())(address.href, {
    ...{ method: 'POST', credentials: 'include', keepalive: true },
    ...(encoded && { body: encoded.body, duplex: 'half' }),
    headers: encoded?.type ? { 'content-type': encoded.type } : {},
  } as RequestInit);
  const sent = {
    body: parsed(encoded?.given),
    carrier: 'navigator.sendBeacon',
    below: navigator.sendBeacon,
  } as const;
  ask(request, sent).response.catch(() => undefined);
  return true;
}
