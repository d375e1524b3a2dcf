import { ChronicleLog } from './chronicle';
import { shortened } from './errors';
import { Gate } from './gate';
import { startTimer } from './host';
import type { Made } from './left';
import type { Logs } from './logs';
import { OpenWork } from './open-work';
import { Sandbox, type Occasion } from './sandbox';
import { shared } from './shared';
import { pageTime, readPageTime } from './page-time';

/** The passing of time, as one subject sees it. */
export interface Clock {
  /** Milliseconds on a clock that never goes back. */
  now(): number;
  /** Runs work once after some milliseconds. @param label what it is, for messages @returns how to call it off */
  after(milliseconds: number, work: () => void, label: string): () => void;
}

/**
 * Everything that belongs to one subject: its clock, gate, open work, chronicle, failures, and the memory of
 * its answers. It exists from the call of `isolate` to the end of take-down. Everything that works for the
 * subject gets it.
 */
export class Environment {
  readonly work = new OpenWork();
  readonly gate = new Gate();
  readonly sandbox = new Sandbox();
  readonly clock: Clock = {
    now: readPageTime,
    after: (milliseconds, work, label) => {
      const { clock } = pageTime;
      if (clock) {
        const answer = clock.schedule({
          ...{ kind: 'answer', label, delay: milliseconds },
          owner: this,
          run: work,
        });
        return () => clock.cancel(answer);
      }
      const callOff = startTimer(milliseconds, () => {
        this.#timers?.delete(callOff);
        work();
      });
      (this.#timers ??= new Set()).add(callOff);
      return callOff;
    },
  };
  readonly chronicle = new ChronicleLog(this.clock.now);
  #timers: Set<() => void> | undefined;
  /** Failures that no step has reported to the test yet; the same one is reported once. */
  #failures: Set<Error> | undefined;
  #memory: Map<object, unknown> | undefined;
  #down: Promise<void> | undefined;
  /** `up` until the take-down begins, `down` when it is over. */
  state: 'up' | 'closing' | 'down' = 'up';

  /** True while a framework starts what all subjects share. What that does belongs to no subject. */
  isPreparing = false;

  constructor(
    /** How the subject is called; its component may not be known yet. */
    public name: string,
  ) {
    shared.environments.add(this);
    this.gate.unattended = (director) => director.next(this);
  }

  /** The component of this subject whose code runs now; undefined for none, or where that is not known. */
  running: () => string | undefined = () => undefined;

  /** Brings the subject to rest; put here by the stage. */
  atRest: () => Promise<void> = () => Promise.resolve();

  /** Words an error that reached the page, from a listener or a timer; put here by the stage. */
  onUncaught: (error: unknown) => void = (error) => this.fail(error as Error);

  /** What it has put in place outside of what it renders: listeners, observers, addresses of objects. */
  made: Set<Made> | undefined;

  /** What it may log; put here when its options are read. */
  logs: Logs | undefined;

  /** Words what was logged while it is taken down; put here by the stage. */
  onLateLog: () => void = () => undefined;

  /** What a framework logs of itself and a test need not hear. */
  readonly silenced: { readonly level: string; readonly pattern: RegExp }[] = [];

  /** True where a route of this subject answers a request. */
  answers: (method: string, url: URL) => boolean = () => false;

  /** True once a test was handed the element it is rendered into, and may have changed it. */
  hasShownContainer = false;

  /** What answers its requests; the folder `network` knows what it is. */
  network: unknown;

  /** Records a failure, which the step that is under way or the end of the test reports. */
  fail(error: Error): void {
    (this.#failures ??= new Set()).add(error);
  }

  /** Returns the failures that were not reported yet, and counts them as reported. */
  takeFailures(): Error[] {
    const failures = this.#failures ? [...this.#failures] : [];
    this.#failures = undefined;
    return failures;
  }

  #told: Set<string> | undefined;

  /** What the end of the test would report and is likely to have made a step fail. */
  takeCauses(): Error[] {
    const causes = this.sandbox.complaints('failing');
    for (const cause of causes) (this.#told ??= new Set()).add(headOf(cause));
    return causes;
  }

  /** What something (a held answer, one in turn) remembers of this subject, made when it is first asked. */
  remember<T>(answer: object, make: () => T): T {
    this.#memory ??= new Map();
    let found = this.#memory.get(answer) as T | undefined;
    if (found === undefined) this.#memory.set(answer, (found = make()));
    return found;
  }

  /** Why it is taken down, once it is. */
  occasion: Occasion | undefined;

  /** Has every step that is under way give up; nothing more is put in place. */
  close(): void {
    if (this.state === 'up') this.state = 'closing';
  }

  /** Takes everything down, once. @throws what there is to complain of, after all is down */
  takeDown(occasion: 'end' | 'unmounted' = 'end'): Promise<void> {
    return (this.#down ??= this.#takeDown(occasion));
  }

  async #takeDown(occasion: Occasion): Promise<void> {
    this.occasion = occasion;
    this.close();
    const found = this.sandbox
      .complaints(occasion)
      .map((complaint) => (this.#told?.has(headOf(complaint)) ? shortened(complaint) : complaint));
    const complaints: unknown[] = [...this.takeFailures(), ...found];
    complaints.push(...(await this.sandbox.undo()));
    this.gate.close();
    for (const callOff of this.#timers ?? []) callOff();
    // Errors thrown during take-down, in the cleanup of an effect for example.
    complaints.push(...this.takeFailures());
    this.state = 'down';
    shared.last = this.name;
    shared.environments.delete(this);
    this.sandbox.refuse(complaints);
  }
}

const headOf = (complaint: Error): string => complaint.message.split('\n\n')[0]!;
