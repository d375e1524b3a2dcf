import * as Vue from 'vue';
import { once } from '../core/shared';

/** What a component of Vue may say of itself, as far as it is read here. */
export interface Definition {
  readonly name?: string;
  /** The name a single-file component has from its file. */
  readonly __name?: string;
  readonly props?: readonly string[] | Readonly<Record<string, unknown>>;
  readonly emits?: readonly string[] | Readonly<Record<string, unknown>>;
  readonly mixins?: readonly Definition[];
  readonly extends?: Definition;
  readonly components?: Readonly<Record<string, unknown>>;
  readonly directives?: Record<string, unknown>;
  readonly setup?: (...args: unknown[]) => unknown;
  readonly template?: string;
  readonly render?: (...args: unknown[]) => unknown;
  readonly __asyncLoader?: unknown;
  readonly __asyncResolved?: unknown;
  readonly __vccOpts?: Definition;
  readonly displayName?: string;
}

const signs = ['setup', 'render', 'template', '__asyncLoader', '__name', 'extends', 'mixins', 'data'];

/** True for a component of Vue: options, a single-file component, a function. */
export function isComponent(value: unknown): value is Definition {
  if (typeof value === 'function') return true;
  if (typeof value !== 'object' || value === null || Vue.isVNode(value)) return false;
  return signs.some((sign) => sign in value) || ('props' in value && 'name' in value);
}

/** The hooks a directive may have. */
export const directiveHooks = [
  'created',
  'beforeMount',
  'mounted',
  'beforeUpdate',
  'updated',
  'beforeUnmount',
  'unmounted',
];

/** True for a directive that is an object of hooks. */
export const isDirective = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' &&
  value !== null &&
  !isComponent(value) &&
  directiveHooks.some((hook) => hook in value);

/** How a component is called; undefined for what is none. */
export function nameOf(value: unknown): string | undefined {
  if (isDirective(value)) return 'a directive';
  if (!isComponent(value)) return undefined;
  const definition = unwrap(value) as Definition;
  return definition.displayName || definition.name || definition.__name || 'Anonymous';
}

/** The component itself, of one that is loaded later, made of a class, or made reactive by accident. */
export function unwrap(value: unknown): unknown {
  const raw = Vue.toRaw(value) as Definition | null;
  return raw?.__asyncResolved ?? raw?.__vccOpts ?? raw;
}

const builtIn = new Set<unknown>([
  Vue.KeepAlive,
  Vue.Transition,
  Vue.TransitionGroup,
  Vue.BaseTransition,
  Vue.Suspense,
  Vue.Teleport,
]);

/** Vue's own components stay what they are, and are no level. */
export const isBuiltIn = (type: unknown): boolean => builtIn.has(type);

/** True for the component Vue puts around one that is loaded later. */
export const isAsyncWrapper = (type: unknown): boolean =>
  (type as Definition | null)?.__asyncLoader !== undefined;

/** Components of ours that only ask again when they are rendered: no level, and not to be seen. */
export const later = once('vue-later', () => new WeakSet<object>());
export const isLater = (type: unknown): boolean =>
  typeof type === 'object' && type !== null && later.has(type);

/** The name a component is registered by where it is used. */
export function nameThere(
  component: unknown,
  { type, appContext, ...instance }: Vue.ComponentInternalInstance,
): string | undefined {
  const { setupState = {} } = instance as { setupState?: Record<string, unknown> };
  const places = [(type as Definition).components ?? {}, Vue.toRaw(setupState), appContext.components];
  for (const place of places) {
    const found = Object.entries(place).find(([, value]) => value === component);
    if (found) return asName(found[0]);
  }
  return undefined;
}

/** `hive-card` as a component is called: `HiveCard`. */
export const asName = (registered: string): string => Vue.capitalize(Vue.camelize(registered));

/** The props or emits a component declares, those of its mixins and of what it extends included. */
export function declared(definition: Definition, what: 'props' | 'emits'): Record<string, unknown> {
  const own = definition[what];
  const listed = Array.isArray(own) ? Object.fromEntries(own.map((name: string) => [name, null])) : own;
  if (!definition.extends && !definition.mixins) return (listed ?? {}) as Record<string, unknown>;
  const inherited = [definition.extends, ...(definition.mixins ?? [])].map((base) =>
    base ? declared(base, what) : {},
  );
  return Object.assign({}, ...inherited, listed) as Record<string, unknown>;
}

/** What a parent listens to by the props it gives: `onOpen` is heard as `open`. */
export function listenersIn(props: object | null): Record<string, (...args: unknown[]) => unknown> {
  const heard = Object.entries(props ?? {}).flatMap(([key, value]) => {
    if (!/^on[^a-z]/.test(key) || key.startsWith('onVnode')) return [];
    const listeners = (Array.isArray(value) ? value : [value]) as unknown[];
    const call = (...args: unknown[]) =>
      listeners.forEach((listener) => typeof listener === 'function' && (listener as typeof call)(...args));
    return [[eventOf(key), call] as const];
  });
  return Object.fromEntries(heard);
}

const eventOf = (key: string) => `${key[2]!.toLowerCase()}${key.slice(3)}`;
