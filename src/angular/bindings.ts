import * as core from '@angular/core';
import type { AnyFunction } from '../core/spy';
import type { Plan } from '../stage/adapter';
import { directiveOf, hostDirectivesOf, type Definition } from './definitions';

type Ref = core.ComponentRef<object>;
type Values = Record<string, unknown>;

/** Writes down what the subject tells, and passes it to the functions a test gave. */
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
    if (typeof given[name] === 'function') output?.subscribe(given[name] as AnyFunction);
  }
}

/** Every output of a component, those of the directives it brings along included, by public name. */
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

// To listen would be seen: a component may ask whether anybody does.
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

/** Gives a subject its inputs. */
export function assign(ref: Ref, values: Values, definition: Definition): void {
  for (const [name, value] of Object.entries(values)) {
    if (typeof value === 'function' && name in definition.outputs && !core.isSignal(value)) continue;
    const isModel = `${name}Change` in definition.outputs;
    if (isModel && core.isSignal(value))
      bindBothWays(ref, name, value as core.WritableSignal<unknown>, definition);
    else ref.setInput(name, value);
  }
}

/** A signal that is given to a model is written back to, as `[(name)]` does. */
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
