import type { Environment } from './environment';
import { followCalls, type Follower } from './host';
import { once, shared } from './shared';

/*
 * Which subject a call belongs to. In this order: the component that runs; the gesture, timer or answer
 * that runs; who started the promise chain, where the platform can tell (Node can, from the moment two
 * subjects are up at once; a browser cannot); the only subject there is; the only one that a route
 * speaks for. What none of these tells belongs to nobody.
 */

const following = once<{ follower: Follower<Environment> | undefined }>('ownership', () => ({
  follower: undefined,
}));

/** Runs work as a subject's: what it asks and starts belongs to that subject. */
export function runAs<T>(environment: Environment, work: () => T): T {
  const before = shared.current;
  shared.current = environment;
  try {
    // Following promise chains slows every promise down a little, so nobody pays while there is no choice.
    if (!following.follower && (shared.environments.size > 1 || environment.state === 'down'))
      following.follower = followCalls();
    return following.follower ? following.follower.run(environment, work) : work();
  } finally {
    shared.current = before;
  }
}

/** The subject whose component runs now. */
export function runningEnvironment(): Environment | undefined {
  for (const environment of shared.environments) if (environment.running() !== undefined) return environment;
  return undefined;
}

/**
 * The subject a call belongs to; one that was taken down already where a late call of it is seen.
 *
 * @param fits tells whether a subject could be meant, where nothing else tells
 */
export function ownerOfCall(fits?: (environment: Environment) => boolean): Environment | undefined {
  const running = runningEnvironment();
  if (running) {
    // What goes on from here is this subject's, whoever had the framework render it.
    following.follower?.enter(running);
    return running;
  }
  const followed = shared.current ?? following.follower?.current();
  const fitting = () => [...shared.environments].filter((environment) => fits?.(environment));
  if (followed) {
    if (!fits || followed.state === 'down' || fits(followed)) return followed;
    const others = fitting();
    return others.length === 1 ? others[0] : followed;
  }
  const { size } = shared.environments;
  if (size < 2) return only();
  const others = fitting();
  return others.length > 0 ? others.at(-1) : undefined;
}

function only(): Environment | undefined {
  for (const environment of shared.environments) return environment;
  return undefined;
}

/**
 * Reports a refusal to the subject whose code was refused, which may catch it. Where the test's own code
 * was refused there is nothing to report: it sees the error itself.
 */
export function reportRefusal(error: Error): void {
  const owner =
    runningEnvironment() ??
    shared.current ??
    following.follower?.current() ??
    [...shared.environments].find(({ gate }) => gate.stepsRunning > 0);
  if (owner && owner.state !== 'down') owner.fail(error);
}
