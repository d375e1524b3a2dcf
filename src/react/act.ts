import * as React from 'react';
import { nextTurn } from '../core/host';
import { once } from '../core/shared';

type Act = (work: () => unknown) => PromiseLike<void>;
const { act = undefined, unstable_act = act } = React as { act?: Act; unstable_act?: Act };

const page = globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean | undefined };
const scope = once('react-act', () => ({ depth: 0 }));

// React needs this flag to enter the scope, and with the flag it warns about updates outside of the scope. So
// the flag is set only inside, and the user never sees the warning.
function enter(): () => void {
  const before = page.IS_REACT_ACT_ENVIRONMENT;
  page.IS_REACT_ACT_ENVIRONMENT = true;
  scope.depth++;
  return () => {
    scope.depth--;
    page.IS_REACT_ACT_ENVIRONMENT = before;
  };
}

/** Runs work and renders all it caused, effects included. */
export async function settle(work: () => unknown): Promise<void> {
  if (scope.depth > 0) {
    // A caller has already opened a scope. A nested scope would flush only part of the work.
    await work();
    await nextTurn();
    return;
  }
  const leave = enter();
  try {
    await unstable_act!(async () => void (await work()));
  } finally {
    leave();
  }
}

/** The same for work that is done at once. */
export function settleNow(work: () => void): void {
  const leave = enter();
  try {
    void unstable_act!(() => void work());
  } finally {
    leave();
  }
}
