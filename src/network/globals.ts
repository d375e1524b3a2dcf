import type { Environment } from '../core/environment';
import { bytesOf, carriedBody } from './carried';
import { native } from '../core/host';
import { parsed } from '../core/parsed';

type Named = Record<string, unknown>;
const page = globalThis as unknown as Named;

/** The address relative URLs start from. */
export const baseAddress = (): string =>
  (page['document'] as { baseURI?: string } | undefined)?.baseURI?.replace(/^about:.*/, '') ||
  'http://localhost/';

/**
 * The page's abort signals, forms and blobs may come from another realm than the Fetch classes, which accept
 * only their own. So each is converted.
 */
export function carryOver(init: RequestInit): RequestInit {
  const carried: RequestInit = { ...init };
  if (init.signal && !(init.signal instanceof native('AbortSignal'))) {
    carried.signal = carrySignal(init.signal);
  }
  if (typeof init.body !== 'object' || init.body === null) return carried;
  const { body, type } = carriedBody(init.body);
  if (body === undefined) return carried;
  const headers = new (native('Headers'))(init.headers);
  if (type && !headers.has('content-type')) headers.set('content-type', type);
  return Object.assign(carried, { body, headers, duplex: 'half' });
}

function carrySignal(signal: AbortSignal): AbortSignal {
  const controller = new (native('AbortController'))();
  if (signal.aborted) controller.abort(signal.reason);
  else signal.addEventListener('abort', () => controller.abort(signal.reason), { once: true });
  return controller.signal;
}

/** What a request was given as its body, before it became a stream. */
const bodies = new WeakMap<object, unknown>();

// Created on first use, because Node then loads its Fetch classes.
let request: typeof Request | undefined;
let response: typeof Response | undefined;

/** The Request class of the page: the process's own, with relative URLs and carried-over parts. */
export const requestClass = (): typeof Request => (request ??= makeRequestClass());

/** The Response class of the page: the process's own. */
export const responseClass = (): typeof Response => (response ??= native('Response'));

function makeRequestClass(): typeof Request {
  return class Request extends native('Request') {
    constructor(input: RequestInfo | URL, init: RequestInit = {}) {
      const given = typeof input === 'object' && 'method' in input ? input : undefined;
      super(given ?? new URL(String(input), baseAddress()).href, carryOver(init));
      const body: unknown = init.body ?? (given && bodies.get(given));
      if (body !== undefined && body !== null) bodies.set(this, body);
    }

    override clone(): globalThis.Request {
      const copy = super.clone();
      if (bodies.has(this)) bodies.set(copy, bodies.get(this));
      return copy;
    }
  };
}

/** What a request sends: parsed where it is JSON, else as it was given; undefined for none. */
export function bodyOf(request: Request): unknown {
  return parsed(bodies.get(request));
}

/** The body of a request as it was given. */
export const rawBodyOf = (request: Request): unknown => bodies.get(request);

const readers = ['json', 'text', 'arrayBuffer', 'blob', 'formData', 'bytes'] as const;
type Reading = () => Promise<unknown>;

/** Writes down the reading of a body as open work: it takes some turns of the event loop. */
export function watchReading<T extends Request | Response>(
  message: T,
  environment: Environment,
  label: string,
  held: boolean,
): T {
  const { work } = environment;
  const own = message as unknown as Record<string, Reading | undefined>;
  const { text } = message;
  const watched =
    (name: string, read: Reading): Reading =>
    () => {
      const end = work.begin('body', label, { held });
      const own = name === 'json' ? text : read;
      const reading = readInPage(name, Reflect.apply(own, message, []) as Promise<unknown>);
      reading.then(end, end);
      return reading;
    };
  for (const name of readers) {
    const read = own[name];
    if (read)
      Object.defineProperty(message, name, {
        value: watched(name, read),
        configurable: true,
        writable: true,
      });
  }
  watchClone(message, environment, label, held);
  const { get } = Object.getOwnPropertyDescriptor(bodyOwnerOf(message), 'body') ?? {};
  if (get)
    Object.defineProperty(message, 'body', {
      configurable: true,
      get: () => watchStream(get.call(message) as ReadableStream | null, { work, label, held }),
    });
  return message;
}

// A copy is read as the original is, and has come from the same address.
function watchClone(
  message: Request | Response,
  environment: Environment,
  label: string,
  held: boolean,
): void {
  const clone = message.clone as () => Request | Response;
  const value = () => {
    const copy = clone.call(message) as Request;
    for (const name of ['url', 'redirected'])
      if (Object.hasOwn(message, name))
        Object.defineProperty(copy, name, { value: (message as unknown as Record<string, unknown>)[name] });
    return watchReading(copy, environment, label, held);
  };
  Object.defineProperty(message, 'clone', { value, configurable: true, writable: true });
}

// The class that defines the accessor: the platform's own, beneath any subclass.
function bodyOwnerOf(message: object): object {
  let at = message;
  while (!Object.hasOwn(at, 'body') && Object.getPrototypeOf(at)) at = Object.getPrototypeOf(at) as object;
  return at;
}

const isHere = (value: unknown, name: string): boolean => value instanceof (page[name] as new () => object);

/** What a body is read as is of the page's own classes. */
async function readInPage(name: string, reading: Promise<unknown>): Promise<unknown> {
  const value = await reading;
  if (name === 'json') return JSON.parse(String(value)) as unknown;
  if (name === 'arrayBuffer') return isHere(value, 'ArrayBuffer') ? value : bytesOf(value).slice().buffer;
  if (name !== 'blob' || isHere(value, 'Blob')) return value;
  const blob = value as Blob;
  return new Blob([new Uint8Array(await blob.arrayBuffer())], { type: blob.type });
}

const streams = new WeakSet<object>();

function watchStream(
  stream: ReadableStream | null,
  { work, label, held }: { work: Environment['work']; label: string; held: boolean },
): ReadableStream | null {
  if (!stream || streams.has(stream)) return stream;
  streams.add(stream);
  const getReader = stream.getReader.bind(stream) as (options?: object) => { read: Reading };
  Object.defineProperty(stream, 'getReader', {
    configurable: true,
    value: (options?: object) => {
      const reader = getReader(options);
      const read = reader.read.bind(reader) as (...args: unknown[]) => Promise<unknown>;
      return Object.defineProperty(reader, 'read', {
        configurable: true,
        value: (...args: unknown[]) => {
          const end = work.begin('body', label, { held });
          const reading = read(...args);
          reading.then(end, end);
          return reading;
        },
      });
    },
  });
  return stream;
}

/** True for a Response of any realm. */
export const isResponse = (value: unknown): value is Response =>
  typeof value === 'object' &&
  value !== null &&
  (value as { [Symbol.toStringTag]?: unknown })[Symbol.toStringTag] === 'Response';
