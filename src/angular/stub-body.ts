import * as core from '@angular/core';
import { drop } from '../core/drop';
import type { AnyFunction } from '../core/spy';
import { stubAttributes } from '../stage/stub-markup';
import type { StubInstance } from '../stage/stubs';
import type { Definition } from './definitions';
import type { StubOrder } from './around';

export type Field = Record<string, unknown>;
type Heard = Record<string, AnyFunction>;

/** What one stub on the page has. */
export interface StubBody extends StubInstance {
  readonly fields: Field;
  dirty: boolean;
  /** True once a form directive beside it has been told of it. */
  servesForms?: boolean;
  /** Takes down what was given since it was asked last. */
  give(): void;
  /** Where work of the stub's own runs without Angular rendering for it. */
  readonly zone: core.NgZone;
}

export const bodies = new WeakMap<object, StubBody>();

/** Takes down that a stub is on the page. */
export function enter(
  { record, around }: StubOrder,
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
  if (isComponent) around.onCreated({ element, instance, definition, record });
  changed(body);
  return body;
}

// Angular sets one input after the other; when the last one is set the stub has been given something.
function changed(body: StubBody): void {
  // Inside the zone Angular would render after it, which may set the input again, and so on for ever.
  if (!body.dirty) body.zone.runOutsideAngular(() => queueMicrotask(body.give));
  body.dirty = true;
}

function mark(element: Element, name: string, props: object): void {
  for (const [attribute, value] of Object.entries(stubAttributes(name, props)))
    if (value !== undefined) element.setAttribute(attribute, value);
}

/** Takes down an input that was given. */
export function take(instance: object, name: string, value: unknown): StubBody {
  const body = bodies.get(instance)!;
  body.props[name] = value;
  changed(body);
  return body;
}

/** A field that a parent can listen to; that of a model is a signal, too. */
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

/** What a form asks of a control, so that a stubbed one keeps the form working. */
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
