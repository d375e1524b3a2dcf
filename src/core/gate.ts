import { nextTurn } from './host';
import { shared } from './shared';

/**
 * An answer that is ready at once would be rendered together with the loading state before it, and
 * the loading state would never be seen. So every answer that a component waits for passes this
 * gate, which opens only after what came before has been rendered.
 */
export function passGate(): Promise<void> {
  return new Promise((resolve) => {
    shared.gate.push(resolve);
    if (shared.gate.length === 1) void openUnattended();
  });
}

/** Lets through what has been waiting; what comes later waits for the next opening. */
export function openGate(): void {
  const waiting = shared.gate.splice(0);
  shared.activity += waiting.length;
  for (const go of waiting) go();
}

// Between the steps of a test nobody drives the turns: a component's own timer may ask then.
async function openUnattended(): Promise<void> {
  await nextTurn();
  await nextTurn();
  if (shared.driving === 0) openGate();
  else if (shared.gate.length > 0) void openUnattended();
}
