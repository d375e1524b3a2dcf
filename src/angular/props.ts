import { refuse } from '../stage/errors';
import { isArranged } from '../core/answers';
import { nearest } from '../core/near';
import { broughtBy, componentOf, list, outputsOf, type Class, type Definition } from './definitions';

/** @throws SIM-PROP-UNKNOWN, SIM-PROP-MISSING */
export function refuseProps(
  component: unknown,
  subject: string,
  props: object,
  calledAt: Error,
  isUpdate = false,
): void {
  const definition = componentOf(component)!;
  const brought = broughtBy(definition);
  const inputs = [...Object.keys(definition.inputs), ...brought.inputs];
  const known = [...inputs, ...outputsOf(definition)];
  const given = Object.keys(props);
  const unknown = given.find((name) => !known.includes(name));
  if (unknown !== undefined) {
    const near = nearest(unknown, known);
    refuse(
      'SIM-PROP-UNKNOWN',
      { subject, asked: unknown, known, word: 'input', nearest: near },
      { calledAt },
    );
  }
  if (isUpdate) return;
  const missing = requiredIn(component as Class).filter(
    (name) => inputs.includes(name) && !given.includes(name),
  );
  if (missing.length > 0)
    refuse('SIM-PROP-MISSING', { subject, missing, given, word: 'input' }, { calledAt });
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

/** @throws SIM-SLOT-UNKNOWN */
export function refuseSlots(component: unknown, subject: string, slots: object, calledAt: Error): void {
  const { ngContentSelectors = [] } = componentOf(component)!;
  const known = ngContentSelectors.map((selector) => (selector === '*' ? 'default' : selector));
  const unknown = Object.keys(slots).find((name) => !known.includes(name));
  if (unknown === undefined) return;
  const fields = { subject, asked: unknown, known, nearest: nearest(unknown, known) };
  refuse('SIM-SLOT-UNKNOWN', fields, { calledAt });
}

/** The inputs of a component by the element it is written as, where the subject knows it. */
export function inputNamesOf(tag: string, definition: Definition): string[] | undefined {
  const found = list(definition.directiveDefs).find(
    (child) => child.template && child.selectors[0]?.[0] === tag,
  );
  return found && [...Object.keys(found.inputs), ...broughtBy(found).inputs];
}
