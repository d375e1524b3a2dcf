import { joinComplaints } from './errors';
import { isPromise } from './is-promise';

type Undo = () => unknown;

/** When a check is made: at the end of the test, when a step of it has failed, or when `isolate` has. */
export type Occasion = 'end' | 'failing' | 'unmounted';

/**
 * Everything put in place for one subject. What is put in place last is taken down first, and a
 * step that fails does not keep the others from being taken down.
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
        // Waiting for what is done already takes a turn of its own.
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
