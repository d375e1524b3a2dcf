import { once } from './shared';

/**
 * Access to the process itself. A runner's page environment often hides the process's timers and Fetch
 * classes behind its own window, so we look them up in the realm it runs in. They are captured once,
 * before any test can replace them.
 */
type Globals = typeof globalThis & { setImmediate?: (run: () => void) => unknown };

// A page environment passes Buffer in from outside, and the constructor of its functions creates functions in
// that outer realm. A browser has no Buffer; there the page's own realm is the right one.
const borrowed = (globalThis as { Buffer?: { constructor: unknown } }).Buffer?.constructor;
export const realm: Globals =
  typeof borrowed === 'function'
    ? (borrowed as (body: string) => () => Globals)('return globalThis')()
    : globalThis;

// In a browser the page's timers are these. Another copy of this package may have replaced them already.
const { setTimeout, clearTimeout, now } = once('host', () => {
  const { performance } = realm;
  const read = performance.now.bind(performance);
  return { setTimeout: realm.setTimeout, clearTimeout: realm.clearTimeout, now: read };
});

type Classes = Pick<
  typeof globalThis,
  | 'Request'
  | 'Response'
  | 'Headers'
  | 'FormData'
  | 'File'
  | 'AbortController'
  | 'AbortSignal'
  | 'URLSearchParams'
  | 'Blob'
  | 'TextEncoder'
  | 'ReadableStream'
>;
const classes = new Map<string, PropertyDescriptor | undefined>(
  [
    'Request',
    'Response',
    'Headers',
    'FormData',
    'File',
    'AbortController',
    'AbortSignal',
    'URLSearchParams',
    'Blob',
    'TextEncoder',
    'ReadableStream',
  ].map((name) => [name, Object.getOwnPropertyDescriptor(realm, name)]),
);

/**
 * A class of the process, as it was before a double replaced it. Node loads its Fetch classes on first read,
 * which takes longer than many tests, so nothing reads them here.
 */
export function native<K extends keyof Classes>(name: K): Classes[K] {
  const found = classes.get(name);
  return (found?.get ? found.get.call(realm) : found?.value) as Classes[K];
}

/** Milliseconds on a clock that never goes back. */
export const readClock = (): number => now();

/** Runs `work` once after `milliseconds`; the returned function calls it off. */
export function startTimer(milliseconds: number, work: () => void): () => void {
  const timer = setTimeout(work, milliseconds);
  return () => clearTimeout(timer);
}

/** Lets real time pass. */
export const pause = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => void startTimer(milliseconds, resolve));

let startTask: ((run: () => void) => unknown) | undefined = realm.setImmediate;

/** Resolves in a later turn of the event loop, when every microtask that is due has run. */
export const nextTurn = (): Promise<void> =>
  new Promise((resolve) => void (startTask ??= taskByMessage())(resolve));

// For pages without setImmediate. Nested timers of 0 ms would be clamped to 4 ms.
function taskByMessage(): (run: () => void) => void {
  const { port1, port2 } = new realm.MessageChannel();
  const waiting: (() => void)[] = [];
  port1.onmessage = () => waiting.shift()?.();
  return (run) => {
    waiting.push(run);
    port2.postMessage(null);
  };
}

/** Remembers a value along a chain of promises and timers. */
export interface Follower<T> {
  run<R>(value: T, work: () => R): R;
  /** From here on, in what goes on now and all it starts. */
  enter(value: T): void;
  current(): T | undefined;
}

interface Hooks {
  readonly AsyncLocalStorage: new <T>() => {
    run<R>(value: T, work: () => R): R;
    enterWith(value: T): void;
    getStore(): T | undefined;
  };
}

/** Starts to follow chains of calls; undefined where the platform has no way to. @see https://github.com/tc39/proposal-async-context */
export function followCalls<T>(): Follower<T> | undefined {
  const { process } = realm as { process?: { getBuiltinModule?(name: 'node:async_hooks'): Hooks } };
  const hooks = process?.getBuiltinModule?.('node:async_hooks');
  if (!hooks) return undefined;
  const storage = new hooks.AsyncLocalStorage<T>();
  return {
    run: (value, work) => storage.run(value, work),
    enter: (value) => storage.enterWith(value),
    current: () => storage.getStore(),
  };
}
