import * as core from '@angular/core';
import { drop } from '../core/drop';
import type { AnyFunction } from '../core/spy';
import { stubAttributes } from '../stage/stub-markup';
import type { StubInstance } from '../stage/stubs';
import type { Definition } from './definitions';
import type { StubOrder } from './surroundings';

export type Field = Record<string, unknown>;
type Heard = Record<string, AnyFunction>;

/** One stub on the page. */
export interface StubBody extends StubInstance {
  readonly fields: Field;
  dirty: boolean;
  /** True after a form directive on the same element knows it. */
  servesForms?: boolean;
  /** Records the inputs that changed since the last call. */
  give(): void;
  /** Used to run our own work without triggering change detection. */
  readonly zone: core.NgZone;
}

export const bodies = new WeakMap<object, StubBody>();

/** Registers a stub that is on the page. */
export function enter(
  { record, surroundings }: StubOrder,
  instance: object,
  definition: Definition,
  isComponent: boolean,
): StubBody {
  const element = core.inject(core.ElementRef).nativeElement as Element;
  const fields = instance as Field;
  const heard: Heard = {};
  for (const [name, field] of Object.entries(definition.outputs)) heard[name] = makeOutput(fields, field);
  const body: StubBody = {
    props: {},
    fields,
    dirty: false,
    zone: core.inject(core.NgZone),
    element: () => element,
    heard: () => listened(heard),
    give() {
      if (!body.dirty) return;
      body.dirty = false;
      record.given.push((body.props = { ...body.props }));
      if (isComponent && record.how.render === undefined) mark(element, record.name, body.props);
    },
  };
  bodies.set(instance, body);
  core.inject(core.DestroyRef).onDestroy(() => drop(record.instances, body));
  record.instances.push(body);
  if (isComponent) surroundings.onCreated({ element, instance, definition, record });
  changed(body);
  return body;
}

// Angular sets inputs one by one. We record them together after the last one.
function changed(body: StubBody): void {
  // In the zone this microtask would trigger change detection, which may set the input again, in an endless loop.
  if (!body.dirty) body.zone.runOutsideAngular(() => queueMicrotask(body.give));
  body.dirty = true;
}

function mark(element: Element, name: string, props: object): void {
  for (const [attribute, value] of Object.entries(stubAttributes(name, props)))
    if (value !== undefined) element.setAttribute(attribute, value);
}

/** Records an input. */
export function take(instance: object, name: string, value: unknown): StubBody {
  const body = bodies.get(instance)!;
  body.props[name] = value;
  changed(body);
  return body;
}

/** Creates the field of an output. For a model input the field is a signal as well. */
function makeOutput(fields: Field, field: string): AnyFunction & { listeners: Set<AnyFunction> } {
  const listeners = new Set<AnyFunction>();
  const tell = (value: unknown) => listeners.forEach((listener) => listener(value) as unknown);
  const subscribe = (listener: AnyFunction | { next?: AnyFunction }) => {
    const call =
      typeof listener === 'function' ? listener : (listener.next?.bind(listener) ?? (() => undefined));
    listeners.add(call as AnyFunction);
    return { unsubscribe: () => listeners.delete(call as AnyFunction) };
  };
  fields[field] = Object.assign((fields[field] as object | undefined) ?? {}, { subscribe, emit: tell });
  return Object.assign(tell, { listeners });
}

const listened = (heard: Heard): Heard =>
  Object.fromEntries(
    Object.entries(heard).filter(
      ([, tell]) => (tell as unknown as { listeners: Set<unknown> }).listeners.size !== 0,
    ),
  );

/** The methods a form calls on a control, so that forms work with a stubbed control. */
export function controlOf(body: StubBody) {
  return {
    writeValue(value: unknown) {
      body.props['value'] = value;
      changed(body);
    },
    registerOnChange(tell: AnyFunction) {
      const { heard } = body;
      body.heard = () => ({ ...heard?.(), value: tell });
    },
    registerOnTouched(tell: AnyFunction) {
      const { heard } = body;
      body.heard = () => ({ ...heard?.(), touched: tell });
    },
    setDisabledState(disabled: boolean) {
      body.props['disabled'] = disabled;
      changed(body);
    },
    validate: () => null,
    registerOnValidatorChange: () => undefined,
  };
}
