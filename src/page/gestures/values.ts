import { describe } from '../describe';
import { refuse } from '../errors';
import { setWhole, writeValue } from './fields';
import type { Person } from './person';

/** How a value is written that a person picks. @see https://html.spec.whatwg.org/multipage/common-microsyntaxes.html#dates-and-times */
const forms: Readonly<Record<string, string>> = {
  date: '2031-05-04',
  time: '08:30',
  month: '2031-05',
  week: '2031-W18',
  'datetime-local': '2031-05-04T08:30',
  color: '#ffcc00',
  range: '50',
};

/** Picks a date, a time, a colour or a place on a range. @throws SIM-ACT-VALUE for one that cannot be picked */
export async function pick(person: Person, field: HTMLInputElement, value: string): Promise<void> {
  refuseValue(field, value);
  await person.hands.click(field);
  await setWhole(field, value, person.send);
}

function refuseValue(field: HTMLInputElement, value: string): void {
  const { type, min, max } = field;
  const refuseFor = (why: string) => refuse('SIM-ACT-VALUE', { element: describe(field), given: value, why });
  const form = forms[type]!;
  if (!isWritten(field, value)) return refuseFor(`a value of the type ${type} is written like ${form}`);
  if (value === '' || type === 'color') return;
  const [least, most] = type === 'range' ? [min || '0', max || '100'] : [min, max];
  const isBelow = (one: string, other: string) =>
    type === 'range' ? Number(one) < Number(other) : one < other;
  if (least && isBelow(value, least)) refuseFor(`the least that can be picked is ${least}`);
  if (most && isBelow(most, value)) refuseFor(`the most that can be picked is ${most}`);
}

/** Whether a field of its type takes the value. An empty one is taken where a person can empty the field. */
function isWritten(field: HTMLInputElement, value: string): boolean {
  if (field.type === 'range') return value.trim() !== '' && Number.isFinite(Number(value));
  if (value === '') return field.type !== 'color';
  const probe = field.cloneNode(false) as HTMLInputElement;
  probe.removeAttribute('value');
  writeValue(probe, '');
  writeValue(probe, value);
  return field.type === 'color' ? /^#[\da-f]{6}$/i.test(value) : probe.value !== '';
}
