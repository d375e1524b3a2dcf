import * as Vue from 'vue';
import { once } from '../core/shared';
import { live, type Live } from './bridge';
import {
  asName,
  isAsyncWrapper,
  isBuiltIn,
  isComponent,
  isLater,
  later,
  nameOf,
  nameThere,
  unwrap,
} from './kinds';
import { isStubComponent, makeStubComponent } from './stub-component';

type Args = readonly unknown[];
type Instance = Vue.ComponentInternalInstance;

/** Lets Vue ask about what an application renders. @returns how to stop */
export function resolveIn(app: Vue.App, stage: Live): () => void {
  live.set(app, stage);
  Vue.transformVNodeArgs(transform as never);
  return () => {
    live.delete(app);
    if (live.size === 0) Vue.transformVNodeArgs();
  };
}

const passing = once('vue-passing', () => ({ isOn: false }));

/** Makes vnodes that are none of anything rendered: a subject, which nothing replaces. */
export function asItIs<T>(make: () => T): T {
  passing.isOn = true;
  try {
    return make();
  } finally {
    passing.isOn = false;
  }
}

function transform(args: Args, rendering: Instance | null): Args {
  if (passing.isOn) return args;
  const [type, props, ...rest] = args;
  const instance = rendering ?? Vue.getCurrentInstance();
  if (!instance) return isStubbable(type) ? [decidedLater(type), props, ...rest] : args;
  const stage = live.get(instance.appContext.app);
  if (!stage) return args;
  // Transitions are not waited for: without style sheets they end at once.
  if (type === Vue.Transition || type === Vue.TransitionGroup)
    return [type, { ...(props as object), css: false }, ...rest];
  const instead = replacementOf(stage, type, instance);
  return instead ? [instead, props, ...rest] : args;
}

function replacementOf(stage: Live, type: unknown, instance: Instance): Vue.Component | undefined {
  const known = typeof type === 'string' ? isListedName(stage, type) : isStubbable(type);
  if (!known) return undefined;
  const level = levelOf(stage, instance);
  if (level === undefined) return undefined;
  const component = typeof type === 'string' ? unresolved(stage, asName(type)) : Vue.toRaw(type);
  const record = stage.stubs.decide(component, level, () => nameThere(component, instance));
  if (!record) return undefined;
  let instead = stage.replaced.get(component);
  if (!instead) stage.replaced.set(component, (instead = makeStubComponent(record, component)));
  return instead;
}

const isStubbable = (type: unknown) =>
  typeof type !== 'string' &&
  isComponent(type) &&
  !isBuiltIn(type) &&
  !isStubComponent(type) &&
  !isLater(type);

// A component name that is registered nowhere arrives as a string, like the tag of an element.
const isListedName = ({ stubs }: Live, type: string) =>
  /[A-Z-]/.test(type) &&
  stubs.records.some(({ target }) => typeof target === 'string' && asName(target) === asName(type));

function unresolved({ unresolvedNames }: Live, name: string): object {
  let stand = unresolvedNames.get(name);
  if (!stand) unresolvedNames.set(name, (stand = { name, setup: () => () => null }));
  return stand;
}

/** The level below the subject of what an instance renders; undefined outside of the subject. */
function levelOf(stage: Live, instance: Instance): number | undefined {
  const known = stage.levels.get(instance);
  if (known !== undefined) return known;
  const above = instance.parent ? levelOf(stage, instance.parent) : undefined;
  const level =
    instance.vnode === stage.vnode ? 1 : above === undefined ? undefined : above + weight(instance);
  if (level !== undefined) stage.levels.set(instance, level);
  return level;
}

const weight = ({ type }: Instance): number =>
  isBuiltIn(type) || isAsyncWrapper(type) || isLater(type) ? 0 : 1;

const laterFor = once('vue-later-for', () => new WeakMap<object, Vue.Component>());

/**
 * The owner of a vnode that is created outside of rendering (in a listener, for example) is unknown until it
 * renders. If some subject may stub it, we wrap it in a component that checks again then.
 */
function decidedLater(type: unknown): unknown {
  if (![...live.values()].some((stage) => mayReplace(stage, type))) return type;
  let component = laterFor.get(type as object);
  if (!component) {
    component = Vue.defineComponent({
      inheritAttrs: false,
      setup:
        (_, { attrs, slots }) =>
        () =>
          Vue.h(type as Vue.Component, attrs, slots),
    });
    laterFor.set(type as object, component);
    later.add(component);
  }
  return component;
}

const mayReplace = ({ stubs }: Live, type: unknown): boolean =>
  stubs.depth !== Infinity ||
  stubs.records.some(
    ({ target }) =>
      target === nameOf(type) || (typeof target !== 'string' && unwrap(target) === unwrap(type)),
  );
