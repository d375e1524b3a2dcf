import { native } from '../core/host';

type Named = Record<string, unknown>;
const page = globalThis as unknown as Named;

/** Puts a value on the page's global object, made when it is first read; the returned function puts back what was there. */
export function replaceGlobal(name: string, make: () => unknown): () => void {
  const before = Object.getOwnPropertyDescriptor(page, name);
  Object.defineProperty(page, name, {
    configurable: true,
    enumerable: true,
    get: make,
    set: (value: unknown) =>
      Object.defineProperty(page, name, { value, configurable: true, writable: true, enumerable: true }),
  });
  return () => {
    if (before) Object.defineProperty(page, name, before);
    else Reflect.deleteProperty(page, name);
  };
}

/** The address relative URLs start from. */
export const baseAddress = (): string =>
  (page['document'] as { baseURI?: string } | undefined)?.baseURI?.replace(/^about:.*/, '') ||
  'http://localhost/';

/**
 * The page's abort signals, forms and blobs may come from another realm than the Fetch classes,
 * which accept only their own. Each is carried over to what the Fetch classes know.
 */
export function carryOver(init: RequestInit): RequestInit {
  const carried: RequestInit = { ...init };
  if (init.signal && !(init.signal instanceof native('AbortSignal'))) {
    carried.signal = carrySignal(init.signal);
  }
  if (isForeign(init.body, 'URLSearchParams')) {
    carried.body = new (native('URLSearchParams'))(String(init.body));
  } else if (isForeign(init.body, 'FormData')) {
    carried.body = carryForm(init.body as FormData);
  }
  return carried;
}

const isForeign = (value: unknown, name: 'URLSearchParams' | 'FormData'): boolean =>
  typeof page[name] === 'function' &&
  page[name] !== native(name) &&
  value instanceof (page[name] as new () => object);

function carrySignal(signal: AbortSignal): AbortSignal {
  const controller = new (native('AbortController'))();
  if (signal.aborted) controller.abort(signal.reason);
  else signal.addEventListener('abort', () => controller.abort(signal.reason), { once: true });
  return controller.signal;
}

function carryForm(form: FormData): FormData {
  const carried = new (native('FormData'))();
  form.forEach((value, name) => {
    if (typeof value === 'string') carried.append(name, value);
    // A page's file cannot be read at once; its name, type and size are what a route can look at.
    else
      carried.append(
        name,
        new (native('File'))([new Uint8Array(value.size)], value.name, { type: value.type }),
      );
  });
  return carried;
}

/** The Request class of the page: the process's own, with relative URLs and carried-over parts. */
export function makeRequestClass(): typeof Request {
  return class Request extends native('Request') {
    constructor(input: RequestInfo | URL, init: RequestInit = {}) {
      super(
        typeof input === 'object' && 'method' in input ? input : new URL(String(input), baseAddress()).href,
        carryOver(init),
      );
    }
  };
}

/** True for a Response of any realm. */
export const isResponse = (value: unknown): value is Response =>
  typeof value === 'object' &&
  value !== null &&
  (value as { [Symbol.toStringTag]?: unknown })[Symbol.toStringTag] === 'Response';
