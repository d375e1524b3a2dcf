import type * as Vue from 'vue';
import { drop } from '../core/drop';
import { once } from '../core/shared';
import type { StubInstance, StubRecord } from '../stage/stubs';
import type { Live } from './bridge';
import { directiveHooks, isDirective, type Definition } from './kinds';

type Directive = Record<string, unknown> | ((...args: unknown[]) => unknown);
type Hook = (element: Element, binding: Vue.DirectiveBinding, ...rest: unknown[]) => unknown;

/** A directive that is a stub for the subjects that list it, and the original for everybody else. */
interface Shared {
  readonly original: Directive;
  readonly directive: Directive;
  readonly records: Map<Vue.App, StubRecord>;
  /** How many subjects have put it into a place. */
  readonly places: Map<object, Map<string, number>>;
}

/** What stands in place of directives now, by what stands there. */
const standing = once('vue-directives', () => new WeakMap<object, Shared>());

/**
 * Replaces the directives that a test lists, wherever they are registered: in the application, in a
 * component, or as a variable in its setup. If several subjects list the same directive, each has its own
 * stub, and the last one restores the original.
 */
export function stubDirectives(app: Vue.App, stage: Live): () => void {
  const records = stage.stubs.records.filter(({ target }) => isDirective(target) || isDirectiveName(target));
  if (records.length === 0) return () => undefined;
  const restore: (() => void)[] = [];
  const done = new Map<object, Set<string>>();
  const replaceIn = (holder: Record<string, unknown>, key: string, name: string) => {
    const there = holder[key] as Directive | undefined;
    const known = done.get(holder) ?? new Set<string>();
    if (there === undefined || known.has(key)) return;
    done.set(holder, known.add(key));
    const original = standing.get(there)?.original ?? there;
    stage.stubs.rendered.set(original, name);
    const record = records.find(({ target }) => target === original || target === name);
    if (record) restore.push(putIn(holder, key, standing.get(there) ?? makeShared(original), app, record));
  };
  const replaceAll = (holder: Record<string, unknown> | undefined) => {
    for (const key of Object.keys(holder ?? {})) replaceIn(holder!, key, `v-${key}`);
  };
  // Directives of the application belong to this subject alone.
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

function putIn(
  holder: Record<string, unknown>,
  key: string,
  shared: Shared,
  app: Vue.App,
  record: StubRecord,
): () => void {
  const { places, records, original, directive } = shared;
  const counts = places.get(holder) ?? new Map<string, number>();
  places.set(holder, counts.set(key, (counts.get(key) ?? 0) + 1));
  records.set(app, record);
  holder[key] = directive;
  return () => {
    records.delete(app);
    const left = counts.get(key)! - 1;
    counts.set(key, left);
    if (left === 0 && holder[key] === directive) holder[key] = original;
  };
}

/** True for a directive as a template writes it: `v-focus`. */
export const isDirectiveName = (target: unknown): target is string =>
  typeof target === 'string' && /^v-/.test(target);

function makeShared(original: Directive): Shared {
  const records = new Map<Vue.App, StubRecord>();
  const instances = new WeakMap<Element, StubInstance>();
  const recordOf = ({ instance }: Vue.DirectiveBinding) => {
    const { $ } = (instance ?? {}) as { $?: Vue.ComponentInternalInstance };
    return $ && records.get($.appContext.app);
  };
  const give = (record: StubRecord, element: Element, { value, arg, modifiers }: Vue.DirectiveBinding) => {
    const props = {
      value: value as unknown,
      ...(arg && { arg }),
      ...(Object.keys(modifiers).length && { modifiers }),
    };
    record.given.push(props);
    instances.get(element)!.props = props;
  };
  const ours: Record<string, typeof give> = {
    created(record, element) {
      const instance: StubInstance = { props: {}, element: () => element };
      instances.set(element, instance);
      record.instances.push(instance);
      record.used = true;
    },
    mounted: give,
    updated: give,
    unmounted: (record, element) => drop(record.instances, instances.get(element)!),
  };
  const real = (name: string): unknown =>
    typeof original === 'function'
      ? /^(mounted|updated)$/.test(name)
        ? original
        : undefined
      : original[name];
  const directive = Object.fromEntries(
    directiveHooks.map((name): [string, Hook] => [
      name,
      (element, binding, ...rest) => {
        const record = recordOf(binding);
        return record
          ? ours[name]?.(record, element, binding)
          : (real(name) as Hook | undefined)?.(element, binding, ...rest);
      },
    ]),
  );
  const shared: Shared = { original, directive, records, places: new Map() };
  standing.set(directive, shared);
  return shared;
}
