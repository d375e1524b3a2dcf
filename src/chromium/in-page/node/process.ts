/* What Jest asks of Node's `process`, for a page. The page itself sees none of it. */
const now = performance.now.bind(performance);
const nothing = (): undefined => undefined;

export const process = {
  env: {} as Record<string, string>,
  cwd: () => '/',
  platform: 'browser',
  argv: [],
  version: 'v20.0.0',
  versions: { node: '20.0.0' },
  stdout: { isTTY: false },
  stderr: { isTTY: false },
  ...{ on: nothing, once: nothing, off: nothing, emit: nothing, nextTick: queueMicrotask.bind(globalThis) },
  ...{ rawListeners: () => [], listeners: () => [], removeListener: nothing, removeAllListeners: nothing },
  hrtime: Object.assign(() => [0, 0], { bigint: () => BigInt(Math.round(now() * 1e6)) }),
};

const channel = new MessageChannel();
const queue: (() => void)[] = [];
channel.port1.onmessage = () => queue.shift()?.();

/** A turn of its own, sooner than a timer's. */
export const setImmediate = (work: (...given: unknown[]) => void, ...given: unknown[]): void => {
  queue.push(() => work(...given));
  channel.port2.postMessage(undefined);
};
