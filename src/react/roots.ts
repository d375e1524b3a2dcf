import type { Root } from 'react-dom/client';
import { once } from '../core/shared';
import type { Plan } from '../stage/adapter';
import { bridge } from './bridge';
import { rootOf } from './work';

/**
 * React adds a hundred listeners to each container, which takes a simulated page longer than rendering a
 * small component. So a container is reused together with its root, if the test never received it and if it
 * is empty and has no other listeners.
 */
interface Pooled {
  readonly root: Root;
  /** Whose errors are reported now. */
  plan: Plan | undefined;
  /** True once a component has listened on it, or something has failed in it. */
  isSpoilt: boolean;
}

const pool = once('react-pool', () => ({ free: [] as HTMLElement[], known: new WeakMap<Element, Pooled>() }));
const most = 8;

/** A container to render into; a used one where there is one. */
export function takeContainer(): HTMLElement | undefined {
  const at = pool.free.findIndex(isAsNew);
  return at < 0 ? undefined : pool.free.splice(at, 1)[0];
}

// Detached, empty, and without pending work of React.
const isAsNew = (container: HTMLElement): boolean =>
  !container.isConnected && container.firstChild === null && rootOf(container)?.pendingLanes === 0;

/** Has a container not be used again: something has failed in it. */
export function spoil(container: Element): void {
  const pooled = pool.known.get(container);
  if (pooled) pooled.isSpoilt = true;
}

/** The root of a container. */
export function takeRoot(plan: Plan): Root {
  const known = pool.known.get(plan.container);
  if (known) {
    known.plan = plan;
    return known.root;
  }
  const { container } = plan;
  const tell = (error: unknown) => {
    pooled.isSpoilt = true;
    pooled.plan?.chronicle.add('threw', pooled.plan.name, { detail: String(error) });
  };
  const options = { onCaughtError: tell, onRecoverableError: tell };
  const pooled: Pooled = {
    root: bridge.client!.createRoot(container, options as never),
    plan,
    isSpoilt: false,
  };
  // From now on, only code under test adds listeners.
  const listen = container.addEventListener;
  container.addEventListener = function (...args: Parameters<typeof listen>) {
    pooled.isSpoilt = true;
    return listen.apply(container, args);
  } as typeof listen;
  pool.known.set(container, pooled);
  return pooled.root;
}

/** Takes down what is rendered in a container, and keeps the container where nobody has left a trace on it. */
export function giveBack(container: HTMLElement, { environment }: Plan): void {
  const pooled = pool.known.get(container)!;
  const isReusable =
    !pooled.isSpoilt &&
    !environment.hasShownContainer &&
    pool.free.length < most &&
    container.attributes.length === 1;
  if (!isReusable) {
    pool.known.delete(container);
    pooled.root.unmount();
    return;
  }
  pooled.root.render(null);
  pooled.plan = undefined;
  pool.free.push(container);
}
