import * as core from '@angular/core';
import type { Environment } from '../core/environment';
import { errorOf, settleAnswer } from '../core/settle-answer';
import type { Scope } from './scope';

type Load = () => Promise<unknown>[];

/**
 * Lets the test decide how `@defer` blocks load: a held answer keeps the `@loading` block, a failure shows the
 * `@error` block. A component that is loaded is real or a stub, like any other child.
 */
export const deferredBy = (answer: unknown, scope: Scope, environment: Environment): core.Provider => ({
  provide: core.ɵDEFER_BLOCK_DEPENDENCY_INTERCEPTOR,
  useValue: {
    intercept(load: Load | null): Load | null {
      scope.retire();
      if (!load && answer === undefined) return null;
      return () => {
        const allowed = settle(answer, environment);
        const loaded = load?.() ?? [];
        return [allowed, ...loaded.map((one) => one.then((type) => scope.loaded(type)))];
      };
    },
  },
});

// Angular inspects each loaded value. It ignores this one.
class Nothing {}

async function settle(answer: unknown, environment: Environment): Promise<unknown> {
  if (answer === undefined) return Nothing;
  const call = (given: () => unknown) => given();
  const settled = await settleAnswer(answer, { environment, label: '@defer', call });
  if (settled.outcome === 'failure') throw errorOf(settled.failure);
  return Nothing;
}
