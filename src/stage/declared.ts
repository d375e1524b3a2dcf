import { isSlip, nearest } from '../core/near';
import type { Adapter } from './adapter';
import { refuse } from './errors';

/** What a component says it can be given, as far as the framework can be asked. */
export interface Declared {
  readonly known: readonly string[];
  /** Those that must be given. */
  readonly required?: readonly string[];
  /** The name that something goes by, for one that it has in the code: that of a field with an alias. */
  readonly publicOf?: (name: string) => string;
  /** True where nothing else can be given; else only what is a slip of the finger from a known one is refused. */
  readonly isClosed: boolean;
}

interface Given {
  readonly adapter: Adapter;
  readonly component: unknown;
  /** How the subject is called. */
  readonly name: string;
  readonly calledAt: Error;
}

/**
 * Props the component does not have, or must have.
 *
 * @throws SIM-PROP-UNKNOWN, SIM-PROP-MISSING
 */
export function refuseProps(
  { adapter, component, name, calledAt }: Given,
  props: object,
  isUpdate = false,
): void {
  const declared = adapter.propsOf?.(component);
  const inside = isUpdate ? (props as { props?: object }).props : undefined;
  if (inside && Object.keys(props).length === 1 && !declared?.known.includes('props')) {
    const first = Object.keys(inside)[0] ?? 'name';
    const wanted = `the props themselves: update({ ${first}: … })`;
    refuse('SIM-OPTION-VALUE', { option: 'props', value: inside, wanted, of: 'update()' }, { calledAt });
  }
  if (!declared) return;
  const { known, required = [] } = declared;
  const word = adapter.propWord;
  const given = Object.keys(props).map(declared.publicOf ?? ((name) => name));
  const wrong = firstWrong(given, declared, props);
  if (wrong) refuse('SIM-PROP-UNKNOWN', { subject: name, word, known, ...wrong }, { calledAt });
  if (isUpdate) return;
  const missing = required.filter((one) => !given.includes(one));
  if (missing.length > 0) refuse('SIM-PROP-MISSING', { subject: name, missing, given, word }, { calledAt });
}

/** Slots the component does not have. @throws SIM-SLOT-UNKNOWN */
export function refuseSlots({ adapter, component, name, calledAt }: Given, slots: object): void {
  const given = Object.keys(slots);
  const declared = given.length > 0 ? adapter.slotsOf?.(component) : undefined;
  const wrong = declared && firstWrong(given, declared);
  if (wrong) refuse('SIM-SLOT-UNKNOWN', { subject: name, known: declared.known, ...wrong }, { calledAt });
}

const squeeze = (name: string) => name.replace(/\W/g, '').toLowerCase();

/** Whether a name that is not known is meant to be a known one: a slip, or a listener written in another way. */
const isMeant = (asked: string, other: string, value: unknown): boolean =>
  isSlip(asked, other) ||
  (typeof value === 'function' && [squeeze(asked), `on${squeeze(asked)}`].includes(squeeze(other)));

function firstWrong(given: readonly string[], { known, isClosed }: Declared, values: object = {}) {
  for (const asked of given) {
    if (known.includes(asked)) continue;
    if (isClosed) return { asked, nearest: nearest(asked, known) };
    const slip = known.find((other) => isMeant(asked, other, (values as Record<string, unknown>)[asked]));
    if (slip) return { asked, nearest: slip };
  }
  return undefined;
}

/** Tells whether a component is the one that was asked for, by itself or by its name. */
export const fitting = ({ nameOf, unwrap }: Adapter, wanted: unknown): ((component: unknown) => boolean) =>
  typeof wanted === 'string'
    ? (component) => nameOf(component) === wanted
    : (component) => unwrap(component) === unwrap(wanted);
