import { calledFrom } from '../../core/errors/called-from';
import type { Made } from '../../core/left';
import { ownerOfCall } from '../../core/ownership';
import { depthOfStack } from './run-timer';

/**
 * Notes that a subject has put something in place which it has to take away.
 *
 * @param what as a message calls it: `an object URL`
 * @param below the function whose caller is told
 * @param isOver tells whether it has come to an end by itself
 * @returns what is to be called when it is taken away; undefined where no subject made it
 */
export function noteMade(
  what: string,
  below: (...args: never[]) => unknown,
  isOver?: () => boolean,
): (() => void) | undefined {
  const owner = ownerOfCall();
  if (!owner) return undefined;
  const made: Made = {
    what,
    from: owner.running(),
    calledAt: calledFrom('made', below, depthOfStack()),
    ...(isOver && { isOver }),
  };
  const all = (owner.made ??= new Set());
  all.add(made);
  return () => void all.delete(made);
}
