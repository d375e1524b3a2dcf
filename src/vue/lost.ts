import * as Vue from 'vue';
import { once } from '../core/shared';

/*
 * What Vue throws outside of all components, where no handler of an application hears it: it gives up on
 * watchers that set each other off, or an element cannot be made. Only the promise of the flush rejects.
 */

interface Hearer {
  /** True for a component of that name inside of the application. */
  has(component: string): boolean;
  hear(error: unknown): void;
}

const hearers = once('vue-lost', () => new Set<Hearer>());

/** @returns how to stop hearing */
export function hearLost(hearer: Hearer): () => void {
  hearers.add(hearer);
  return () => void hearers.delete(hearer);
}

/** The end of the flush that is under way. What it threw goes to the application it came from. */
export async function flushed(): Promise<void> {
  try {
    await Vue.nextTick();
  } catch (error) {
    const name = componentIn(error);
    const all = [...hearers];
    const own = all.length === 1 ? all[0] : all.find((one) => name !== undefined && one.has(name));
    if (!own) throw error;
    own.hear(error);
  }
}

/** `HiveCard` of "Maximum recursive updates exceeded in component <HiveCard>. …" */
export const componentIn = (error: unknown): string | undefined =>
  /^[^.]* in component <(.+?)>/.exec(String(error))?.[1];
