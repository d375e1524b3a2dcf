import { joinComplaints } from './errors';
import { isPromise } from './is-promise';

type Undo = () => unknown;

/** When a check is made: at the end of the test, when a step of it has failed, or when `isolate` has. */
export type Occasion = 'end' | 'failing' | 'unmounted';

/**
 * Undoes everything that was set up for one subject, in reverse order. A step that fails does not stop the
 * others.
 */
export class Sandbox {
  readonly #undo: Undo[] = [];
  /** Checks that run before anything is taken down; each returns what it complains of. */
  readonly checks: ((occasion: Occasion) => Error | undefined)[] = [];

  /** Remembers how to undo what was just put in place. */
  onTakeDown(undo: Undo): void {
    this.#undo.push(undo);
  }

  /** What the checks complain of now. */
  complaints(occasion: Occasion): Error[] {
    return this.checks.flatMap((check) => {
      try {
        return check(occasion) ?? [];
      } catch (complaint) {
        return complaint as Error;
      }
    });
  }

  /** Undoes everything, the last first. @returns what was thrown on the way */
  async undo(): Promise<unknown[]> {
    const thrown: unknown[] = [];
    for (let undo = this.#undo.pop(); undo; undo = this.#undo.pop()) {
      try {
        const work = undo();
        // Awaiting something that is already done would cost a turn.
        if (isPromise(work)) await work;
      } catch (error) {
        thrown.push(error);
      }
    }
    return thrown;
  }

  /** @throws all complaints as one, where there are any */
  refuse(complaints: readonly unknown[]): void {
    if (complaints.length > 0) throw joinComplaints(complaints);
  }
}
