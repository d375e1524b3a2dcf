import * as Vue from 'vue';
import { once as onlyOnce } from '../core/shared';
import type { Mounted, Plan } from '../stage/adapter';
import { nearest } from '../core/near';
import { explain } from '../stage/errors';
import { bareNode } from '../stage/outline';
import { slotsIn } from './props';
import { live, type Live } from './bridge';
import { stubDirectives } from './directives';
import { declared, isComponent, nameOf, unwrap, type Definition } from './kinds';
import { asItIs, resolveIn } from './resolver';
import { flushed, hearLost } from './lost';
import { letEventsPass } from './standing-clock';
import { listenToFailures } from './thrown';
import { readInstances, readNode } from './tree';

/** What Vue says of its own doings, and of what is reported as a failure. */
const silenced = [
  { level: 'info', pattern: /<Suspense> is an experimental feature/ },
  { level: 'warn', pattern: /Unhandled error during execution of app errorHandler/ },
] as const;

type Props = Record<string, unknown>;

/** Mounts a subject in an application of its own, as Vue does in a page. */
export function mount(plan: Plan): Mounted {
  letEventsPass();
  const props = Vue.shallowRef(plan.props as Props);
  const told: Record<string, unknown[][]> = {};
  const rendered = new Set<string>();
  const stage: Live = {
    stubs: plan.stubs,
    vnode: undefined,
    replaced: new Map(),
    unresolvedNames: new Map(),
    levels: new WeakMap(),
    onRendered: once(plan.onRendered),
    onBareRead: (instance, key) => failures.onBareRead(instance, key),
    onEmitted(instance, event, args) {
      if (instance !== stage.vnode?.component) return;
      (told[event] ??= []).push(args);
      plan.onTold(event, args);
    },
  };
  const subject = () =>
    (stage.vnode = Vue.h(
      plan.component as Vue.Component,
      unwrapRefs(props.value, plan),
      fill(plan.slots, rendered),
    ));
  if (Object.keys(plan.slots).length > 0) complainOfSlots(plan, rendered);
  const app = Vue.createApp({ name: 'SimulacraStage', render: () => surround(plan, subject) });
  const failures = listenToFailures(app, plan, (instance) => {
    const { component: own } = stage.vnode ?? {};
    // Props are checked before the instance has a proxy. Then it is the instance being created.
    return own != null && (instance ? instance === own : own.proxy === null);
  });
  provide(app, plan);
  const stops = [
    hearLost({ has: (name) => holds(stage.vnode, name), hear: failures.onLost }),
    notePlaces(app, plan),
    resolveIn(app, stage),
    stubDirectives(app, stage),
  ];
  const renderAgain = canBeRoot(plan) ? makeRoot(app, plan.container, subject) : undefined;
  // A parent component would track refs in the props by itself.
  let stopFollowing: (() => void) | undefined;
  const followRefs = (render: () => void) => {
    if (Object.values(props.value).some(Vue.isRef))
      stopFollowing = Vue.watch(() => unwrapRefs(props.value, plan), render);
  };
  if (renderAgain) followRefs(renderAgain);
  plan.environment.silenced.push(...silenced);
  return {
    start: () => bringUp(app, plan.container, failures.onLost),
    outputs: () => ({
      ...Object.fromEntries(
        Object.keys(declared(plan.component as Definition, 'emits')).map((name) => [name, []]),
      ),
      ...told,
    }),
    update: (next) => {
      props.value = { ...props.value, ...next };
      if (!renderAgain || stopFollowing) return;
      followRefs(renderAgain);
      renderAgain();
    },
    unmount: async () => {
      stopFollowing?.();
      await takeAway(app, plan.container);
      for (const stop of stops.reverse()) stop();
    },
    tree: () => (stage.vnode && readNode(stage.vnode)[0]) ?? bareNode(plan.name),
    instancesOf: (fits) => (stage.vnode ? readInstances(stage.vnode, fits) : []),
  };
}

async function bringUp(
  app: Vue.App,
  container: HTMLElement,
  onLost: (error: unknown) => void,
): Promise<void> {
  containers.set(container, app);
  try {
    app.mount(container);
  } catch (error) {
    onLost(error);
  }
  await flushed();
}

async function takeAway(app: Vue.App, container: HTMLElement): Promise<void> {
  if (isMounted(app)) app.unmount();
  // It threw while it was mounted, and what was made by then goes on.
  else Vue.render(null, container);
  await flushed();
}

const holds = (vnode: Vue.VNode | undefined, name: string): boolean =>
  vnode !== undefined && readInstances(vnode, (component) => nameOf(component) === name).length > 0;

// Without wrappers and slots the subject is the root of its application, as on a real page.
const canBeRoot = (plan: Plan): boolean =>
  wrappings(plan).every(([what]) => isPlugin(what)) &&
  Object.keys(plan.slots).length === 0 &&
  !isAsync(plan.component as Definition);

interface Inner {
  _ceVNode?: Vue.VNode;
  readonly _instance: Vue.ComponentInternalInstance | null;
}

/** Makes the subject the root of an application. @returns how to render it again */
function makeRoot(app: Vue.App, container: HTMLElement, subject: () => Vue.VNode): () => void {
  const inner = app as unknown as Inner;
  inner._ceVNode = asItIs(subject);
  return () => {
    if (!inner._instance) return;
    const vnode = asItIs(subject);
    vnode.appContext = contextOf(app);
    Vue.render(vnode, container);
  };
}

interface Router {
  afterEach?(told: (to: Place, from: Place) => void): () => void;
}
interface Place {
  readonly fullPath: string;
  readonly matched: readonly unknown[];
}

