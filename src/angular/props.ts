import { refuse } from '../stage/errors';
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

/** The inputs of a component by the element it is written as, where the subject knows it. */
export function inputNamesOf(tag: string, definition: Definition): string[] | undefined {
  const found = list(definition.directiveDefs).find(
    (child) => child.template && child.selectors[0]?.[0] === tag,
  );
  return found && [...Object.keys(found.inputs), ...broughtBy(found).inputs];
}
