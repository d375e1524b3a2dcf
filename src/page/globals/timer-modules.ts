import { pageTime } from '../../core/page-time';
import { likenTo } from '../../core/replace';
import type { DueKind } from '../../core/virtual-clock';
import type { Handler } from './run-timer';
import { cancelScheduled, scheduleOn } from './scheduled';

/* Node's modules of timers, as rewritten files import them: they follow a virtual clock while there is one. */

type Exports = Record<string | symbol, unknown>;
type Call = (...args: unknown[]) => unknown;

interface Waiting {
  readonly signal?: AbortSignal;
}

/** Does one thing on a virtual clock and another in real time, and looks like the latter. */
const either = (real: unknown, virtual: Call, more?: PropertyDescriptorMap): Call =>
  likenTo((...args: unknown[]) => (pageTime.clock ? virtual : (real as Call))(...args), real as Call, more);

const start = (name: string, kind: DueKind, [handler, delay, ...args]: readonly unknown[]): unknown =>
  scheduleOn(pageTime.clock!, { name, kind, handler: handler as Handler, delay, args, isProcess: true });

const stopping =
  (real: unknown): Call =>
  (id) =>
    pageTime.timers.size > 0 && cancelScheduled(id) ? undefined : (real as Call)(id);

/** @see https://nodejs.org/api/timers.html#timerspromisessettimeoutdelay-value-options */
function wait(delay?: unknown, value?: unknown, { signal }: Waiting = {}): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const fail = () => {
      const error = new Error('The operation was aborted', { cause: signal?.reason });
      reject(Object.assign(error, { name: 'AbortError', code: 'ABORT_ERR' }));
    };
    if (signal?.aborted) return fail();
    const stop = () => {
      cancelScheduled(id);
      fail();
    };
    const go = () => {
      signal?.removeEventListener('abort', stop);
      resolve(value);
    };
    const id = start('setTimeout', 'timeout', [go, delay]);
    signal?.addEventListener('abort', stop, { once: true });
  });
}

async function* every(delay?: unknown, value?: unknown, options?: Waiting): AsyncGenerator<unknown> {
  for (;;) yield await wait(delay, value, options);
}

const promisified = Symbol.for('nodejs.util.promisify.custom');

/** What `promisify` makes of Node's `setTimeout` follows a virtual clock as well; a page has nothing of the kind. */
export function promisedBy(start: unknown): PropertyDescriptorMap {
  const own = (start as Exports)[promisified];
  return own ? { [promisified]: { value: either(own, wait as Call) } } : {};
}

function timersOn(real: Exports): Exports {
  const own = real['setTimeout'];
  return {
    setTimeout: either(own, (...args) => start('setTimeout', 'timeout', args), promisedBy(own)),
    setInterval: either(real['setInterval'], (...args) => start('setInterval', 'interval', args)),
    clearTimeout: stopping(real['clearTimeout']),
    clearInterval: stopping(real['clearInterval']),
    promises: promisesOn(real['promises'] as Exports),
  };
}

function promisesOn(real: Exports): Exports {
  const scheduler = real['scheduler'] as Record<'wait' | 'yield', Call>;
  return {
    ...real,
    setTimeout: either(real['setTimeout'], wait as Call),
    setInterval: either(real['setInterval'], every as Call),
    scheduler: {
      yield: () => scheduler.yield(),
      wait: (delay: unknown, options?: Waiting) =>
        pageTime.clock ? wait(delay, undefined, options) : scheduler.wait(delay, options),
    },
  };
}

const made = new WeakMap<Exports, Exports>();
/** What stands for a module is made once, and is its own default export where it has one. */
const standing =
  (make: (real: Exports) => Exports) =>
  (real: Exports): Exports => {
    const known = made.get(real);
    if (known) return known;
    const exports = { ...real, ...make(real) };
    if ('default' in real) exports['default'] = exports;
    made.set(real, exports);
    return exports;
  };

const [timers, promises] = [standing(timersOn), standing(promisesOn)];
/** By specifier: what rewritten files get for the module. */
export const timerModules = {
  timers,
  'node:timers': timers,
  'timers/promises': promises,
  'node:timers/promises': promises,
};
