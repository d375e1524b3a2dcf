import type { Environment } from '../core/environment';
import { once } from '../core/shared';
import { subjectMark } from '../page/locators';

/**
 * Containers that are reused: in a simulated page, creating and marking one takes longer than rendering a
 * small component. A container is reused only if the test never received it, and if it is empty and has no
 * attributes and listeners of anyone else.
 */
interface Kept {
  /** True once somebody has listened on it. */
  isSpoilt: boolean;
}

const pool = once('containers', () => ({ free: [] as HTMLElement[], known: new WeakMap<Element, Kept>() }));
const most = 8;

/** What Vue writes on what it renders into, the same each time. */
const markOfVue = 'data-v-app';

/** An element to render into; a used one where there is one. */
export function takeContainer(name: string): HTMLElement {
  const at = pool.free.findIndex(isAsNew);
  const container = at < 0 ? makeContainer() : pool.free.splice(at, 1)[0]!;
  markContainer(container, name);
  return container;
}

/** Says whose a container is. */
export function markContainer(container: HTMLElement, name: string): void {
  if (container.getAttribute(subjectMark) !== name) container.setAttribute(subjectMark, name);
}

function makeContainer(): HTMLElement {
  const container = document.createElement('div');
  const kept: Kept = { isSpoilt: false };
  pool.known.set(container, kept);
  const listen = container.addEventListener;
  container.addEventListener = function (...args: Parameters<typeof listen>) {
    kept.isSpoilt = true;
    return listen.apply(container, args);
  } as typeof listen;
  return container;
}

// Detached and empty.
const isAsNew = (container: HTMLElement): boolean =>
  container.ownerDocument === document && !container.isConnected && container.firstChild === null;

/** Gives back what a subject was rendered into, to be used again where nobody has left a trace on it. */
export function giveBackContainer(container: HTMLElement, { hasShownContainer }: Environment): void {
  if (hasShownContainer || pool.free.length >= most || pool.known.get(container)?.isSpoilt !== false) return;
  const own = container.hasAttribute(markOfVue) ? 2 : 1;
  // A list of names is cheaper to make than the live `attributes`.
  if (container.getAttributeNames().length === own) pool.free.push(container);
}
