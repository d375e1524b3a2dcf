import * as Vue from 'vue';
import { drop } from '../core/drop';
import { once } from '../core/shared';
import type { AnyFunction } from '../core/spy';
import { stubAttributes, tagIn } from '../stage/stub-markup';
import type { StubInstance, StubRecord } from '../stage/stubs';
import { elementIn } from './element-in';
import { declared, isComponent, listenersIn, type Definition } from './kinds';

const stubs = once('vue-stubs', () => new WeakSet<object>());

/** True for a component made here. */
export const isStubComponent = (type: unknown): boolean =>
  typeof type === 'object' && type !== null && stubs.has(type);

type Rendering = (props: object, context: Vue.SetupContext) => Vue.VNodeChild;

/** The component that is rendered in place of another: its props and emits, and nothing else of it. */
export function makeStubComponent(record: StubRecord, original: unknown): Vue.Component {
  const definition = original as Definition;
  const component = {
    name: record.name,
    props: declared(definition, 'props'),
    emits: declared(definition, 'emits'),
    inheritAttrs: false,
    setup(props: Record<string, unknown>, context: Vue.SetupContext) {
      const { proxy, vnode } = Vue.getCurrentInstance()!;
      const given = () => givenIn(props, context.attrs);
      const instance: StubInstance = {
        props: given(),
        element: () => proxy?.$.subTree && elementIn(proxy.$.subTree),
        heard: () => listenersIn(proxy?.$.vnode.props ?? vnode.props) as Record<string, AnyFunction>,
      };
      context.expose(reachable(record));
      Vue.onBeforeMount(() => record.instances.push(instance));
      Vue.onBeforeUnmount(() => drop(record.instances, instance));
      const tag = Vue.ref('sim-part');
      Vue.onMounted(() => (tag.value = tagIn((proxy?.$el as Element).parentElement?.localName)));
      let drawnAs = '';
      return () => {
        // A changed tag alone is not recorded as new props.
        if (drawnAs === tag.value || drawnAs === '') record.given.push((instance.props = given()));
        drawnAs = tag.value;
        return draw(record, instance.props, context, tag.value);
      };
    },
  };
  stubs.add(component);
  return component as Vue.Component;
}

/** What the parent gave: what it left out is left out, and what it listens to is no prop. */
function givenIn(props: Record<string, unknown>, attrs: Record<string, unknown>): Record<string, unknown> {
  const all = Object.entries({ ...props, ...attrs });
  return Object.fromEntries(
    all.filter(
      ([key, value]) => value !== undefined && !(/^on[A-Z]/.test(key) && typeof value === 'function'),
    ),
  );
}

// Vue checks whether a member exists before it reads it. The check must succeed for missing members too, so
// that the read can be explained.
function reachable(record: StubRecord): Record<string, unknown> {
  const isOwn = (key: string | symbol) => typeof key === 'string' && !/^(\$|__v)/.test(key);
  const reached = record.reach() as Record<string, unknown>;
  return new Proxy(
    {},
    { has: (_, key) => isOwn(key), get: (_, key) => (isOwn(key) ? reached[key as string] : undefined) },
  );
}

function draw(
  record: StubRecord,
  props: Record<string, unknown>,
  context: Vue.SetupContext,
  tag: string,
): Vue.VNodeChild {
  const { render } = record.how;
  if (typeof render === 'function') return (render as Rendering)(props, context);
  if (isComponent(render))
    return Vue.h(render as Vue.Component, { ...props, ...context.attrs }, context.slots);
  const attributes = { ...plain(context.attrs), ...stubAttributes(record.name, props) };
  return Vue.h(tag, attributes, Object.values(context.slots).flatMap(fill));
}

// Values that cannot be attributes are left out.
const plain = (attrs: Record<string, unknown>) =>
  Object.fromEntries(
    Object.entries(attrs).filter(
      ([key, value]) => /^(class|style)$/.test(key) || typeof value !== 'object' || /^on[A-Z]/.test(key),
    ),
  );

// A scoped slot that needs values of the child cannot be rendered without it.
function fill(slot: Vue.Slot | undefined): Vue.VNode[] {
  try {
    return slot?.({}) ?? [];
  } catch {
    return [];
  }
}
