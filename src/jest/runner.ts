/** What is used of the runner. */
export interface Runner {
  readonly expect?: ((value: unknown) => { toBe(other: unknown): void }) & { extend(matchers: object): void };
  readonly afterEach?: (work: () => unknown) => void;
  readonly describe?: (name: string, work: () => void) => void;
  readonly it?: (name: string, work: () => unknown) => void;
}

declare const require: ((specifier: string) => unknown) | undefined;

/** The functions of the runner. Without globals, it exports them from a module. */
export function readRunner(): Runner {
  const { expect, afterEach } = globalThis as Runner;
  if (expect && afterEach) return globalThis as Runner;
  try {
    return typeof require === 'function' ? (require('@jest/globals') as Runner) : {};
  } catch {
    return {};
  }
}
