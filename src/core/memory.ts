import type { Environment } from './environment';
import { allUp, shared } from './shared';

/**
 * The memory of an answer, separate for each subject: an answer is only a description, and a whole team may
 * share it in its defaults. Without a subject the memory lasts until the end of the test.
 */
export class Memory<S> {
  #outside: { readonly test: number; readonly state: S } | undefined;

  /** @param make makes what is remembered; it is given what this test has done outside of every subject */
  constructor(private readonly make: (outside: S | undefined) => S) {}

  /** What is remembered for a subject. */
  of(environment: Environment | undefined): S {
    return environment
      ? environment.remember(this, () => this.make(this.#outsideOfThisTest()))
      : this.#rememberOutside();
  }

  /** What is remembered for the subjects that are up; where none is, for the test. */
  live(): S[] {
    const up = allUp();
    return up.length > 0 ? up.map((environment) => this.of(environment)) : [this.#rememberOutside()];
  }

  #outsideOfThisTest(): S | undefined {
    return this.#outside?.test === shared.test ? this.#outside.state : undefined;
  }

  #rememberOutside(): S {
    const known = this.#outsideOfThisTest();
    if (known !== undefined) return known;
    const state = this.make(undefined);
    this.#outside = { test: shared.test, state };
    return state;
  }
}
