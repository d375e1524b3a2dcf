import { calledFrom } from './errors/called-from';
import { ownerOfCall } from './ownership';

/** Something that was started or put in place, and has to be ended. */
export interface Made {
  /** `setInterval 4000 ms`, `a listener for "resize"`; a function where it can be said only later. */
  readonly what: string | (() => string);
  /** The component that made it, where that is known. */
  readonly from: string | undefined;
  /** Where the call was made; read only for a message. */
  readonly calledAt: Error | undefined;
  /** True where it has come to an end by itself, as an observer of what is off the page. */
  readonly isOver?: () => boolean;
}

/**
 * How many frames show who made something. zone.js and rxjs put many frames of their own between the code that
 * asks for it and ours; each frame that is kept costs time in every call.
 *
 * @param isOften true for what is made often, and directly
 */
export const depthOfStack = (isOften = false): number => (isOften ? 6 : 22) + ('Zone' in globalThis ? 10 : 0);

/**
 * Notes that a subject has put something in place which it has to take away.
 *
 * @param what as a message calls it: `an object URL`
 * @param below the function whose caller is named
 * @param isOver says whether it has ended by itself
 * @returns what is to be called when it is taken away; undefined where no subject made it
 */
export function noteMade(
  what: Made['what'],
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
