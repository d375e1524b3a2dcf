import type * as Vue from 'vue';
import { drop } from '../core/drop';
import type { StubInstance, StubRecord } from '../stage/stubs';
import type { Live } from './door';
import { directiveHooks, isDirective, type Definition } from './kinds';

type Directive = Record<string, unknown> | ((...args: unknown[]) => unknown);
type Hook = (element: Element, binding: Vue.DirectiveBinding, ...rest: unknown[]) => unknown;

/**
 * Replaces the directives a test lists, each where it is kept (registered in the application, in a
 * component, or a variable of its setup). One that is kept for all is put back at the end, and works
 * as ever for everybody but this subject meanwhile.
 */
export function stubDirectives(app: Vue.App, stage: Live): () => void {
  const records = stage.stubs.records.filter(({ target }) => isDirective(target) || isDirectiveName(target));
  if (records.length === 0) return () => undefined;
  const restore: (() => void)[] = [];
  const replaceIn = (holder: Record<string, unknown>, key: string, name: string) => {
    const directive = holder[key] as Directive | undefined;
    if (directive === undefined || made.has(directive)) return;
    stage.stubs.rendered.set(directive, name);
    const record = records.find(({ target }) => target === directive || target === name);
    if (!record) return;
    holder[key] = makeStub(app, record, directive);
    restore.push(() => (holder[key] = directive));
  };
  const replaceAll = (holder: Record<string, unknown> | undefined) => {
    for (const key of Object.keys(holder ?? {})) replaceIn(holder!, key, `v-${key}`);
  };
  // The application's own are this subject's alone.
  replaceAll((app as unknown as { _context: { directives: Record<string, unknown> } })._context.directives);
  app.mixin({
    beforeCreate(this: { $: Vue.ComponentInternalInstance }) {
      const { type, setupState = {} } = this.$ as unknown as {
        type: Definition;
        setupState?: Record<string, unknown>;
      };
      replaceAll(type.directives);
      for (const key of Object.keys(setupState).filter((name) => /^v[A-Z]/.test(name)))
        replaceIn(setupState, key, `v-${key[1]!.toLowerCase()}${key.slice(2)}`);
    },
  });
  return () => restore.reverse().forEach((undo) => undo());
}

/** True for a directive as a template writes it: `v-focus`. */
export const isDirectiveName = (target: unknown): target is string =>
  typeof target === 'string' && /^v-/.test(target);

const made = new WeakSet<object>();

function makeStub(app: Vue.App, record: StubRecord, original: Directive): Directive {
  const instances = new WeakMap<Element, StubInstance>();
  const ours: Record<string, Hook> = {
    created(element) {
      const instance: StubInstance = { props: {}, element: () => element };
      instances.set(element, instance);
      record.instances.push(instance);
      record.used = true;
    },
    mounted: give,
    updated: give,
    unmounted: (element) => {
      drop(record.instances, instances.get(element)!);
    },
  };
  function give(element: Element, { value, arg, modifiers }: Vue.DirectiveBinding) {
    const props = {
      value: value as unknown,
      ...(arg && { arg }),
      ...(Object.keys(modifiers).length && { modifiers }),
    };
    record.given.push(props);
    instances.get(element)!.props = props;
  }
  const real = (name: string): unknown =>
    typeof original === 'function'
      ? /^(mounted|updated)$/.test(name)
        ? original
        : undefined
      : original[name];
  const isOurs = ({ instance }: Vue.DirectiveBinding) =>
    (instance as { $?: Vue.ComponentInternalInstance } | null)?.$?.appContext.app === app;
  const stub = Object.fromEntries(
    directiveHooks.map((name): [string, Hook] => [
      name,
      (element, binding, ...rest) =>
        isOurs(binding)
          ? ours[name]?.(element, binding)
          : (real(name) as Hook | undefined)?.(element, binding, ...rest),
    ]),
  );
  made.add(stub);
  return stub;
}
