import { explain, joinComplaints } from './errors';
import { startTimer } from './host';
import { recordings } from './recordings';
import { once, shared } from './shared';

/**
 * Unmounts every subject that is still up, newest first, and restores the page. Where the runner has a global
 * `afterEach`, as Jest has, this happens after each test. In another runner, call it in the hook that does.
 *
 * @throws all problems of the test: a request without a route, a stub that nothing used, an error after the
 * last step, a step that was not awaited
 * @example
 * await isolate(HiveCard, { props: { hive: hives[0] } });
 * await takeDown();
 */
export async function takeDown(): Promise<void> {
  const complaints: unknown[] = [];
  // Cancel work in progress, so that it cannot affect the next test.
  for (const environment of shared.environments) environment.close();
  const forgotten = [...shared.steps].filter(({ isAwaited }) => !isAwaited);
  await settled([...shared.steps].filter(({ isOver }) => !isOver));
  for (const { asked, calledAt, failure } of forgotten)
    complaints.push(explain('SIM-STEP-UNAWAITED', { asked, threw: wordingOf(failure) }, { calledAt }));
  for (const environment of [...shared.environments].reverse()) {
    await environment.takeDown().catch((complaint: unknown) => complaints.push(complaint));
  }
  for (const stop of [...recordings]) stop();
  complaints.push(...shared.strays.splice(0));
  shared.steps.clear();
  shared.test++;
  if (complaints.length > 0) throw joinComplaints(complaints);
}

/** Has a runner take subjects down after each test, once for each test file. @param afterEach the runner's hook */
export function hookTakeDown(afterEach: ((work: () => Promise<void>) => void) | undefined): void {
  const hook = once('hook', () => ({ isSet: false }));
  if (hook.isSet || !afterEach) return;
  afterEach(takeDown);
  hook.isSet = true;
}

// That the subject was taken down first is a consequence, not an error.
const wordingOf = (failure: unknown) =>
  failure instanceof Error && (failure as { code?: unknown }).code !== 'SIM-SUBJECT-GONE'
    ? failure.message.split('\n\n')[0]!.replace(/\s*\n\s*/g, ' ')
    : undefined;

// A step that cannot end (a module that never loads, for example) is abandoned.
async function settled(steps: readonly PromiseLike<unknown>[]): Promise<void> {
  if (steps.length === 0) return;
  let giveUp = () => {};
  const patience = new Promise<void>((resolve) => (giveUp = startTimer(1000, resolve)));
  await Promise.race([Promise.allSettled(steps), patience]);
  giveUp();
}