// A router in memory shows its location nowhere else.
function notePlaces(app: Vue.App, { chronicle }: Plan): () => void {
  const { $router: router } = app.config.globalProperties as { $router?: Router };
  const stop = router?.afterEach?.(({ fullPath }, { matched }) => {
    // The first location is not a navigation.
    if (matched.length > 0) chronicle.add('navigated', fullPath);
  });
  return () => stop?.();
}

const containers = onlyOnce('vue-containers', () => new WeakMap<Element, Vue.App>());
const isMounted = (app: Vue.App) => (app as unknown as { _instance: unknown })._instance !== null;

/** True where the application of a container has put an element elsewhere on the page, by a Teleport. */
export function owns(container: Element, element: Element): boolean | undefined {
  const { __vueParentComponent: parent } = element as {
    __vueParentComponent?: Vue.ComponentInternalInstance;
  };
  return parent && parent.appContext.app === containers.get(container);
}

/** The component of a container whose code runs now. */
export function running(container: Element): string | undefined {
  const instance = Vue.getCurrentInstance();
  return instance && instance.appContext.app === containers.get(container)
    ? nameOf(instance.type)
    : undefined;
}

// Several components may render in one flush. That counts as one rendering.
function once(tell: () => void): () => void {
  let due = false;
  return () => {
    if (due) return;
    due = true;
    Vue.queuePostFlushCb(() => {
      due = false;
      tell();
    });
  };
}

/** A ref is given as a template gives it: by its value, and written back to where the child has a model. */
function unwrapRefs(props: Props, { component }: Plan): Props {
  const given: Props = {};
  for (const [key, value] of Object.entries(props)) {
    if (!Vue.isRef(value)) {
      given[key] = value;
      continue;
    }
    given[key] = value.value;
    if (!Vue.isReadonly(value) && `update:${key}` in declared(component as Definition, 'emits')) {
      const listener = `onUpdate:${key}`;
      const write = (next: unknown) => (value.value = next);
      given[listener] = props[listener] ? [write, props[listener]] : write;
    }
  }
  return given;
}

/** Slots as a test gives them: a text, a component, or a function of what the slot hands out. */
const fill = (slots: Plan['slots'], rendered: Set<string>): Record<string, Vue.Slot> =>
  Object.fromEntries(
    Object.entries(slots).map(([name, content]) => [
      name,
      ((scope: unknown) => {
        rendered.add(name);
        if (isSlotFunction(content)) return content(scope);
        return isComponent(content) ? Vue.h(content as Vue.Component) : content;
      }) as Vue.Slot,
    ]),
  );

// A slot that the component declares but did not render this time is no mistake.
function complainOfSlots({ slots, name, component, environment }: Plan, rendered: ReadonlySet<string>): void {
  environment.sandbox.checks.push((occasion) => {
    if (occasion !== 'end') return undefined;
    const definition = unwrap(component) as Definition;
    const known = slotsIn(definition);
    const isRead = known.length > 0 || definition.template !== undefined || definition.render !== undefined;
    const asked = Object.keys(slots).find((slot) => !rendered.has(slot) && !known.includes(slot));
    if (asked === undefined || !isRead) return undefined;
    return explain('SIM-SLOT-UNUSED', { subject: name, asked, known, nearest: nearest(asked, known) });
  });
}

// A function with `props`, `emits` or `displayName` is a component. Any other function is the slot itself.
const isSlotFunction = (content: unknown): content is (scope: unknown) => unknown =>
  typeof content === 'function' && !['props', 'emits', 'displayName'].some((sign) => sign in content);

type Wrapping = readonly [what: unknown, ...options: unknown[]];
const wrappings = ({ wrap }: Plan): Wrapping[] =>
  wrap.map((one) => (Array.isArray(one) ? (one as unknown as Wrapping) : [one]));
const isPlugin = (what: unknown): what is Vue.Plugin =>
  typeof (what as { install?: unknown } | null)?.install === 'function';

// Shared by all applications. The component that injects belongs to one of them.
const whereNobodyProvides = new Proxy(Object.create(null) as object, {
  has: (_, key) => {
    const instance = Vue.getCurrentInstance();
    if (instance) live.get(instance.appContext.app)?.onBareRead(instance, key);
    return false;
  },
});

const contextOf = (app: Vue.App) => (app as unknown as { readonly _context: Vue.AppContext })._context;

function provide(app: Vue.App, plan: Plan): void {
  // Injections that nobody provides end up in the proxy, which reports them. Provided ones cost nothing
  // extra.
  contextOf(app).provides = Object.create(whereNobodyProvides) as Vue.AppContext['provides'];
  for (const [plugin, ...options] of wrappings(plan)) if (isPlugin(plugin)) app.use(plugin, ...options);
  for (const one of plan.provide) {
    const { token, value } = one;
    const read = () => {
      one.used = true;
      return value;
    };
    app.provide(token as string, value);
    Object.defineProperty(contextOf(app).provides, token as string, { configurable: true, get: read });
    if (typeof token === 'string' && token.startsWith('$'))
      Object.defineProperty(app.config.globalProperties, token, {
        configurable: true,
        enumerable: true,
        get: read,
      });
  }
}

function surround(plan: Plan, subject: () => Vue.VNode): Vue.VNode {
  const components = wrappings(plan).filter(([what]) => !isPlugin(what));
  const inner = isAsync(plan.component as Definition)
    ? () => Vue.h(Vue.Suspense, null, { default: subject })
    : subject;
  return components.reduceRight<() => Vue.VNode>(
    (inside, [component, props]) =>
      () =>
        Vue.h(component as Vue.Component, props as Props, { default: inside }),
    inner,
  )();
}

// An async setup needs Vue's Suspense around it.
const isAsync = ({ setup }: Definition) => setup?.constructor.name === 'AsyncFunction';
