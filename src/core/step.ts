import { shared } from './shared';

// The platform's own class, even if a library has replaced the global one.
const NativePromise = (async () => {})().constructor as PromiseConstructor;

/**
 * The promise that a step of a test returns. It knows whether the test has awaited it. `await` calls `then`
 * only on promises of another class than the platform's own, so this is a subclass.
 */
export class Step<T> extends NativePromise<T> {
  isAwaited = false;
  isOver = false;
  failure: unknown;
  asked = '';
  calledAt: Error | undefined;

  static override get [Symbol.species]() {
    return NativePromise;
  }

  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- as the platform declares it
  override then(...args: any[]): any {
    this.isAwaited = true;
    return super.then(...(args as []));
  }

  /** The same without counting as awaited. */
  follow(done: (value: T) => void, failed: (reason: unknown) => void): void {
    void super.then(done, failed);
  }
}

/**
 * Turns some work into a step of the running test.
 *
 * @param asked the call as the user wrote it, shortened: `click`
 */
export function makeStep<T>(asked: string, calledAt: Error, work: Promise<T>): Step<T> {
  const step = new Step<T>((resolve, reject) => void work.then(resolve, reject));
  step.asked = asked;
  step.calledAt = calledAt;
  shared.steps.add(step);
  const over = (failure?: unknown) => {
    step.isOver = true;
    step.failure = failure;
    if (step.isAwaited) shared.steps.delete(step);
  };
  step.follow(() => over(), over);
  return step;
}
