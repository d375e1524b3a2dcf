import { refuse } from '../stage/errors';
import { isSlip } from '../core/near';
import { declared, unwrap, type Definition } from './kinds';

interface PropOptions {
  readonly required?: boolean;
}

/**
 * Vue takes what it does not know for an attribute, and only warns of what is missing.
 *
 * @throws SIM-PROP-UNKNOWN, SIM-PROP-MISSING
 */
export function refuseProps(
  component: unknown,
  subject: string,
  props: object,
  calledAt: Error,
  isUpdate = false,
): void {
  const options = declared(unwrap(component) as Definition, 'props') as Record<string, PropOptions | null>;
  const known = Object.keys(options);
  const given = Object.keys(props);
  for (const name of given) {
    const near = known.includes(name) ? undefined : known.find((other) => isSlip(name, other));
    if (near)
      refuse('SIM-PROP-UNKNOWN', { subject, asked: name, known, word: 'prop', nearest: near }, { calledAt });
  }
  if (isUpdate) return;
  const missing = known.filter((name) => options[name]?.required && !given.includes(name));
  if (missing.length > 0) refuse('SIM-PROP-MISSING', { subject, missing, given, word: 'prop' }, { calledAt });
}
