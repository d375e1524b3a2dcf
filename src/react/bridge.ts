import { refuse } from './errors';
import type { Environment } from '../core/environment';
import { shared } from '../core/shared';
import type { StubSet } from '../stage/stubs';

/**
 * When React loads, it connects to a global hook object for development tools. Through it we set a resolver,
 * which React calls for each component it renders and which may return another component. Hot reloading works
 * that way, and so do our stubs, without changes to the code under test. The hook must exist before
 * `react-dom/client` is evaluated, so this module runs first.
 */
export interface Internals {
  readonly version?: string;
  readonly bundleType?: number;
  setRefreshHandler?(resolve: Resolve | null): void;
  getCurrentFiber?(): Fiber | null;
  readonly currentDispatcherRef?: Record<string, unknown>;
}

/** The part of React's own node that we read. Its fields have been stable since React 16. */
export interface Fiber {
  readonly tag: number;
  readonly type: unknown;
  readonly elementType: unknown;
  readonly stateNode: unknown;
  readonly memoizedProps: Record<string, unknown> | null;
  readonly return: Fiber | null;
  readonly child: Fiber | null;
  readonly sibling: Fiber | null;
  readonly alternate: Fiber | null;
  readonly flags?: number;
  /** The contexts it has read, one after the other. */
  readonly dependencies?: { readonly firstContext: ReadContext | null } | null;
}

interface ReadContext {
  readonly context: unknown;
  readonly next: ReadContext | null;
}

/** What React keeps of a root, as far as we read it: its pending work is a set of bits, one for each lane. */
export interface FiberRoot {
  readonly containerInfo: Element;
  readonly current: Fiber;
  readonly pendingLanes: number;
  readonly suspendedLanes: number;
  readonly pingedLanes: number;
}

type Resolve = (type: unknown) => { readonly current: unknown } | undefined;

interface Hook {
  renderers?: Map<number, Internals>;
  inject?(internals: Internals): number;
  onCommitFiberRoot?(id: number, root: FiberRoot, ...rest: unknown[]): void;
  [more: string]: unknown;
}

type Client = typeof import('react-dom/client');

/** A subject's stubs, and what React renders for each. */
export interface Live {
  readonly environment: Environment;
  readonly stubs: StubSet;
  readonly anchor: unknown;
  /** What a record's stub is for each kind of original: React looks a family up by identity. */
  readonly families: Map<unknown, { readonly current: unknown }>;
}

interface Bridge {
  /** react-dom, once it was loaded through the bridge. */
  client: Client | undefined;
  internals: Internals | undefined;
  resolve: Resolve | undefined;
  /** Called when a container was rendered. */
  readonly committed: Map<Element, () => void>;
  readonly live: Map<Element, Live>;
  /** The components that are stubs. */
  readonly stubs: WeakSet<object>;
  /** Called for each context that is read, with its reader and its provider. */
  readonly readListeners: Set<(context: unknown, fiber: Fiber, provider: Fiber | undefined) => void>;
  /** Roots that code under test has made itself. */
  readonly otherRoots: Set<FiberRoot>;
  /** True once the place of React's hooks is watched. */
  watching: boolean;
}

/** What came through the hook, once for the process. */
export const bridge: Bridge = (shared.singletons['react'] ??= open()) as Bridge;

function open(): Bridge {
  const made: Bridge = {
    client: undefined,
    internals: undefined,
    resolve: undefined,
    committed: new Map(),
    live: new Map(),
    stubs: new WeakSet(),
    readListeners: new Set(),
    otherRoots: new Set(),
    watching: false,
  };
  const place = globalThis as { __REACT_DEVTOOLS_GLOBAL_HOOK__?: Hook };
  const hook: Hook = (place.__REACT_DEVTOOLS_GLOBAL_HOOK__ ??= {
    renderers: new Map(),
    supportsFiber: true,
    checkDCE() {},
    onCommitFiberUnmount() {},
  });
  // An existing hook belongs to other tools. We forward each call to them.
  const { inject, onCommitFiberRoot } = hook;
  for (const internals of hook.renderers?.values() ?? []) take(made, internals);
  hook.inject = function (internals) {
    take(made, internals);
    if (inject) return inject.call(hook, internals);
    const id = (hook.renderers?.size ?? 0) + 1;
    hook.renderers?.set(id, internals);
    return id;
  };
  hook.onCommitFiberRoot = function (id, root, ...rest) {
    const listen = made.committed.get(root.containerInfo);
    if (listen) listen();
    else if (root.current.child) made.otherRoots.add(root);
    else made.otherRoots.delete(root);
    onCommitFiberRoot?.call(hook, id, root, ...rest);
  };
  return made;
}

// A renderer has one resolver. If someone sets another one later, we call it for components we do not
// replace.
function take(made: Bridge, internals: Internals): void {
  made.internals = internals;
  const { setRefreshHandler } = internals;
  if (!setRefreshHandler) return;
  let other: Resolve | null = null;
  const ours: Resolve = (type) => made.resolve?.(type) ?? other?.(type);
  internals.setRefreshHandler = (resolve) => {
    other = resolve;
    setRefreshHandler(ours);
  };
  setRefreshHandler(ours);
}

// Load it as soon as the bridge is open, if there is a page. A runner that resets its modules for each test
// would later load a renderer with another copy of React. Errors are reported when the renderer is needed.
const loading = typeof document === 'undefined' ? undefined : import('react-dom/client');
loading?.catch(() => undefined);

/** Loads react-dom through the bridge. @throws SIM-REACT-EARLY, SIM-REACT-PRODUCTION */
export const loadReactDom = (): Promise<void> | undefined => (bridge.client ? undefined : readReactDom());

async function readReactDom(): Promise<void> {
  const client = await (loading ?? import('react-dom/client'));
  const { internals } = bridge;
  const version = internals?.version ?? '';
  if (!internals) refuse('SIM-REACT-EARLY', { version });
  if (!internals.setRefreshHandler || !internals.getCurrentFiber) {
    const mode = (globalThis as { process?: { env: Record<string, string | undefined> } }).process?.env[
      'NODE_ENV'
    ];
    refuse('SIM-REACT-PRODUCTION', { version, mode: mode ?? 'production' });
  }
  bridge.client = 'default' in client && client.default ? (client.default as Client) : client;
}
