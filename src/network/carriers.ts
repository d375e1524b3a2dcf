import type { Environment } from '../core/environment';
import { ownerOfCall } from '../core/ownership';
import type { Page } from '../core/replace';
import { explain } from './errors';
import { baseAddress } from './globals';
import { reportNobody } from './nobody';
import { printAddress } from './print-address';

type Carrier = 'XMLHttpRequest' | 'WebSocket' | 'EventSource' | 'navigator.sendBeacon' | 'import()';

/** Reports that something went out by a carrier that no route answers. */
export function refuseCarrier(carrier: Carrier, method: string, address: string): Error {
  const url = new URL(address, baseAddress());
  const asked = `${method} ${printAddress(url)}`;
  const owner: Environment | undefined = ownerOfCall();
  if (!owner || owner.state === 'down') return reportNobody(asked, carrier, owner);
  const from = owner.running();
  owner.chronicle.add('unmatched', asked, { detail: `refused: ${carrier}`, from, trigger: true });
  const error = explain('SIM-CARRIER-REFUSED', { carrier, asked, from, subject: owner.name });
  owner.fail(error);
  return error;
}

interface Events {
  dispatchEvent(event: unknown): boolean;
}
type EventsClass = new () => Events & Record<string, unknown>;
type Listening = Events & Record<string, ((event: unknown) => void) | null | undefined>;

/**
 * Replaces everything except `fetch` that could send a request from the page. Each fails as it would without
 * a network, and the attempt is reported.
 */
export function refuseCarriers(page: Page): void {
  const define = (name: string, value: unknown) =>
    Object.defineProperty(page, name, { value, configurable: true, writable: true, enumerable: false });
  const { XMLHttpRequest, EventTarget } = page as unknown as {
    XMLHttpRequest?: EventsClass;
    EventTarget: EventsClass;
  };
  if (XMLHttpRequest) define('XMLHttpRequest', refusedRequest(page, XMLHttpRequest));
  define('WebSocket', refusedChannel(page, EventTarget, 'WebSocket'));
  define('EventSource', refusedChannel(page, EventTarget, 'EventSource'));
  const navigator = page['navigator'] as object | undefined;
  if (navigator)
    Object.defineProperty(navigator, 'sendBeacon', {
      configurable: true,
      writable: true,
      value: (url: string) => {
        refuseCarrier('navigator.sendBeacon', 'POST', String(url));
        return false;
      },
    });
}

/** @see https://xhr.spec.whatwg.org */
function refusedRequest(page: Page, Original: EventsClass): unknown {
  return class XMLHttpRequest extends Original {
    #asked = { method: 'GET', url: '', isAsync: true };
    #state: number | undefined;

    open(method: string, url: string, isAsync = true, ...rest: unknown[]): void {
      this.#asked = { method: String(method).toUpperCase(), url: String(url), isAsync };
      this.#state = undefined;
      Reflect.apply(Original.prototype['open'] as () => void, this, [method, url, true, ...rest] as never);
    }

    send(): void {
      const { method, url, isAsync } = this.#asked;
      const error = refuseCarrier('XMLHttpRequest', method, url);
      if (!isAsync) throw error;
      queueMicrotask(() => {
        this.#state = 4;
        for (const type of ['readystatechange', 'error', 'loadend'])
          this.dispatchEvent(makeEvent(page, type));
      });
    }

    get readyState(): number {
      return this.#state ?? (Reflect.get(Original.prototype, 'readyState', this) as number);
    }
  };
}

/** @see https://websockets.spec.whatwg.org @see https://html.spec.whatwg.org/#server-sent-events */
function refusedChannel(page: Page, Target: EventsClass, carrier: 'WebSocket' | 'EventSource'): unknown {
  const states = { CONNECTING: 0, OPEN: 1, CLOSING: 2, CLOSED: carrier === 'WebSocket' ? 3 : 2 };
  class Channel extends Target {
    readyState = 0;
    readonly url: string;

    constructor(url: string | URL) {
      super();
      this.url = new URL(
        String(url),
        baseAddress().replace(/^http/, carrier === 'WebSocket' ? 'ws' : 'http'),
      ).href;
      refuseCarrier(carrier, carrier === 'WebSocket' ? 'WS' : 'GET', this.url.replace(/^ws/, 'http'));
      queueMicrotask(() => {
        this.readyState = states.CLOSED;
        this.#tell('error', {});
        if (carrier === 'WebSocket') this.#tell('close', { code: 1006, reason: '', wasClean: false });
      });
    }

    #tell(type: string, more: object): void {
      const event = Object.assign(makeEvent(page, type), more);
      (this as unknown as Listening)[`on${type}`]?.(event);
      this.dispatchEvent(event);
    }

    close(): void {}
    send(): void {}
  }
  Object.defineProperty(Channel, 'name', { value: carrier });
  return Object.assign(Channel, states);
}

const makeEvent = (page: Page, type: string): object =>
  new (page['Event'] as new (type: string) => object)(type);
