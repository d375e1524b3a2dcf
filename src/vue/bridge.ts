import * as Vue from 'vue';
import { refuse } from './errors';
import { nextTurn } from '../core/host';
import { once, shared } from '../core/shared';
import type { StubSet } from '../stage/stubs';

/**
 * A development build of Vue passes the arguments of every vnode, and the component that renders it, to one
 * function that may change them (`transformVNodeArgs`). Stubs are put in there, without changes to the code
 * under test. Events and renderings are reported by Vue's hook for development tools.
 */
export interface Live {
  readonly stubs: StubSet;
  /** The subject as it was rendered last. */
  vnode: Vue.VNode | undefined;
  /** What is rendered for a component instead, once for each. */
  readonly replaced: Map<unknown, Vue.Component>;
  /** What stands for each name that is registered nowhere. */
  readonly unresolvedNames: Map<string, object>;
  readonly levels: WeakMap<Vue.ComponentInternalInstance, number>;
  onRendered(): void;
  /** To be called when an instance asks for what nobody provides. */
  onBareRead(instance: Vue.ComponentInternalInstance, key: string | symbol): void;
  onEmitted(instance: Vue.ComponentInternalInstance, event: string, args: unknown[]): void;
}

/** The subjects that are up, by their applications. */
export const live = (shared.singletons['vue'] ??= new Map()) as Map<Vue.App, Live>;

interface Hook {
  emit(event: string, ...args: unknown[]): void;
  on?(): void;
  once?(): void;
  off?(): void;
  readonly appRecords?: unknown[];
}

const page = globalThis as { __VUE_DEVTOOLS_GLOBAL_HOOK__?: Hook };
interface State {
  ready: boolean;
  /** What `nextTick` returns while no flush is scheduled. */
  idle: Promise<void> | undefined;
}

// One per copy of Vue, since each copy has its own queue.
const states = once('vue-bridge', () => new WeakMap<object, State>());
const state: State = states.get(Vue.nextTick) ?? { ready: false, idle: undefined };
states.set(Vue.nextTick, state);

/** True while Vue has a flush of its queue scheduled: `nextTick` hands out the promise it works with itself. */
export const isPending = (): boolean => Vue.nextTick() !== state.idle;

/** Opens the bridge once. @throws SIM-VUE-PRODUCTION */
export const prepare = (): Promise<void> | undefined => (state.ready ? undefined : open());

async function open(): Promise<void> {
  let asked = false;
  Vue.transformVNodeArgs((args) => {
    asked = true;
    return args;
  });
  Vue.createVNode('i');
  Vue.transformVNodeArgs();
  if (!asked) refuse('SIM-VUE-PRODUCTION', { version: Vue.version });
  // The first application creates the renderer, which resets the hook.
  Vue.createApp({});
  listen();
  state.ready = true;
  // Everything queued before has run by then.
  await nextTurn();
  state.idle = Vue.nextTick();
}

// An existing hook belongs to other tools. We forward everything to them.
function listen(): void {
  const other = page.__VUE_DEVTOOLS_GLOBAL_HOOK__;
  const emit = (event: string, ...args: unknown[]) => {
    if (event === 'component:emit') {
      const [app, instance, name, params] = args as [
        Vue.App,
        Vue.ComponentInternalInstance,
        string,
        unknown[],
      ];
      live.get(app)?.onEmitted(instance, name, params);
    } else if (event === 'component:added' || event === 'component:updated') {
      live.get(args[0] as Vue.App)?.onRendered();
    }
    other?.emit(event, ...args);
  };
  const nothing = () => undefined;
  Vue.setDevtoolsHook(
    { on: nothing, once: nothing, off: nothing, appRecords: [], ...other, emit } as never,
    {},
  );
}
