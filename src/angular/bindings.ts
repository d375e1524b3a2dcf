import * as core from '@angular/core';
import { isArranged } from '../core/answers';
import type { AnyFunction } from '../core/spy';
import type { Plan } from '../stage/adapter';
import type { Declared } from '../stage/declared';
import { refuse } from '../stage/errors';
import {
  broughtBy,
  componentOf,
  directiveOf,
  hostDirectivesOf,
  isModule,
  list,
  nameOf,
  outputsOf,
  publicOf,
  type Class,
  type Definition,
} from './definitions';

/** The props a component accepts: its inputs, and listeners for its outputs. */
export function propsOf(component: unknown): Declared {
  const definition = componentOf(component)!;
  const inputs = [...Object.keys(definition.inputs), ...broughtBy(definition).inputs];
  const required = requiredIn(component as Class).filter((name) => inputs.includes(name));
  const known = [...inputs, ...outputsOf(definition)];
  return { known, required, publicOf: (name) => publicOf(name, definition), isClosed: true };
}

// Only the decorators of a JIT-compiled class say which inputs are required.
function requiredIn(type: Class): string[] {
  const { __prop__metadata__: fields = {} } = type as unknown as {
    __prop__metadata__?: Record<string, { required?: boolean; alias?: string }[]>;
  };
  return Object.entries(fields).flatMap(([name, all]) =>
    all.flatMap(({ required, alias }) => (required ? [alias ?? name] : [])),
  );
}

/** The component that an object is an instance of. */
export const madeOf = (value: unknown): string | undefined => {
  const type: unknown = typeof value === 'object' && value !== null ? value.constructor : undefined;
  return componentOf(type) && nameOf(type);
};

/** Why a class is no component. */
export function whyNone(value: unknown): string | undefined {
  if (typeof value !== 'function') return undefined;
  if (isModule(value))
    return `${value.name} is a module: isolate a component of it, with   wrap: [${value.name}]`;
  return `${value.name || 'It'} has no @Component.`;
}

/** @throws SIM-OPTION-VALUE for a `defer` that is no answer, and for a function in `wrap` that has to be called */
export function refuseOptions(
  { defer, wrap = [] }: { readonly defer?: unknown; readonly wrap?: readonly unknown[] },
  calledAt: Error,
): void {
  const uncalled = wrap.find(
    (one) => typeof one === 'function' && !/^class\b/.test(String(one)) && !isDecorated(one),
  );
  if (uncalled) {
    const { name } = uncalled as { name: string };
    const wanted = `what it returns: wrap: [${name}(…)]`;
    refuse('SIM-OPTION-VALUE', { option: 'wrap', value: uncalled, wanted }, { calledAt });
  }
  if (defer === undefined || isArranged(defer)) return;
  const wanted = 'hold(), fail(), later() or inTurn(): how the loading goes';
  refuse('SIM-OPTION-VALUE', { option: 'defer', value: defer, wanted }, { calledAt });
}

/** The slots of a component: one for each `<ng-content>` in its template. */
export function slotsOf(component: unknown): Declared {
  const { ngContentSelectors = [] } = componentOf(component)!;
  return {
    known: ngContentSelectors.map((selector) => (selector === '*' ? 'default' : selector)),
    isClosed: true,
  };
}

const isDecorated = (type: object): boolean =>
  ['ɵcmp', 'ɵdir', 'ɵpipe', 'ɵmod', 'ɵprov', 'ɵfac'].some((key) => key in type);

/** The inputs of the component with this tag, if the subject imports it. */
export function inputNamesOf(tag: string, definition: Definition): string[] | undefined {
  const found = list(definition.directiveDefs).find(
    (child) => child.template && child.selectors[0]?.[0] === tag,
  );
  return found && [...Object.keys(found.inputs), ...broughtBy(found).inputs];
}

type Ref = core.ComponentRef<object>;
type Values = Record<string, unknown>;

/** Records what the subject emits, and calls the listeners that the test passed. */
export function listen(
  ref: Ref,
  plan: Plan,
  definition: Definition,
  told: Record<string, unknown[][]>,
): void {
  const given = plan.props as Values;
  for (const [name, output] of outputsIn(ref, definition)) {
    const tell = (value: unknown) => {
      told[name]!.push([value]);
      plan.onTold(name, [value]);
    };
    if (output?.emit) watchEmits(output, tell);
    else output?.subscribe(tell);
    const listener = given[name] ?? given[definition.outputs[name] ?? name];
    if (typeof listener === 'function') output?.subscribe(listener as AnyFunction);
  }
}

/** All outputs of a component and its host directives, by public name. */
function outputsIn({ instance, injector }: Ref, definition: Definition): [string, Told | undefined][] {
  const read = (from: object, fields: Definition['outputs'], name: string) =>
    (from as Values)[fields[name]!] as Told | undefined;
  const own = Object.keys(definition.outputs).map((name): [string, Told | undefined] => [
    name,
    read(instance, definition.outputs, name),
  ]);
  const brought = hostDirectivesOf(definition).flatMap(({ directive, outputs }) =>
    Object.entries(outputs).map(([inner, name]): [string, Told | undefined] => [
      name,
      read(injector.get(directive as core.Type<object>), directiveOf(directive)!.outputs, inner),
    ]),
  );
  return [...own, ...brought];
}

interface Told {
  subscribe(listener: AnyFunction): unknown;
  emit?: AnyFunction;
  next?: AnyFunction;
}

// A component can check whether an output has subscribers, so we wrap its methods instead of subscribing.
function watchEmits(output: Told, tell: (value: unknown) => void): void {
  for (const way of ['emit', 'next'] as const) {
    const original = output[way];
    if (!original) continue;
    output[way] = (...args: unknown[]) => {
      tell(args[0]);
      return original.apply(output, args) as unknown;
    };
  }
}

/** Sets the inputs of a subject. */
export function assign(ref: Ref, values: Values, definition: Definition): void {
  for (const [given, value] of Object.entries(values)) {
    const name = publicOf(given, definition);
    if (typeof value === 'function' && name in definition.outputs && !core.isSignal(value)) continue;
    const isModel = `${name}Change` in definition.outputs;
    if (isModel && core.isSignal(value))
      bindBothWays(ref, name, value as core.WritableSignal<unknown>, definition);
    else ref.setInput(name, value);
  }
}

/** Binds a signal to a model input in both directions, as `[(name)]` does. */
function bindBothWays(
  ref: Ref,
  name: string,
  value: core.WritableSignal<unknown>,
  { outputs }: Definition,
): void {
  const model = (ref.instance as Values)[outputs[`${name}Change`]!] as Told;
  ref.setInput(name, core.untracked(value));
  core.effect(() => ref.setInput(name, value()), { injector: ref.injector });
  model.subscribe((next: unknown) => value.set(next));
}
