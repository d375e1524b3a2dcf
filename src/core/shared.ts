import type { Environment } from './environment';
import type { Step } from './step';

/**
 * Singletons of the process, shared by duplicate bundles (an ES module and a CommonJS bundle, or two versions
 * of an entry). Anything that concerns one subject is in its environment. Only what the environments have in
 * common is here.
 */
export interface Shared {
  /** Environments that are up or being taken down, oldest first. */
  readonly environments: Set<Environment>;
  /** The environment whose gesture, timer or answer runs right now. */
  current: Environment | undefined;
  /** What the test that is running has started and has to await. */
  readonly steps: Set<Step<unknown>>;
  /** Failures that belong to no subject, for the test that is running. */
  readonly strays: Error[];
  /** Counts the take-downs: what an answer remembers does not outlive the test. */
  test: number;
  /** The subjects taken down last, newest first: a late call may be one of theirs. */
  last: string | undefined;
  /** State that other folders keep for the whole process, by name. */
  readonly singletons: Record<string, unknown>;
}

const key = Symbol.for('simulacra');

export const shared: Shared = ((globalThis as Record<symbol, unknown>)[key] ??= {
  environments: new Set(),
  current: undefined,
  steps: new Set(),
  strays: [],
  test: 0,
  last: undefined,
  singletons: {},
}) as Shared;

/** The environments that are up, oldest first. */
export const allUp = (): Environment[] => [...shared.environments].filter(({ state }) => state === 'up');

/** State of a folder that exists once for the process, made when it is first asked for. */
export const once = <T>(name: string, make: () => T): T => (shared.singletons[name] ??= make()) as T;
