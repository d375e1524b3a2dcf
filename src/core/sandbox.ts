import { joinComplaints } from './errors';
import { shared } from './shared';

type Undo = () => unknown;

/**
 * Everything put in place for one subject. What is put in place last is taken down first, and a
 * step that fails does not keep the others from being taken down.
 */
export class Sandbox {
  readonly #undo: Undo[] = [];
  #down: Promise<void> | undefined;
  /** Checks that run before anything is taken down; each may complain by throwing. */
  readonly checks: (() => void)[] = [];
  /** Set once a failure was explained to the user; what is left over then is no news. */
  explained = false;

  constructor() {
    shared.sandboxes.add(this);
  }

  /** Remembers how to undo what was just put in place. */
  onTakeDown(undo: Undo): void {
    this.#undo.push(undo);
  }

  /** Takes everything down, once. @throws the first complaint, after all is down. */
  takeDown(): Promise<void> {
    return (this.#down ??= this.#takeAllDown());
  }

  async #takeAllDown(): Promise<void> {
    const complaints: unknown[] = [];
    for (const check of this.explained ? [] : this.checks) {
      try {
        check();
      } catch (complaint) {
        complaints.push(complaint);
      }
    }
    for (const undo of this.#undo.splice(0).reverse()) {
      try {
        await undo();
      } catch (complaint) {
        complaints.push(complaint);
      }
    }
    shared.sandboxes.delete(this);
    if (complaints.length > 0) throw joinComplaints(complaints);
  }
}

/**
 * Takes down every subject that is still up, newest first. With `simulacra/jest` this happens by
 * itself after each test; in another runner call it in the hook that runs after each test.
 *
 * @throws what a subject had to complain of: a request nobody answered, a stub that was never used.
 * @example
 * await isolate(HiveCard, { props: { hive: hives[0] } });
 * await takeDown();
 */
export async function takeDown(): Promise<void> {
  const complaints: unknown[] = [];
  for (const sandbox of [...shared.sandboxes].reverse()) {
    await sandbox.takeDown().catch((complaint: unknown) => complaints.push(complaint));
  }
  if (complaints.length > 0) throw joinComplaints(complaints);
}
