import type { Environment } from '../core/environment';
import { joinComplaints, locateAt } from '../core/errors';
import { pageTime } from '../core/page-time';
import { keepPage } from '../page/settings/kept';
import type { Ground } from './ground';
import { refuseLeaks } from './leaks';
import { complainOfLogs, readLogs, watchLateLogs } from './logs';
import type { AllOptions } from './options';
import { changeScreen, enterPage } from './page';
import { enterTime } from './time';

/* What `isolate` and `open` begin with. */

/** Puts something up for a test; what was set up before a failure is undone before the test gets the error. */
export async function putUp<T>(
  environment: Environment,
  calledAt: Error,
  setUp: () => Promise<T>,
): Promise<T> {
  environment.gate.stepsRunning++;
  try {
    return await setUp();
  } catch (failure) {
    const more: unknown = await environment.takeDown('unmounted').then(
      () => undefined,
      (complaint: unknown) => complaint,
    );
    const located = locateAt(failure, calledAt);
    throw more === undefined || more === failure ? located : joinComplaints([located, more]);
  } finally {
    environment.gate.stepsRunning--;
  }
}

/** Gives a subject its page and its time. @throws SIM-PAGE-SETTING, SIM-TIME-DATE and their kin */
export function enterSurroundings(
  environment: Environment,
  { page, time }: Pick<AllOptions, 'page' | 'time'>,
  calledAt: Error,
): Promise<void> | undefined {
  environment.sandbox.onTakeDown(keepPage(environment));
  if (page !== undefined) enterPage(environment, page, calledAt);
  if (time !== undefined || pageTime.clock) enterTime(environment, time, calledAt);
  return page && changeScreen(page);
}

/** Watches over what is logged and what is left behind. */
export function guard(ground: Ground, options: AllOptions, calledAt: Error): void {
  const { environment } = ground;
  const logs = (environment.logs = readLogs(options));
  watchLateLogs(ground, logs);
  environment.sandbox.checks.push((occasion) => complainOfLogs(ground, logs, occasion));
  ground.refuseLeaks = () => {
    // What failed may not have got to the end of its own clean-up.
    if (environment.occasion === 'end') refuseLeaks(ground, options.leaks ?? 'fail', calledAt);
  };
}
