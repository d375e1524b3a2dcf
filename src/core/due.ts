import type { Environment } from './environment';
import { pageTime } from './page-time';

/**
 * Runs work once on a subject's clock, and counts it as due until then.
 *
 * @param delay milliseconds
 * @param label what it is, for messages
 * @returns how to call it off
 */
export function runDue(environment: Environment, delay: number, label: string, work: () => void): () => void {
  // A virtual clock keeps a list of its own.
  const end = pageTime.clock ? undefined : environment.work.beginTimer('answer', label, delay);
  const callOff = environment.clock.after(
    delay,
    () => {
      end?.();
      work();
    },
    label,
  );
  return () => {
    end?.();
    callOff();
  };
}
