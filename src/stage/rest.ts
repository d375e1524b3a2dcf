import { refuse } from './errors';
import { openGate } from '../core/gate';
import { nextTurn, startTimer } from '../core/host';
import { shared } from '../core/shared';
import type { Adapter } from './adapter';

const mostTurns = 500;

/**
 * Brings the page to rest: turn after turn, until one goes by in which nothing happened. What is
 * due later (a timer, a held answer) is not waited for.
 *
 * @throws SIM-REST-NEVER
 */
export async function comeToRest(
  adapter: Adapter,
  about: { name: string; busy(): string; onTurn(): void },
): Promise<void> {
  shared.driving++;
  try {
    let quiet = 0;
    // The body of an answer takes some turns to be read.
    let needed = 1;
    for (let turn = 0; quiet < needed; turn++) {
      if (turn > mostTurns)
        refuse('SIM-REST-NEVER', { subject: about.name, turns: mostTurns, busy: about.busy() });
      const before = shared.activity;
      about.onTurn();
      const answers = shared.gate.length;
      // Who was answered may put off telling it by a timer of 0 ms, which comes after many a turn.
      await adapter.settle(needed > 1 && quiet === needed - 1 ? passTimers : takeTurn);
      if (answers > 0) needed = 3;
      quiet = shared.activity === before && shared.gate.length === 0 ? quiet + 1 : 0;
    }
  } finally {
    shared.driving--;
  }
}

async function takeTurn(): Promise<void> {
  openGate();
  await nextTurn();
}

const passTimers = () => new Promise<void>((resolve) => void startTimer(0, resolve));
