import { refuse } from '../stage/errors';
import { isArranged } from '../core/answers';
import type { Declared } from '../stage/declared';
import { broughtBy, componentOf, list, outputsOf, type Class, type Definition } from './definitions';

/** What a component can be given: its inputs, and listeners of its outputs. */
export function propsOf(component: unknown): Declared {
  const definition = componentOf(component)!;
  const inputs = [...Object.keys(definition.inputs), ...broughtBy(definition).inputs];
  const required = requiredIn(component as Class).filter((name) => inputs.includes(name));
  return { known: [...inputs, ...outputsOf(definition)], required, isClosed: true };
}

// Only the decorators of a class that is compiled as it goes tell what is required.
function requiredIn(type: Class): string[] {
  const { __prop__metadata__: fields = {} } = type as unknown as {
    __prop__metadata__?: Record<string, { required?: boolean; alias?: string }[]>;
  };
  return Object.entries(fields).flatMap(([name, all]) =>
    all.flatMap(({ required, alias }) => (required ? [alias ?? name] : [])),
  );
}

/** @throws SIM-OPTION-VALUE for a `defer` that is no answer */
export function refuseOptions({ defer }: { readonly defer?: unknown }, calledAt: Error): void {
  if (defer === undefined || isArranged(defer)) return;
  const wanted = 'hold(), fail(), later() or inTurn(): how the loading goes';
  refuse('SIM-OPTION-VALUE', { option: 'defer', value: defer, wanted }, { calledAt });
}

/** What can be put into a component: what its template projects. */
export function slotsOf(component: unknown): Declared {
  const { ngContentSelectors = [] } = componentOf(component)!;
  return {
    known: ngContentSelectors.map((selector) => (selector === '*' ? 'default' : selector)),
    isClosed: true,
  };
}

/** The inputs of a component by the element it is written as, where the subject knows it. */
export function inputNamesOf(tag: string, definition: Definition): string[] | undefined {
  const found = list(definition.directiveDefs).find(
    (child) => child.template && child.selectors[0]?.[0] === tag,
  );
  return found && [...Object.keys(found.inputs), ...broughtBy(found).inputs];
}
