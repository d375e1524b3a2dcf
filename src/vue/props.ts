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

/**
 * Vue says nothing of a slot that a component does not have: a name that is a letter off one it has is
 * refused, and one that was never rendered is complained of at the end.
 *
 * @throws SIM-SLOT-UNKNOWN
 */
export function refuseSlots(component: unknown, subject: string, slots: object, calledAt: Error): void {
  const given = Object.keys(slots);
  if (given.length === 0) return;
  const known = slotsIn(unwrap(component) as Definition);
  for (const asked of given) {
    const near = known.includes(asked) ? undefined : known.find((other) => isSlip(asked, other));
    if (near) refuse('SIM-SLOT-UNKNOWN', { subject, asked, known, nearest: near }, { calledAt });
  }
}

/** The slots a component names in its template or its code, as far as they can be read. */
export function slotsIn({ template, render, setup }: Definition): string[] {
  const text = [template, render, setup].map(String).join('\n');
  const named = [
    ...text.matchAll(/renderSlot\)?\([^,]*,\s*["']([\w-]+)["']/g),
    ...text.matchAll(/<slot\b[^>]*?\sname="([\w-]+)"/g),
    ...text.matchAll(/slots\??\.(\w+)/g),
  ].map(([, name]) => name!);
  return [...new Set([...named, ...(/<slot(?![^>]*\sname=)/.test(text) ? ['default'] : [])])];
}
