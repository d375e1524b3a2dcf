import type { Environment } from './environment';
import { followCalls, type Follower } from './host';
import { once, shared } from './shared';

/*
 * Which subject a call belongs to. In this order: the component that runs; the gesture, timer or answer
 * that runs; who started the promise chain, where the platform knows (Node does, from the moment two
 * subjects are up at once; a browser cannot); the only subject there is; the only one that a route
 * speaks for. A call that none of these assigns belongs to nobody.
 */

const following = once<{ follower: Follower<Environment> | undefined }>('ownership', () => ({
  follower: undefined,
}));

/** Runs work as a subject's: what it asks and starts belongs to that subject. */
export function runAs<T>(environment: Environment, work: () => T): T {
  const before = shared.current;
  shared.current = environment;
  try {
    // Tracking promise chains slows every promise down a little, so it is off while only one subject is
    // possible.
    if (!following.follower && (shared.environments.size > 1 || environment.state === 'down'))
      following.follower = followCalls();
    return following.follower ? following.follower.run(environment, work) : work();
  } finally {
    shared.current = before;
  }
}

/** What happens until the work is done belongs to a subject, unless something closer to it says otherwise. */
export async function holdAs<T>(environment: Environment, work: () => Promise<T>): Promise<T> {
  const before = shared.current;
  shared.current = environment;
  try {
    return await work();
  } finally {
    if (shared.current === environment) shared.current = before;
  }
}

/** The subject whose component runs now. */
export function runningEnvironment(): Environment | undefined {
  for (const environment of shared.environments) if (environment.running() !== undefined) return environment;
  return undefined;
}

/**
 * The subject that a call belongs to. For a late call this may be a subject that was taken down.
 *
 * @param fits says whether a subject could be meant, where nothing else does
 */
export function ownerOfCall(fits?: (environment: Environment) => boolean): Environment | undefined {
  const running = runningEnvironment();
  if (running) {
    // Everything from here on belongs to this subject, even if another one triggered the rendering.
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
  for (const environment of shared.environments) return environment.isPreparing ? undefined : environment;
  return undefined;
}

/**
 * Reports a refusal to the subject whose code was refused, because that code may catch the error. The test's
 * own code sees the error itself, so nothing is reported then.
 */
export function reportRefusal(error: Error): void {
  const owner =
    runningEnvironment() ??
    shared.current ??
    following.follower?.current() ??
    [...shared.environments].find(({ gate }) => gate.stepsRunning > 0);
  if (owner && owner.state !== 'down') owner.fail(error);
}
